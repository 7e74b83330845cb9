import { build } from 'esbuild'
import { resolve } from 'node:path'

/** Builds the server and its worker thread into server/dist: our own code in one file each, packages as they are installed. */
export async function buildServer(root) {
  await build({
    absWorkingDir: root,
    entryPoints: [
      { in: 'server/src/main.ts', out: 'main' },
      { in: 'server/src/jobs/study-worker.ts', out: 'study-thread' },
    ],
    outdir: resolve(root, 'server/dist'),
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: true,
    logLevel: 'silent',
    tsconfig: resolve(root, 'tsconfig.json'),
    plugins: [
      {
        name: 'packages-as-installed',
        setup: (b) => {
          b.onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
            kind === 'entry-point' || path.startsWith('@geotome/') ? null : { path, external: true },
          )
        },
      },
    ],
  })
}

if (process.argv[1] === import.meta.filename) await buildServer(resolve(import.meta.dirname, '../..'))

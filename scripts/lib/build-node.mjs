import { build } from 'esbuild'
import { resolve } from 'node:path'

/** Builds the server and its threads into server/dist. */
export const buildServer = (root) =>
  bundle(root, 'server/dist', [
    { in: 'server/src/main.ts', out: 'main' },
    { in: 'server/src/jobs/study-worker.ts', out: 'study-thread' },
    { in: 'server/src/log/log-worker.ts', out: 'log-thread' },
  ])

/** Builds the command line and its reading thread into cli/dist. */
export const buildCli = (root) =>
  bundle(root, 'cli/dist', [
    { in: 'cli/src/main.ts', out: 'main' },
    { in: 'cli/src/reader-worker.ts', out: 'reader-thread' },
  ])

/** Builds the bench into dist/bench: what is measured is what ships, without what a loader of sources adds. */
export const buildBench = (root) => bundle(root, 'dist/bench', [{ in: 'scripts/bench/main.ts', out: 'main' }])

/** Our own code in one file each, packages as they are installed. */
async function bundle(root, outdir, entryPoints) {
  await build({
    absWorkingDir: root,
    entryPoints,
    outdir: resolve(root, outdir),
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

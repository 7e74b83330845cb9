import { spawnSync } from 'node:child_process'
import { readdirSync, readFileSync } from 'node:fs'
import { join, resolve } from 'node:path'

/** Gives the tests that draw random cases other seeds than `npm test` does, over and over: npm run random -- [times] [seed]. */
const root = resolve(import.meta.dirname, '..')
const [times = '10', given] = process.argv.slice(2)
const files = ['core', 'server', 'cli', 'web/src'].flatMap((room) =>
  readdirSync(join(root, room), { recursive: true })
    .map((file) => join(room, String(file)))
    .filter((file) => file.endsWith('.test.ts') && !file.includes('node_modules'))
    .filter((file) => readFileSync(join(root, file), 'utf8').includes('fc.')),
)
const failed = []
for (let i = 0; i < Number(times); i++) {
  const seed = given ?? Math.floor(Math.random() * 2 ** 31)
  process.stdout.write(`seed ${seed}\n`)
  const env = { ...process.env, GEOTOME_SEED: String(seed) }
  const { status } = spawnSync('npx', ['vitest', 'run', '--reporter=dot', ...files], {
    cwd: root,
    stdio: 'inherit',
    env,
  })
  if (status !== 0) failed.push(seed)
}
process.stdout.write(failed.length ? `Failed with the seeds ${failed.join(', ')}.\n` : 'None failed.\n')
process.exit(failed.length ? 1 : 0)

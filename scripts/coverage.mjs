import { spawnSync } from 'node:child_process'
import { readFileSync, rmSync } from 'node:fs'
import { relative, resolve } from 'node:path'

// Runs the unit tests and prints how many lines of each room they reach.
const root = resolve(import.meta.dirname, '..')
const folder = resolve(root, 'dist/coverage')
const { status } = spawnSync(
  'npx',
  [
    'vitest',
    'run',
    '--coverage',
    '--coverage.reporter=json-summary',
    `--coverage.reportsDirectory=${folder}`,
    ...process.argv.slice(2),
  ],
  { cwd: root, stdio: 'inherit' },
)
const summary = JSON.parse(readFileSync(resolve(folder, 'coverage-summary.json'), 'utf8'))
const rooms = new Map()
for (const [file, { lines }] of Object.entries(summary)) {
  if (file === 'total') continue
  const [top, ...rest] = relative(root, file).split('/')
  const room =
    top === 'core'
      ? `core/${rest[0]}`
      : ['web', 'server', 'cli'].includes(top)
        ? `${top}/${rest.slice(1, -1)[0] ?? ''}`
        : top
  const sum = rooms.get(room) ?? { total: 0, covered: 0 }
  rooms.set(room, { total: sum.total + lines.total, covered: sum.covered + lines.covered })
}
process.stdout.write('\nlines reached by the unit tests, room by room\n')
for (const [room, { total, covered }] of [...rooms].sort())
  process.stdout.write(
    `${room.padEnd(20)}${((100 * covered) / Math.max(1, total)).toFixed(0).padStart(4)} %  of ${total}\n`,
  )
rmSync(folder, { recursive: true, force: true })
process.exit(status ?? 1)

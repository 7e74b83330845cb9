import { spawnSync } from 'node:child_process'
import { resolve } from 'node:path'
import { needMariadb } from './lib/mariadb.mjs'
import { needBuild, needDebian, needNpm, say } from './lib/packages.mjs'

// From an empty machine to the test results: packages, then lint, types, units, a minute of fuzz, and the real page in Chromium.
const root = resolve(import.meta.dirname, '..')
needNpm(root)
needMariadb()
needDebian(
  'Chromium and the drawing libraries',
  ['/usr/bin/chromium', '/usr/share/doc/libegl1', '/usr/share/doc/libegl-mesa0', '/usr/share/doc/libgl1-mesa-dri'],
  ['chromium', 'libegl1', 'libegl-mesa0', 'libgl1-mesa-dri'],
)

const STEPS = [
  ['Lint', 'lint'],
  ['Types', 'typecheck'],
  ['Unit tests', 'test:unit'],
  // From one seed, as all random cases here: a change is held up only by what it did.
  ['Fuzz, a minute of it', 'fuzz', '--seconds', '60', '--seed', '20260815'],
  ['Interface tests', 'test:e2e'],
]
for (const [what, script, ...more] of STEPS) {
  say(`\n${what} ...`)
  if (script === 'test:e2e') await needBuild(root)
  const started = Date.now()
  const { status } = spawnSync('npm', ['run', script, '--silent', '--', ...more], { cwd: root, stdio: 'inherit' })
  if (status !== 0) {
    say(`${what}: failed`)
    process.exit(status ?? 1)
  }
  say(`${what}: ${((Date.now() - started) / 1000).toFixed(0)} s`)
}
say('\nAll tests passed.')

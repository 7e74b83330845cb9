import { spawn } from 'node:child_process'
import { resolve } from 'node:path'
import { needMariadb } from './lib/mariadb.mjs'
import { needBuild, needDebian, needNpm, say } from './lib/packages.mjs'

// From an empty machine to the test results: packages, then lint, types, units, half a minute of fuzz, and the real page in Chromium.
const root = resolve(import.meta.dirname, '..')
needNpm(root)
needMariadb()
needDebian(
  'Chromium and the drawing libraries',
  [
    '/usr/bin/chromium-headless-shell',
    '/usr/share/doc/libegl1',
    '/usr/share/doc/libegl-mesa0',
    '/usr/share/doc/libgl1-mesa-dri',
  ],
  ['chromium-headless-shell', 'libegl1', 'libegl-mesa0', 'libgl1-mesa-dri'],
)

// Stage by stage; what stands side by side in one keeps a core busy each.
const STAGES = [
  [
    [['Lint: code', 'lint:code']],
    [
      ['Lint: layout', 'lint:layout'],
      ['Lint: arrows', 'lint:arrows'],
      ['Types', 'typecheck'],
      // From one seed, as all random cases here: a change is held up only by what it did.
      ['Fuzz, half a minute of it', 'fuzz', '--seconds', '30', '--seed', '20260815'],
    ],
  ],
  [[['Unit tests', 'test:unit']]],
  [[['Interface tests', 'test:e2e']]],
]
for (const lanes of STAGES) {
  if (lanes.flat().some(([, script]) => script === 'test:e2e')) await needBuild(root)
  const failed = (await Promise.all(lanes.map(inTurn))).filter((what) => what !== null)
  if (failed.length) process.exit(1)
}
say('\nAll tests passed.')

/** Runs steps one after the other; gives the name of the one that failed, or null. */
async function inTurn(steps) {
  for (const [what, script, ...more] of steps) {
    say(`\n${what} ...`)
    const started = Date.now()
    const child = spawn('npm', ['run', script, '--silent', '--', ...more], { cwd: root, stdio: 'inherit' })
    const ended = await new Promise((done) => child.once('exit', (status, signal) => done(status ?? signal)))
    if (ended !== 0) {
      say(`${what}: failed (${ended})`)
      return what
    }
    say(`${what}: ${((Date.now() - started) / 1000).toFixed(0)} s`)
  }
  return null
}

import { execFileSync, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, statSync, readdirSync, writeFileSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'

export const say = (text) => process.stdout.write(`${text}\n`)

/** Ends the program with one sentence. */
export function fail(text) {
  process.stderr.write(`${text}\n`)
  process.exit(1)
}

/** Installs Debian packages when one of the given files is missing. */
export function needDebian(what, files, packages) {
  if (files.every((f) => existsSync(f))) return
  const root = process.getuid?.() === 0
  const sudo = !root && spawnSync('sudo', ['-n', 'true']).status === 0
  if (!existsSync('/usr/bin/apt-get') || (!root && !sudo))
    fail(
      `${what} is missing and cannot be installed by this user. Install it once as root: apt-get install ${packages.join(' ')}`,
    )
  say(`Installing ${what} (Debian packages ${packages.join(', ')}) ...`)
  const run = (...args) =>
    spawnSync(root ? 'apt-get' : 'sudo', root ? args : ['-n', 'apt-get', ...args], {
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      encoding: 'utf8',
    })
  run('update')
  const result = run('install', '-y', '--no-install-recommends', ...packages)
  if (result.status !== 0)
    fail(`${what} could not be installed: ${(result.stderr || result.stdout || '').trim().split('\n').pop()}`)
}

/** Runs npm ci when the installed packages are not those of the lock file. */
export function needNpm(root) {
  const hash = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  const stamp = join(root, 'node_modules/.geotome-lock')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return
  say('Installing npm packages (about a minute) ...')
  try {
    execFileSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
      cwd: root,
      stdio: ['ignore', 'ignore', 'pipe'],
      encoding: 'utf8',
    })
  } catch (e) {
    fail(
      `The npm packages could not be installed: ${String(e.stderr || e.message)
        .trim()
        .split('\n')
        .slice(-3)
        .join(' ')}`,
    )
  }
  writeFileSync(stamp, hash)
}

/** Builds client and server where a source file is newer than what was built. */
export async function needBuild(root) {
  if (!isBuilt(root, 'web/dist/index.html', ['web', 'core'])) {
    say('Building the client ...')
    const result = spawnSync('npm', ['run', 'build', '--silent'], { cwd: root, encoding: 'utf8' })
    if (result.status !== 0) fail(`The client could not be built:\n${(result.stdout + result.stderr).trim()}`)
  }
  if (!isBuilt(root, 'server/dist/main.mjs', ['server', 'core', 'demo/raster.ts'])) {
    say('Building the server ...')
    const { buildServer } = await import('./build-node.mjs')
    await buildServer(root).catch((e) => fail(`The server could not be built:\n${e.message}`))
  }
}

/** Builds the command line, in half a second, where a source file is newer than what was built. */
export async function needCli(root) {
  if (isBuilt(root, 'cli/dist/main.mjs', ['cli', 'core'])) return
  const { buildCli } = await import('./build-node.mjs')
  await buildCli(root).catch((e) => fail(`The command line could not be built:\n${e.message}`))
}

/** Whether something was built after all that it is made of. */
function isBuilt(root, built, sources) {
  const path = join(root, built)
  if (!existsSync(path)) return false
  return statSync(path).mtimeMs > Math.max(...[...sources, 'package-lock.json'].map((p) => newestIn(join(root, p))))
}

function newestIn(path) {
  const stat = statSync(path)
  if (!stat.isDirectory()) return stat.mtimeMs
  return readdirSync(path, { withFileTypes: true })
    .filter((e) => e.name !== 'node_modules' && e.name !== 'dist')
    .reduce((top, e) => Math.max(top, newestIn(join(path, e.name))), 0)
}

/** Checks that a folder can be written to. */
export function needFolder(path) {
  try {
    mkdirSync(path, { recursive: true, mode: 0o700 })
    writeFileSync(join(path, '.writable'), 'x'.repeat(65536))
  } catch (e) {
    if (e.code === 'ENOSPC') fail(`The disk is full: ${path} cannot be written to. Free some space and start again.`)
    fail(
      `The folder ${path} cannot be written to (${e.code}). Give this user the right to, or clone the project elsewhere.`,
    )
  }
}

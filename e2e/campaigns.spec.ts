import { expect, test } from '@playwright/test'
import { execFile, spawnSync } from 'node:child_process'
import { mkdtempSync, rmdirSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'

/** Whether this user may mount a disk, which the campaign of full disks needs. */
function mayMount(): boolean {
  const folder = mkdtempSync(join(tmpdir(), 'gt-mount-'))
  const { status } = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=1m', 'none', folder])
  if (status === 0) spawnSync('umount', [folder])
  rmdirSync(folder)
  return status === 0
}

/** A short piece of each campaign, on a machine that does other work beside it: what is lost or stuck shows, how long things take does not. */
for (const [name, times] of [
  ['kill', 2],
  ['upgrade', 1],
  ['disk', 1],
  ['hostile', 4],
  ['soak', 0.2],
] as const)
  test(`campaign: ${name}`, async () => {
    test.setTimeout(300_000)
    test.skip(name === 'disk' && !mayMount(), 'this user may not mount a disk')
    const { stdout } = await promisify(execFile)(
      'npx',
      ['tsx', 'scripts/campaign/main.ts', name, String(times), '20'],
      { maxBuffer: 1e7 },
    )
    expect(stdout).toContain(`${name}: all held`)
  })

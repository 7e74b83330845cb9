import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, statfsSync, truncateSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Application, ask, wait } from './application'
import type { Campaign } from './kind'

/** A disk of so many MB, in memory; needs the right to mount. */
function smallDisk(megabytes: number): { folder: string; free: () => number; remove: () => void } {
  const folder = mkdtempSync(join(tmpdir(), 'gt-disk-'))
  execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m`, 'none', folder])
  return {
    folder,
    free: () => statfsSync(folder).bavail * statfsSync(folder).bsize,
    remove: () => {
      execFileSync('umount', ['-l', folder])
      rmSync(folder, { recursive: true })
    },
  }
}

function fill(disk: ReturnType<typeof smallDisk>, leave: number): () => void {
  const ballast = join(disk.folder, 'ballast')
  const most = disk.free() - leave
  try {
    writeFileSync(ballast, Buffer.alloc(most))
  } catch {
    // Full to the last byte, as meant.
  }
  return () => {
    truncateSync(ballast, 0)
    rmSync(ballast)
  }
}

function must(holds: boolean, what: string): void {
  if (!holds) throw new Error(what)
}

/** A disk that fills while people work: reading goes on, edits are refused with a sentence, and taken again when there is room. */
async function whileWorking(leave: number): Promise<string> {
  const disk = smallDisk(400)
  const app = new Application(disk.folder, 4211)
  try {
    must(await app.start(), `It did not start: ${app.said}`)
    const made = await ask(`${app.url}/api/projects`, 'POST', { name: 'Full', unit: 'm', siteArea: 100 })
    const project = `${app.url}/api/projects/${String(made.body.id)}`
    let n = 0
    const edit = () =>
      ask(`${project}/edits`, 'POST', {
        id: `e${++n}`,
        author: 'a',
        label: 'name',
        edit: { edit: 'project.change', set: { name: `Full ${n}` } },
      })
    must((await edit()).status === 201, 'An edit on an empty disk was not taken.')
    const free = fill(disk, leave)
    await wait(1200)
    const seen: number[] = []
    for (let i = 0; i < 30; i++) {
      seen.push((await edit()).status)
      const reads = await Promise.all(['/api/health', '/api/projects', '/'].map((p) => ask(`${app.url}${p}`)))
      must(
        reads.every((r) => r.status === 200),
        `With ${leave} bytes free reading answers ${reads.map((r) => r.status).join(', ')}.`,
      )
    }
    must(
      seen.every((s) => s === 507),
      `Edits with ${leave} bytes free: ${[...new Set(seen)].join(', ')}.`,
    )
    free()
    await wait(1500)
    must((await edit()).status === 201, 'An edit after room has returned was not taken.')
    return `${leave} bytes free: 30 edits refused with 507, 90 reads answered; with room again an edit is taken`
  } finally {
    await app.stop()
    disk.remove()
  }
}

/** A first start on a full disk, and one on a database that is damaged: each says what it is. */
async function atStart(times: number): Promise<string[]> {
  const disk = smallDisk(40)
  const app = new Application(disk.folder, 4212)
  const said: string[] = []
  try {
    for (const leave of [1_000_000, 0, 10_000_000].slice(0, times)) {
      const free = fill(disk, leave)
      must(!(await app.start()), 'It started on a full disk.')
      must(/disk is full|Free some space/i.test(app.said), `On a full disk it says: ${app.said}`)
      said.push(`first start, ${leave} bytes free: ${app.said.trim().split('\n').pop() ?? ''}`)
      free()
    }
  } finally {
    disk.remove()
  }
  const folder = mkdtempSync(join(tmpdir(), 'gt-damaged-'))
  const damaged = new Application(folder, 4213)
  must(await damaged.start(), `It did not start: ${damaged.said}`)
  await damaged.stop()
  writeFileSync(join(folder, 'mariadb', 'ibdata1'), Buffer.alloc(4096, 7))
  must(!(await damaged.start()), 'It started on a damaged database.')
  must(/damaged/.test(damaged.said) && !/Aborting/.test(damaged.said), `On a damaged database it says: ${damaged.said}`)
  said.push(`damaged: ${damaged.said.trim().split('\n').pop() ?? ''}`)
  mkdirSync(folder, { recursive: true })
  rmSync(folder, { recursive: true, force: true })
  return said
}

export const disk: Campaign = {
  says: 'the disk fills while people work, and before a first start; the database is damaged',
  async run(times, tell) {
    const lines: string[] = []
    for (let i = 0; i < times; i++) {
      const leave = [0, 100_000, 5_000_000, 40_000_000][i % 4] ?? 0
      const line = await whileWorking(leave)
      tell(line)
      lines.push(line)
    }
    return [...lines, ...(await atStart(times))]
  },
}

import { mkdtemp, readFile, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import { strFromU8, unzipSync } from 'fflate'
import { duplicateScheme } from '@geotome/core/groundwork'
import { readProjectFile, writeProjectText } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import { apply, massNamed, projectWith, schemeOf, withMass } from '../../core/testing/make'
import { told } from './told'

vi.setConfig({ testTimeout: 180_000 })

let folder = ''
const run = (...args: string[]) => told(args.map((a) => a.replace(/^@/, `${folder}/`)))
const FIVE = [0, 3, 6, 9, 12]

beforeAll(async () => {
  await openKernel()
  folder = await mkdtemp(join(tmpdir(), 'gt-areas-'))
  let bar = withMass(projectWith(FIVE), { name: 'Bar', height: 15, box: [0, 0, 40, 12] })
  bar = apply(bar, { edit: 'scheme.remove', id: 'aside' })
  await writeFile(join(folder, 'bar.geotome.json'), writeProjectText(bar))
  // Nine storeys; the second scheme has an arm of 8.0 by 7.2 on five of them.
  let two = withMass(projectWith([0, 3, 6, 9, 12, 15, 18, 21, 24]), { name: 'Block', height: 27, box: [0, 0, 30, 14] })
  two = apply(two, { edit: 'scheme.remove', id: 'aside' })
  two = apply(two, duplicateScheme(two, schemeOf(two), 'second', 'With an arm'))
  two = withMass(two, { name: 'Arm', height: 15, level: 'L2', box: [30, 3, 8, 7.2] })
  await writeFile(join(folder, 'two.geotome.json'), writeProjectText(two))
})

describe('areas on the command line', () => {
  it('ledger by level and use, as text, JSON, CSV and a workbook', async () => {
    const by = ['--by', 'level,use']
    const { rows } = JSON.parse((await run('ledger', '@bar.geotome.json', ...by, '--json')).out) as { rows: object[] }
    expect(rows).toHaveLength(5)
    expect(rows[0]).toEqual({ level: 'Level 4', use: 'homes', gross: 480, internal: null, net: null })
    expect((await run('ledger', '@bar.geotome.json', ...by)).out).toMatch(
      /level +use +gross m2[\s\S]*Level 0 +homes +480\.00[\s\S]*total +2400\.00/,
    )
    expect((await run('ledger', '@bar.geotome.json', ...by, '--csv')).out).toMatch(
      /^level,use,gross m2,internal m2,net m2\r?\nLevel 4,homes,480\.00,,/,
    )
    expect((await run('ledger', '@bar.geotome.json', '--by', 'use', '--xlsx', '@bar.xlsx')).code).toBe(0)
    const files = unzipSync(new Uint8Array(await readFile(join(folder, 'bar.xlsx'))))
    expect(strFromU8(files['xl/worksheets/sheet1.xml'] as Uint8Array)).toContain('<v>2400</v>')
    expect((await run('ledger', '@bar.geotome.json', '--by', 'floor')).err).toMatch(
      /not put together by "floor"\. Choose of level, use, wing/,
    )
  })
  it('compare tells the arm: 288.00 m2 only there, on five of nine storeys', async () => {
    const [a, b] = ['Scheme A', 'With an arm']
    const told = JSON.parse((await run('compare', '@two.geotome.json', a, b, '--json')).out) as {
      only: number[]
      levels: { only: number[] }[]
    }
    expect(told.only).toEqual([0, 288])
    expect(told.levels.map((l) => l.only[1])).toEqual([0, 0, 57.6, 57.6, 57.6, 57.6, 57.6, 0, 0])
    expect((await run('compare', '@two.geotome.json', a, b)).out).toMatch(
      /only in With an arm[\s\S]*Level 3 +420\.00 +477\.60 +0\.00 +57\.60/,
    )
    expect((await run('compare', '@two.geotome.json', a, a)).err).toMatch(
      /"Scheme A" is compared with itself\. Choose another/,
    )
  })
  it('target finds a value and writes it, or says how near it comes', async () => {
    const seek = ['target', '@bar.geotome.json', '--figure', 'homes']
    const width = await run(...seek, '--value', '3150', '--move', 'number:Bar, width', '-o', '@wide.geotome.json')
    expect(width.out.trim()).toBe('Bar, width 52.500 m gives 3,150.00 m².')
    const wide = readProjectFile(new Uint8Array(await readFile(join(folder, 'wide.geotome.json'))))
    expect(massNamed(wide, 'Bar').recipe[0]).toMatchObject({ shape: { width: 52.5, depth: 12 } })
    const storeys = await run(...seek, '--value', '>=3000', '--move', 'storeys:Bar', '--json')
    expect(JSON.parse(storeys.out)).toMatchObject([{ best: { at: 7, figure: 3360 }, beside: { at: 6, figure: 2880 } }])
    const far = await run(...seek, '--value', '9000', '--move', 'Bar, width', '--to', '100 m')
    expect(far.out).toMatch(/out of reach\. Bar, width 100\.000 m gives 6,000\.00 m²/)
    expect(
      (await run('target', '@bar.geotome.json', '--figure', 'market', '--value', '3', '--move', 'Bar, width')).err,
    ).toMatch(/Market does not hang on Bar, width/)
  })
  it('brief reads a table by a command, and tells each line; what cannot be read is named by its cell', async () => {
    const table =
      'use\ttarget\ttolerance\tbound\tsize\nhomes\t2,400\t5 %\t\t\nflats, homes\t40\t\tat least\t65\nheight\t14.5\t\tat most\t'
    const args = JSON.stringify({ text: table })
    expect((await run('do', '@bar.geotome.json', 'brief.read', args, '-o', '@brief.geotome.json')).code).toBe(0)
    const lines = JSON.parse((await run('brief', '@brief.geotome.json', '--json')).out) as object[]
    expect(lines).toMatchObject([
      { name: 'homes', state: 'met', now: 2400, tolerance: 0.05, bound: 'about' },
      { name: 'flats', state: 'short', now: 36, target: 40, by: -4 },
      { name: 'height', state: 'over', by: 0.5 },
    ])
    expect((await run('findings', '@brief.geotome.json')).out).toMatch(
      /brief missed: flats is 4 short: 36 of at least 40/,
    )
    const bad = JSON.stringify({ text: 'homes\tmany\nlofts\t30\nmarket\t200\t5 %\tsome' })
    expect((await run('do', '@bar.geotome.json', 'brief.read', bad, '-o', '@x.geotome.json')).err).toMatch(
      /3 cells cannot be read: B1 "many" is no area; A2 "lofts" is neither a use .*; D3 "some" is none of about/,
    )
    const twice = JSON.stringify({ text: 'homes\t30\nmarket\t5\nhomes\t40' })
    expect((await run('do', '@bar.geotome.json', 'brief.read', twice, '-o', '@x.geotome.json')).err).toMatch(
      /A1 and A3 are both about homes\. Keep one/,
    )
  })
  it('scheme.bring takes a mass over from another scheme, so that nothing differs any more', async () => {
    const args = JSON.stringify({ from: 'With an arm', masses: ['Arm'] })
    expect((await run('do', '@two.geotome.json', 'scheme.bring', args, '-o', '@same.geotome.json')).code).toBe(0)
    const told = JSON.parse((await run('compare', '@same.geotome.json', 'Scheme A', 'With an arm', '--json')).out) as {
      only: number[]
    }
    expect(told.only).toEqual([0, 0])
  })
})

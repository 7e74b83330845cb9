import { mkdtemp, readFile, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterEach, beforeAll, describe, expect, it, vi } from 'vitest'
import {
  assetsIn,
  inOrder,
  readProjectFile,
  readProjectPackage,
  writeProjectFile,
  writeProjectText,
} from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import { joinedShed } from '../../core/testing/boat-shed'
import { told } from './told'

// Each file is read in a thread of its own, which takes its time to start where much goes on beside it.
vi.setConfig({ testTimeout: 180_000 })

let folder = ''
const demo = resolve(import.meta.dirname, '../../demo/kiln-quay.geotome.json')
beforeAll(async () => {
  await openKernel()
  folder = await mkdtemp(join(tmpdir(), 'gt-cli-'))
  const shed = joinedShed()
  // The command line takes the first scheme where none is named.
  const { aside, ...others } = shed.schemes
  await writeFile(
    join(folder, 'shed.geotome.json'),
    writeProjectText({ ...shed, schemes: { ...others, ...(aside ? { aside: { ...aside, order: 9 } } : {}) } }),
  )
})
afterEach(() => {
  vi.restoreAllMocks()
})

/** Runs a command line as a person would, and gives what it said. */
const run = (...args: string[]) => told(args.map((a) => a.replace(/^@/, `${folder}/`)))
interface Ledger {
  scheme: string
  measuredTo: string
  levels: {
    id: string
    name: string
    height: number
    area: number
    low: number
    perimeter: number
    uses: Record<string, number>
  }[]
  totals: Record<string, number>
}

describe('geotome', () => {
  it('ground --json gives the site, what is over, and heights above ground; pictures and the survey go along from file to file', async () => {
    const project = readProjectFile(new Uint8Array(await readFile(demo)))
    const hashes = assetsIn(project)
    const assets = Object.fromEntries(
      await Promise.all(
        hashes.map(async (hash) => [hash, new Uint8Array(await readFile(join(demo, '../assets', hash)))] as const),
      ),
    )
    await writeFile(join(folder, 'quay.geotome'), writeProjectFile(project, assets))
    const report = JSON.parse((await run('ground', '@quay.geotome', '--json')).out) as {
      site: { area: number }
      terrain: { points: number }
      masses: { name: string; over: number; passed: object[]; aboveGround: { mean: number } }[]
      neighbours: unknown[]
    }
    expect([report.site.area, report.terrain.points, report.neighbours.length]).toEqual([7335, 1645, 4])
    expect(report.masses.find((m) => m.name === 'Lookout')?.passed).toMatchObject([
      { limit: 'height', over: 2.1, say: 'the permitted height by 2.100 m' },
    ])
    expect(report.masses.find((m) => m.name === 'Lookout')?.aboveGround.mean).toBeGreaterThan(36)
    await writeFile(join(folder, 'edit.json'), JSON.stringify({ edit: 'project.change', set: { name: 'Other' } }))
    expect((await run('edit', '@quay.geotome', '@edit.json', '-o', '@other.geotome')).code).toBe(0)
    expect(
      Object.keys(readProjectPackage(new Uint8Array(await readFile(join(folder, 'other.geotome')))).assets).sort(),
    ).toEqual(assetsIn(project))
    expect((await run('ground', demo)).out).toContain('Lookout')
  })
  it("ledger --json gives every storey's figures in m and m2", async () => {
    const { code, out } = await run('ledger', demo, '--json')
    const ledger = JSON.parse(out) as Ledger
    expect(code).toBe(0)
    expect(Object.keys(ledger)).toEqual(['scheme', 'measuredTo', 'levels', 'totals', 'wings'])
    expect(ledger.levels).toHaveLength(13)
    expect(ledger.levels[2]).toMatchObject({
      name: 'Mezzanine',
      height: 3.1,
      area: 552.96,
      low: 0,
      perimeter: 96,
      uses: { market: 552.96 },
    })
    expect(ledger.totals).toMatchObject({ area: 12548.289812, low: 0 })
    for (const key of ['area', 'low', 'volume', 'footprint', 'ratio']) expect(ledger.totals[key]).toBeTypeOf('number')
  })
  it('makes a building, keeps it in line and exports it, without a screen', async () => {
    expect(
      JSON.parse((await run('fabric', '@shed.geotome.json', '--json')).out).offered.filter(
        (o: { role: string }) => o.role === 'wall',
      ),
    ).toHaveLength(12)
    expect((await run('make', '@shed.geotome.json', '-o', '@built.geotome', '--overhang', '520 mm')).code).toBe(0)
    const built = JSON.parse((await run('fabric', '@built.geotome', '--json')).out) as {
      parts: { role: string; level: string; bond: string }[]
      offered: unknown[]
    }
    expect(
      ['Level 0', 'Level 1'].map((level) => built.parts.filter((p) => p.role === 'wall' && p.level === level).length),
    ).toEqual([8, 4])
    expect(built.offered).toEqual([])
    const ledger = JSON.parse((await run('ledger', '@built.geotome', '--json')).out) as Ledger
    expect(ledger.levels.map((l) => Number((l as unknown as { net: number }).net.toFixed(3)))).toEqual([
      165.466, 143.194,
    ])

    const project = JSON.parse(await readFile(join(folder, 'shed.geotome.json'), 'utf8')) as {
      project: { schemes: Record<string, { id: string; masses: Record<string, { id: string; recipe: unknown[] }> }> }
    }
    const scheme = Object.values(project.project.schemes).find((x) => x.id !== 'aside')
    const mass = Object.values(scheme?.masses ?? {})[0]
    await writeFile(
      join(folder, 'edits.json'),
      JSON.stringify([
        { edit: 'mass.change', scheme: scheme?.id, id: mass?.id, set: { place: { x: 1, y: 0, turn: 0 } } },
        { edit: 'project.change', set: { name: 'Moved shed' } },
      ]),
    )
    expect((await run('edit', '@built.geotome', '@edits.json', '-o', '@moved.geotome.json')).code).toBe(0)
    expect((await run('findings', '@moved.geotome.json')).out).toContain('drifted')
    expect((await run('align', '@moved.geotome.json', '-o', '@aligned.geotome.json')).code).toBe(0)
    expect((await run('findings', '@aligned.geotome.json')).out).not.toContain('drifted')

    expect((await run('export', '@aligned.geotome.json', '--to', 'ifc', '-o', '@shed.ifc')).code).toBe(0)
    expect(await readFile(join(folder, 'shed.ifc'), 'utf8')).toContain("FILE_SCHEMA(('IFC4'))")
    await run('export', '@aligned.geotome.json', '--to', 'csv', '-o', '@shed.csv')
    expect(await readFile(join(folder, 'shed.csv'), 'utf8')).toContain('Level 1,2.850,157.44')
  })
  it.each([
    [['ledger', '@missing.geotome'], /missing\.geotome cannot be read \(ENOENT\)\. Check the path\./],
    [['ledger', '@shed.geotome.json', '--scheme', 'Z'], /no scheme "Z"\. Choose one of Scheme A/],
    [
      ['export', '@shed.geotome.json', '--to', 'clay', '-o', '@x'],
      /no format "clay"\. Choose one of ifc, ifc-forms, glb/,
    ],
    [['export', '@shed.geotome.json', '--to', 'csv', '-o', '/nowhere/at/all.csv'], /cannot be written/],
    [['make', '@shed.geotome.json', '-o', '@x', '--wall', 'Ice'], /no build-up "Ice"/],
    [['align', '@shed.geotome.json', '-o', '@x'], /No part has drifted/],
    [['edit', '@shed.geotome.json', '@shed.geotome.json', '-o', '@x'], /malformed/],
    [['fly'], /unknown command/],
    [['ledger'], /missing required argument/],
  ])('%j ends with one sentence and exit code 1', async (args, sentence) => {
    const { code, out, err } = await run(...args)
    expect(code).toBe(1)
    expect(out).toBe('')
    expect(err).toMatch(sentence)
    expect(err.trim().split('\n')).toHaveLength(1)
  })
})

describe('a project without a screen', () => {
  it('is begun, gets levels and a mass, becomes a building, and is changed by name', async () => {
    const at = (n: number) => join(folder, `made-${n}.geotome.json`)
    expect((await run('new', 'Sail loft', '-o', at(0), '--site', '600')).code).toBe(0)
    const steps: [string, object][] = [
      ['level.line', { line: '3 x 3.15' }],
      ['mass.draw', { name: 'Loft', level: 'Ground', height: 6.3, rectangle: [0, 0, 14, 9] }],
      ['level.move', { level: 'storey 1', height: '3.4 m' }],
      ['building.make', {}],
      ['level.rename', { level: 'Storey 3', name: 'Ridge' }],
    ]
    for (const [i, [name, args]] of steps.entries()) {
      const done = await run('do', at(i), name, JSON.stringify(args), '-o', at(i + 1))
      expect([name, done.err]).toEqual([name, ''])
    }
    const ledger = JSON.parse((await run('ledger', at(steps.length), '--json')).out) as {
      levels: { name: string; height: number; area: number }[]
    }
    expect(ledger.levels.map((l) => [l.name, l.height, l.area])).toEqual([
      ['Ground', 0, 126],
      ['Storey 1', 3.4, 126],
      ['Storey 2', 6.55, 0],
      ['Ridge', 9.7, 0],
    ])
    expect((await run('fabric', at(steps.length))).out).toMatch(/Loft, Storey 1, wall 4/)
  })
  it('is shaped by moves, wherever they fit; what a cut throws away is kept, and becomes a building with the rest', async () => {
    const file = join(folder, 'shaped.geotome.json')
    await run('new', 'Boat shed', '-o', file)
    const does = async (name: string, args: object) => {
      const done = await run('do', file, name, JSON.stringify(args), '-o', file)
      expect([name, done.err]).toEqual([name, ''])
    }
    const floors = async () => {
      const { out } = await run('ledger', file, '--json')
      return (JSON.parse(out) as { levels: { area: number }[] }).levels.map((l) => Number(l.area.toFixed(3)))
    }
    await does('level.line', { line: '3.15 First' })
    await does('mass.draw', { name: 'Shed', level: 'Ground', height: 6.3, rectangle: [350000, 5600000, 14, 9] })
    await does('mass.shape', { mass: 'Shed', move: { move: 'cut', x: 4, y: 0, z: 0, direction: 90, rises: 90, keeps: 'below' } }) // prettier-ignore
    expect(await floors()).toEqual([36, 36])
    await does('mass.keep-rest', { mass: 'shed' })
    expect(await floors()).toEqual([126, 126])
    // Put before the raise, although it comes last.
    await does('mass.shape', { mass: 'Shed', move: { move: 'inset', by: -0.5 } })
    expect(await floors()).toEqual([135, 135])
    await does('building.make', {})
    expect((await run('fabric', file)).out).toMatch(/Shed, rest, First, wall 3/)
    const none = await run(
      'do',
      file,
      'mass.shape',
      '{"mass": "Shed", "move": {"move": "outline", "shape": {"kind": "rectangle", "width": 3, "depth": 4}}}',
      '-o',
      file,
    )
    expect(none.err).toMatch(/An? outline fits nowhere in the recipe of "Shed"\. Take another move off first\./)
    const flat = await run('do', file, 'mass.shape', '{"mass": "Shed", "move": {"move": "fold"}}', '-o', file)
    expect([flat.code, flat.err.trim().split('\n')]).toEqual([1, [expect.stringMatching(/./)]])
  })
  it('lists its commands with the schemas of their arguments', async () => {
    const list = JSON.parse((await run('do', '--list')).out) as {
      name: string
      say: string
      args: { properties: object }
    }[]
    expect(list.length).toBeGreaterThan(18)
    expect(list.find((c) => c.name === 'storey.height')?.args.properties).toHaveProperty('keep')
  })
  it.each([
    ['level.move', '{"level": "Storey 9", "height": 3}', /no level "Storey 9"\. There are /],
    [
      'level.move',
      '{"levle": "Ground", "heigth": 3}',
      /"levle" \(was level meant\?\), "heigth" \(was height meant\?\)/,
    ],
    ['levl.move', '{}', /no command "levl\.move"\. Was level\.move meant/],
    ['mass.draw', '{"name": "A"}', /mass.draw needs level, height, one of rectangle, polygon, circle/],
    ['mass.draw', 'nothing.json', /cannot be read/],
  ])('%s %s is refused with a sentence', async (name, args, sentence) => {
    const done = await run('do', join(folder, 'shed.geotome.json'), name, args, '-o', join(folder, 'never.json'))
    expect(done.code).toBe(1)
    expect(done.err).toMatch(sentence)
  })
})

describe('geotome do, on the ground and with schemes', () => {
  it('draws a site and a neighbour, reads levels, adds a wing about masses, duplicates the scheme', async () => {
    const file = join(folder, 'ground.geotome.json')
    expect((await run('new', 'Quay', '-o', file)).code).toBe(0)
    const does = async (name: string, args: object) => {
      const done = await run('do', file, name, JSON.stringify(args), '-o', file)
      expect(done.err).toBe('')
      expect(done.code).toBe(0)
    }
    await does('site.draw', { corners: [[0, 0], [40, 0], [40, 30], [0, 30]] }) // prettier-ignore
    await does('neighbour.draw', { corners: [[50, 0], [60, 0], [60, 10]], height: '12 m' }) // prettier-ignore
    await does('levels.read', { levels: [{ name: 'First', height: 3.65 }, { name: 'Permitted', height: 12, kind: 'mark' }] }) // prettier-ignore
    await does('mass.draw', { name: 'Bar', level: 'Ground', height: 6, polygon: [[2, 2], [22, 2], [22, 12], [2, 12]] }) // prettier-ignore
    await does('wing.add', { name: 'West', about: ['Bar'] })
    await does('scheme.duplicate', {})
    const project = readProjectFile(new Uint8Array(await readFile(file)))
    const [a, b] = inOrder(project.schemes)
    expect([a?.name, b?.name]).toEqual(['Scheme A', 'Scheme B'])
    expect(b?.masses).toEqual(a?.masses)
    expect(Object.values(a?.wings ?? {})[0]?.outline).toEqual([[2, 2], [22, 2], [22, 12], [2, 12]]) // prettier-ignore
    expect(new Set(Object.values(a?.levels ?? {}).map((l) => l.name))).toEqual(
      new Set(['Ground', 'First', 'Permitted']),
    )
    const ground = JSON.parse((await run('ground', file, '--json')).out) as {
      site: { area: number }
      neighbours: { name: string; top: number }[]
    }
    expect(ground.site.area).toBeCloseTo(1200, 9)
    expect(ground.neighbours).toMatchObject([{ name: 'Neighbour 1', top: 12 }])
    await does('building.make', {})
    const fabric = JSON.parse((await run('fabric', file, '--json')).out) as { parts: Record<string, unknown>[] }
    const wall = fabric.parts.find((p) => p.role === 'wall' && p.level === 'Ground')
    expect(wall).toMatchObject({ mass: 'Bar', tilt: 0 })
    expect(wall?.height).toBeGreaterThan(3)
    expect(wall?.length).toBeGreaterThan(9)
    expect(wall?.planArea).toBeGreaterThan(1)
    expect(fabric.parts.find((p) => p.role === 'flat roof')).toMatchObject({ tilt: 90, planArea: 200 })
  })
})

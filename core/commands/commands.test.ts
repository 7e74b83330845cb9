import { beforeAll, describe, expect, it } from 'vitest'
import { applyEdit } from '../edits'
import { inOrder, parseProject, writeProjectText, type Project } from '../project'
import { openKernel } from '../solid'
import { studyScheme, type Study } from '../study'
import { minter, projectWith, schemeOf, studied } from '../testing/make'
import { COMMANDS, runCommand } from '.'

beforeAll(() => openKernel())

const used = new Set<string>()
const mint = minter('made')

/** Does a command, after which the project still is a whole file; what takes it back gives the very project of before. */
function does(project: Project, name: string, args: object = {}): Project {
  used.add(name)
  const edit = runCommand(studied(project), name, args, mint)
  const { project: done, inverse } = applyEdit(project, edit)
  expect([name, writeProjectText(applyEdit(done, inverse).project)]).toEqual([name, writeProjectText(project)])
  const file = JSON.parse(writeProjectText(done)) as { project: unknown }
  expect([name, writeProjectText(parseProject(file.project))]).toEqual([name, writeProjectText(done)])
  return done
}
const floors = (p: Project) => studied(p).floors.map((f) => Number(f.area.toFixed(3)))
const heights = (p: Project) => studied(p).levels.map((l) => [l.name, Number(l.height.toFixed(3))])
const total = (p: Project) => Number(studied(p).totals.area.toFixed(3))
const names = (things: Record<string, { id: string; name: string; order: number }>) =>
  inOrder(things).map((t) => t.name)
const parts = (s: Study) => s.parts.map((p) => p.bond.status)

/** A box of 14 by 9 on two storeys of 3 m. */
const shed = () =>
  does(projectWith([0, 3]), 'mass.draw', { name: 'Shed', level: 'L0', height: 6, rectangle: [0, 0, 14, 9] })

describe('levels by command', () => {
  it('are added, put in, moved, renamed, parted and removed', () => {
    let p = does(projectWith([0]), 'level.line', { line: '2.85 First' })
    p = does(p, 'storeys.add', { on: 'First', runs: '3, 2 x 3.15', pattern: 'Storey {n}', first: 2 })
    expect(heights(p)).toEqual([
      ['Level 0', 0],
      ['First', 2.85],
      ['Storey 2', 5.85],
      ['Storey 3', 9],
      ['Storey 4', 12.15],
    ])
    p = does(p, 'level.insert', { on: 'Storey 2', above: 3, name: 'Storey 3', renumber: true })
    expect(heights(p).slice(3)).toEqual([
      ['Storey 3', 8.85],
      ['Storey 4', 12],
      ['Storey 5', 15.15],
    ])
    p = does(p, 'level.move', { level: 'Storey 2', height: 6.2, above: 'held' })
    expect(heights(p).slice(2, 4)).toEqual([
      ['Storey 2', 6.2],
      ['Storey 3', 8.85],
    ])
    p = does(p, 'storey.height', { lower: 'Storey 3', upper: 'Storey 4', height: 3.5 })
    expect(heights(p).slice(4)).toEqual([
      ['Storey 4', 12.35],
      ['Storey 5', 15.5],
    ])
    p = does(p, 'level.rename', { level: 'Storey 5', name: 'Roof' })
    p = does(p, 'level.remove', { level: 'Storey 4' })
    expect(heights(p).slice(3)).toEqual([
      ['Storey 3', 8.85],
      ['Roof', 15.5],
    ])
    p = does(p, 'storey.part', { level: 'Storey 3', field: 'slab', value: 0.3, givesWay: 'clear' })
    expect(heights(p).at(-1)).toEqual(['Roof', 15.5])
  })
  it('are read from heights above the datum', () => {
    const p = does(projectWith([0]), 'levels.read', {
      levels: [
        { name: 'Eaves', height: 6.3, kind: 'mark' },
        { name: 'Upper', height: 3.2 },
      ],
    })
    expect(heights(p)).toEqual([
      ['Level 0', 0],
      ['Upper', 3.2],
      ['Eaves', 6.3],
    ])
  })
})

describe('masses by command', () => {
  it('are moved, copied, mirrored, aligned, spread and removed', () => {
    let p = does(shed(), 'mass.move', { masses: ['Shed'], x: 10, y: '2.5', turn: 90 })
    const at = (q: Project) =>
      studied(q)
        .forms.map((f) => [f.rect.x0, f.rect.y0, f.rect.x1, f.rect.y1].map((v) => Number(v.toFixed(3))))
        .sort((a, b) => (a[0] ?? 0) - (b[0] ?? 0))
    expect(at(p)).toEqual([[12.5, 0, 21.5, 14]])
    p = does(p, 'mass.copy', { masses: ['Shed'], x: 30 })
    p = does(p, 'mass.copy', { masses: ['Shed'], x: 2, y: 20 })
    p = does(p, 'mass.mirror', { masses: ['Shed'], x: 0, y: 0, direction: 90 })
    expect(at(p)).toEqual([
      [-21.5, 0, -12.5, 14],
      [14.5, 20, 23.5, 34],
      [42.5, 0, 51.5, 14],
    ])
    const all = names(schemeOf(p).masses)
    p = does(p, 'mass.spread', { masses: all, along: 'west to east' })
    expect(at(p).map((r) => r[0])).toEqual([-21.5, 10.5, 42.5])
    p = does(p, 'mass.move', { masses: [all[1] ?? ''], y: 4 })
    p = does(p, 'mass.align', { masses: all, by: 'south' })
    expect(new Set(at(p).map((r) => r[1]))).toEqual(new Set([0]))
    p = does(p, 'mass.remove', { mass: all[2] ?? '' })
    expect(total(p)).toBe(2 * 2 * 126)
  })
  it('are joined, taken apart, pitched, shaped, and what a cut throws away is kept', () => {
    let p = does(shed(), 'mass.draw', { name: 'Annex', level: 'L0', height: 3, polygon: [[14, 0], [20, 0], [20, 6], [14, 6]] }) // prettier-ignore
    p = does(p, 'mass.join', { first: 'Shed', second: 'Annex' })
    expect([names(schemeOf(p).masses), floors(p)]).toEqual([['Shed'], [162, 126]])
    p = does(p, 'mass.apart', { mass: 'Shed', body: 'Annex' })
    expect([names(schemeOf(p).masses).sort(), floors(p)]).toEqual([['Annex', 'Shed'], [162, 126]]) // prettier-ignore
    p = does(p, 'mass.pitch', { mass: 'Shed', angle: 45 })
    // Rises over the walls to half of 9 m.
    expect(
      studied(p)
        .forms.map((f) => f.ridge)
        .sort(),
    ).toEqual([10.5, null])
    p = does(shed(), 'mass.shape', {
      mass: 'Shed',
      move: { move: 'cut', x: 4, y: 0, z: 0, direction: 90, rises: 90, keeps: 'below' },
    })
    expect(floors(p)).toEqual([36, 36])
    p = does(p, 'mass.keep-rest', { mass: 'Shed' })
    expect(floors(p)).toEqual([126, 126])
  })
  it('let go of a mass that they read', () => {
    let p = does(shed(), 'mass.draw', { name: 'Shaft', level: 'L0', height: 9, rectangle: [2, 2, 3, 2] })
    const shaft = inOrder(schemeOf(p).masses).find((m) => m.name === 'Shaft')
    p = does(p, 'mass.shape', { mass: 'Shed', move: { move: 'combine', mass: shaft?.id, how: 'less' } })
    const read = floors(p)
    p = does(p, 'mass.detach', { mass: 'Shed', from: 'Shaft' })
    expect(floors(p)).toEqual(read)
    p = does(p, 'mass.move', { masses: ['Shaft'], x: 40 })
    expect(floors(p)).toEqual(read)
  })
})

describe('fabric by command', () => {
  it('is made, brought in line, kept, let go, attached, exchanged and removed', () => {
    let p = does(shed(), 'building.make')
    expect(new Set(parts(studied(p)))).toEqual(new Set(['bonded']))
    const [wall] = studied(p).parts.filter((q) => q.role === 'wall')
    const name = wall?.part.name ?? ''
    const wide = (q: Project) => does(q, 'mass.shape', { mass: 'Shed', move: { move: 'inset', by: -0.5 } })
    p = wide(p)
    expect(parts(studied(p))).toContain('drifted')
    p = does(p, 'part.align', {})
    expect(parts(studied(p))).not.toContain('drifted')
    p = does(p, 'part.let-go', { parts: [name] })
    p = does(p, 'mass.move', { masses: ['Shed'], x: 3 })
    expect(studied(p).parts.find((q) => q.part.name === name)?.bond.status).toBe('loose')
    p = does(p, 'part.keep', { parts: names(schemeOf(p).parts).filter((n) => n !== name) })
    p = does(p, 'part.attach', { part: name, mass: 'Shed' })
    expect(studied(p).parts.find((q) => q.part.name === name)?.bond.status).toBe('bonded')
    const count = studied(p).parts.length
    p = does(p, 'part.remove', { parts: [name] })
    expect(studied(p).parts).toHaveLength(count - 1)
    const other =
      inOrder(p.buildUps).filter((b) => b.for === 'wall')[1] ?? inOrder(p.buildUps).find((b) => b.for === 'wall')
    const left = studied(p).parts.find((q) => q.role === 'wall')?.part.name ?? ''
    p = does(p, 'part.exchange', { part: left, buildUp: other?.name, reach: 'all' })
    expect(new Set(studied(p).parts.flatMap((q) => (q.role === 'wall' ? [q.part.buildUp] : [])))).toEqual(new Set([other?.id])) // prettier-ignore
  })
})

describe('ground, wings and schemes by command', () => {
  it('are drawn and taken away', () => {
    let p = does(shed(), 'site.draw', { corners: [[-10, -10], [40, -10], [40, 30], [-10, 30]] }) // prettier-ignore
    expect(studied(p).totals.ratio).toBeCloseTo(252 / 2000, 9)
    p = does(p, 'neighbour.draw', { corners: [[60, 0], [70, 0], [70, 8]], height: 9, name: 'Mill' }) // prettier-ignore
    expect(names(p.neighbours)).toEqual(['Mill'])
    p = does(p, 'neighbour.remove', { neighbour: 'mill' })
    p = does(p, 'site.remove')
    expect([p.site, names(p.neighbours)]).toEqual([null, []])
    p = does(p, 'wing.add', { name: 'East', about: ['Shed'] })
    expect(studied(p).wings.of.size).toBe(1)
    p = does(p, 'wing.remove', { wing: 'East' })
    const before = Object.keys(p.schemes).length
    p = does(p, 'scheme.duplicate', { name: 'Taller' })
    expect(Object.keys(p.schemes)).toHaveLength(before + 1)
    p = does(p, 'scheme.remove', { scheme: 'Taller' })
    expect(Object.keys(p.schemes)).toHaveLength(before)
  })
})

describe('rules, repeats and areas by command', () => {
  it('a rule grows, is turned, frozen, and grows again', () => {
    let p = does(projectWith([0, 3, 6]), 'rule.new', { ready: 'bar', level: 'L0' })
    const grown = total(p)
    expect(grown).toBeGreaterThan(0)
    const [rule = ''] = names(schemeOf(p).rules)
    p = does(p, 'rule.turn', { rule, at: [412_000, 5_650_000], turn: 33.7 })
    expect(total(p)).toBeCloseTo(grown, 3)
    p = does(p, 'rule.freeze', { rule })
    expect([Object.keys(schemeOf(p).masses).length > 0, total(p)]).toEqual([true, Number(grown.toFixed(3))])
    p = does(p, 'rule.grow', { rule })
    expect(total(p)).toBeCloseTo(grown, 3)
  })
  it('a mass is repeated, and one of them is detached', () => {
    let p = does(shed(), 'repeat.new', { of: ['Shed'], way: { way: 'line', direction: 0, apart: 20, count: 3 } })
    expect(total(p)).toBe(3 * 252)
    const [repeat = ''] = names(schemeOf(p).repeats)
    p = does(p, 'repeat.detach', { repeat })
    expect([Object.keys(schemeOf(p).masses), total(p)]).toEqual([expect.objectContaining({ length: 3 }), 3 * 252])
  })
  it('voids, uses by storeys, the brief, and what another scheme has', () => {
    let p = does(shed(), 'mass.draw', { name: 'Shaft', level: 'L0', height: 9, rectangle: [2, 2, 3, 2] })
    p = does(p, 'mass.gives', { mass: 'Shaft', gives: 'void' })
    expect(floors(p)).toEqual([120, 120])
    p = does(p, 'mass.use-from-to', { mass: 'Shed', use: 'market', from: 'L0', to: 'L0' })
    const market = inOrder(p.uses).find((u) => u.name === 'market')?.id ?? ''
    expect(studied(p).floors.map((f) => f.uses[market] ?? 0)).toEqual([120, 0])
    p = does(p, 'brief.read', { text: 'market\t150\nheight\t9\t\tat most' })
    expect(studied(p).findings.filter((f) => f.kind === 'brief missed')).toHaveLength(1)
    p = does(p, 'brief.remove', { line: 'market' })
    expect(names(p.brief)).toEqual(['height'])
    p = does(p, 'scheme.duplicate', { name: 'Other' })
    p = does(p, 'mass.remove', { mass: 'Shaft' })
    const [first] = names(p.schemes).filter((n) => n !== 'Other')
    p = does(p, 'scheme.bring', { from: names(p.schemes).at(-2) ?? first, masses: ['Shaft'] })
    expect(floors(p)).toEqual([120, 120])
  })
})

describe('pictures by command', () => {
  /** A plan of 10 px to the metre, whose lower left corner lies at a point, with a room of 10 by 6 m traced on it. */
  const traced = (x: number, y: number) => {
    const picture = {
      id: 'plan',
      name: 'Plan',
      order: 0,
      asset: 'a'.repeat(64),
      type: 'image/png' as const,
      width: 400,
      height: 300,
      crop: null,
      turn: 0,
      opacity: 0.6,
      locked: false,
      pairs: [{ id: 'pair', a: [0, 0], b: [100, 0], length: 10, lies: 'level' }],
      pin: { px: [0, 300], to: { kind: 'point', x, y, z: 0 } },
      stands: [{ id: 'stand', lies: { kind: 'plan', level: null, above: 0 }, shown: true, front: false }],
    }
    const trace = {
      id: 'trace',
      name: 'Room',
      order: 0,
      picture: 'plan',
      closed: true,
      loops: [
        {
          points: [
            [50, 280],
            [150, 280],
            [150, 220],
            [50, 220],
          ],
          bulges: [0, 0, 0, 0],
        },
      ],
    }
    const p = projectWith([0, 3])
    return applyEdit(p, {
      edit: 'batch',
      edits: [
        { edit: 'picture.add', thing: picture as never },
        { edit: 'trace.add', thing: trace as never },
      ],
    }).project
  }
  it.each([
    [0, 0],
    [458_300, 5_432_100],
  ])('what was traced becomes a mass, the site, a neighbour; it goes with its picture: at %d, %d', (x, y) => {
    let p = does(traced(x, y), 'trace.become', { trace: 'Room', as: 'mass', height: 6, level: 'L0' })
    expect(floors(p)).toEqual([60, 60])
    const [form] = studied(p).forms
    expect((form?.rect.x0 ?? 0) - x).toBeCloseTo(5, 6)
    expect((form?.rect.y0 ?? 0) - y).toBeCloseTo(2, 6)
    p = does(p, 'trace.become', { trace: 'Room', as: 'site' })
    expect(studied(p).totals.ratio).toBeCloseTo(2, 6)
    p = does(p, 'trace.become', { trace: 'Room', as: 'neighbour', height: 4 })
    expect(Object.keys(p.neighbours)).toHaveLength(1)
    p = does(p, 'picture.remove', { picture: 'Plan' })
    expect([p.pictures, p.traces]).toEqual([{}, {}])
    expect(floors(p)).toEqual([60, 60])
  })
})

describe('what cannot be done', () => {
  const study = () => studied(shed())
  it('names all arguments that are missing, of the command and of a move', () => {
    expect(() => runCommand(study(), 'mass.draw', { name: 'A' }, mint)).toThrow(
      'mass.draw needs level, height, one of rectangle, polygon, circle.',
    )
    expect(() => runCommand(study(), 'mass.shape', { mass: 'Shed', move: { move: 'raise' } }, mint)).toThrow(
      'The move is malformed at 0.height: it is missing.',
    )
  })
  it('takes words that every object answers to for ids that are not there', () => {
    for (const word of ['constructor', 'toString', '__proto__']) {
      expect(() =>
        runCommand(study(), 'mass.draw', { name: 'A', level: 'L0', height: `{${word}}`, circle: [0, 0, 3] }, mint),
      ).toThrow(/formula|not understood/)
      expect(() => studyScheme(shed(), word)).toThrow('That scheme is not there.')
      const edit = { edit: 'mass.remove', scheme: word, id: 'a' } as const
      expect(() => applyEdit(shed(), edit)).toThrow(/The scheme is not there/)
    }
  })
})

it('every command is tried here', () => {
  expect(COMMANDS.map((c) => c.name).filter((n) => !used.has(n))).toEqual([])
})

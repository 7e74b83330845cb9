import { beforeAll, describe, expect, it } from 'vitest'
import { changeRepeat, changeRule, detach, newRepeat, ruleOf, trimRule, withStep } from '../form'
import { moveLevel } from '../levels'
import { openKernel } from '../solid'
import { numbersOf, type Project } from '../project'
import { onesOf, wayKind, type Frame, type Repeat } from '../repeats'
import {
  apply,
  changeMass,
  massNamed,
  minter,
  projectWith,
  schemeOf,
  studied,
  withMass,
  withMoves,
} from '../testing/make'

beforeAll(() => openKernel())

const mint = minter('trim')
const HEIGHTS = [0, ...Array.from({ length: 11 }, (_, i) => 4.6 + 3.05 * i)]
const HIGH = 4.6 + 11 * 3.05
type Moves = Parameters<typeof changeMass>[2]['recipe']

/** A body of 14 sides and circumradius 8.60 on its storeys; turned and put somewhere. */
function lookout(at = { x: 0, y: 0, turn: 0 }, more: NonNullable<Moves> = []): Project {
  const plain = withMass(projectWith(HEIGHTS, mint), { name: 'Lookout', height: HIGH, box: [0, 0, 1, 1] })
  const [outline, ...rest] = massNamed(plain, 'Lookout').recipe
  const corners = Array.from({ length: 14 }, (_, i) => {
    const a = (2 * Math.PI * i) / 14
    return { id: `e${i + 1}`, x: 8.6 * Math.cos(a), y: 8.6 * Math.sin(a), bulge: 0 }
  })
  return changeMass(plain, 'Lookout', {
    place: at,
    recipe: [{ ...outline, shape: { kind: 'polygon', corners } } as never, ...rest, ...more],
  })
}
const trimmed = (project: Project, what: 'bands' | 'fins', set: object = {}): Project => {
  const made = apply(project, trimRule(schemeOf(project), mint, massNamed(project, 'Lookout').id, what))
  const rule = Object.values(schemeOf(made).rules)[0]
  return apply(made, withStep(schemeOf(made), rule?.id ?? '', rule?.steps[0]?.id ?? '', set))
}
const places = [
  { x: 0, y: 0, turn: 0 },
  { x: 32456789.125, y: 5534321.5, turn: 41.7 },
]

describe('the lookout', () => {
  it.each(places)('2,695.563 m2 and 8,569.646 m3; 12 bands of 3.412 m3 in rings of 9.748 m2, listed apart', (at) => {
    const study = studied(trimmed(lookout(at), 'bands'))
    expect(study.totals.area).toBeCloseTo(2695.563, 2)
    expect(study.totals.volume).toBeCloseTo(8569.646, 2)
    expect(study.totals.projecting?.count).toBe(12)
    expect((study.totals.projecting?.area ?? 0) / 12).toBeCloseTo(9.748, 3)
    expect((study.totals.projecting?.volume ?? 0) / 12).toBeCloseTo(3.412, 3)
    const bands = study.forms.filter((f) => study.growth.from.has(f.id))
    for (const b of bands) expect(b.body.volume).toBeCloseTo(3.412, 3)
    expect(bands.map((b) => Math.round(b.base * 1e6) / 1e6).sort((a, b) => a - b)).toEqual(
      HEIGHTS.map((h) => Math.round(h * 1e6) / 1e6),
    )
  })
  it.each(places)('14 fins 0.32 x 0.28 over its full height: 47.855 m3', (at) => {
    const study = studied(trimmed(lookout(at), 'fins'))
    expect(study.totals.projecting?.count).toBe(14)
    expect(study.totals.projecting?.volume).toBeCloseTo(47.855, 3)
    expect(study.totals.volume).toBeCloseTo(8569.646, 2)
  })
  it('a level moved moves its band, and no other', () => {
    const project = trimmed(lookout(), 'bands')
    const level = studied(project).levels[5]
    const moved = studied(
      apply(project, moveLevel(project, schemeOf(project), level?.id ?? '', (level?.height ?? 0) + 0.4, 'held')),
    )
    const was = studied(project)
    const base = (s: typeof was) => new Map(s.forms.filter((f) => s.growth.from.has(f.id)).map((f) => [f.id, f.base]))
    const changed = [...base(moved)].filter(([id, z]) => Math.abs(z - (base(was).get(id) ?? 0)) > 1e-9)
    expect(changed).toHaveLength(1)
    expect(changed[0]?.[1]).toBeCloseTo((level?.height ?? 0) + 0.4, 9)
  })
  it('bands of a twisted body turn with its floors; fins follow the edge from storey to storey', () => {
    const twisted = lookout({ x: 10, y: 5, turn: 12 }, [
      { id: 'tw', move: 'twist', on: true, angle: 40, from: 0, to: null },
    ])
    const bands = studied(trimmed(twisted, 'bands'))
    for (const f of bands.forms.filter((b) => bands.growth.from.has(b.id))) expect(f.body.volume).toBeCloseTo(3.412, 3)
    const fins = studied(trimmed(twisted, 'fins'))
    const made = fins.forms.filter((f) => fins.growth.from.has(f.id))
    expect(made).toHaveLength(14 * 12)
    // A lean keeps a fin's level cut: all of them together have the volume of upright ones.
    expect(made.reduce((sum, f) => sum + f.body.volume, 0)).toBeCloseTo(47.855, 2)
    expect(made.flatMap((f) => f.body.leftOut)).toEqual([])
  })
  it('says so where the mass that it goes round is gone, and grows nothing', () => {
    const project = trimmed(lookout(), 'bands')
    const gone = apply(project, {
      edit: 'mass.remove',
      scheme: schemeOf(project).id,
      id: massNamed(project, 'Lookout').id,
    })
    const study = studied(gone)
    expect(study.forms).toHaveLength(0)
    expect(study.findings.map((f) => f.say).join()).toContain('The mass that it goes round is gone')
    expect(ruleOf(schemeOf(gone), Object.keys(schemeOf(gone).rules)[0] ?? '').frozen).toBe(null)
    expect(
      apply(gone, changeRule(schemeOf(gone), Object.keys(schemeOf(gone).rules)[0] ?? '', { name: 'Still' })),
    ).toBeTruthy()
  })
})

describe('bands and fins of a named profile', () => {
  const wedge = {
    id: 'wedge',
    name: 'Wedge',
    order: 0,
    shape: {
      kind: 'polygon' as const,
      corners: [
        [0, 0],
        [0.3, 0],
        [0, 0.6],
      ].map(([x = 0, y = 0], i) => ({ id: `e${i + 1}`, x, y, bulge: 0 })),
    },
    x: 0,
    y: 0,
  }
  const kept = (project: Project) => apply(project, { edit: 'profile.add', thing: wedge })
  const around = 2 * 14 * 8.6 * Math.sin(Math.PI / 14)
  /** m3 of what goes round: its section times the way of its middle, which gets longer outwards by 2 tan(180/14) a corner. */
  const round = (area: number, out: number) => area * (around + 28 * Math.tan(Math.PI / 14) * out)
  it.each(places)(
    'a wedge goes round each storey, mitred; it follows the profile, and says so when that is gone',
    (at) => {
      const project = trimmed(kept(lookout(at)), 'bands', { profile: 'wedge' })
      const study = studied(project)
      const bands = study.forms.filter((f) => study.growth.from.has(f.id))
      expect(bands).toHaveLength(12)
      for (const b of bands) expect(b.body.volume).toBeCloseTo(round(0.09, 0.1), 6)
      for (const b of bands) expect(b.body.faces()).toHaveLength(3 * 14)
      expect(study.findings.filter((f) => f.kind.includes('open'))).toEqual([])
      const corners = wedge.shape.corners.map((c) => ({ ...c, x: 2 * c.x }))
      const wider = studied(
        apply(project, { edit: 'profile.change', id: 'wedge', set: { shape: { ...wedge.shape, corners } } }),
      )
      const one = wider.forms.find((f) => wider.growth.from.has(f.id))
      expect(one?.body.volume).toBeCloseTo(round(0.18, 0.2), 6)
      const gone = studied(apply(project, { edit: 'profile.remove', id: 'wedge' }))
      expect(gone.findings.map((f) => f.say).join()).toContain('The profile that it uses is gone')
      expect(gone.forms).toHaveLength(1)
    },
  )
  it('fins have it as their plan: its x along the side, its y out', () => {
    const study = studied(trimmed(kept(lookout(places[1])), 'fins', { profile: 'wedge' }))
    expect(study.totals.projecting?.count).toBe(14)
    expect(study.totals.projecting?.volume).toBeCloseTo(14 * 0.09 * HIGH, 4)
  })
  it('a drawn mass has one round it too, its courts included', () => {
    const plain = withMass(projectWith([0, 3], mint), { name: 'Rim', height: 1, box: [0, 0, 10, 8] })
    const [outline] = massNamed(plain, 'Rim').recipe
    const court = [
      [3, 3],
      [6, 3],
      [6, 5],
      [3, 5],
    ].map(([x = 0, y = 0], i) => ({ id: `k${i + 1}`, x, y, bulge: 0 }))
    const hole = { id: 'h1', x: 0, y: 0, shape: { kind: 'polygon' as const, corners: court } }
    const section = { kind: 'rectangle' as const, width: 0.4, depth: 0.3 }
    const made = changeMass(plain, 'Rim', {
      recipe: [
        { ...outline, holes: [hole] } as never,
        { id: 'rim', move: 'edging', on: true, profile: null, section, out: 0, up: 0.5 },
      ],
    })
    const body = studied(made).forms[0]?.body
    // Out to 0.4 from the outline, and so far into the court.
    expect(body?.leftOut).toEqual([])
    expect(body?.volume).toBeCloseTo(0.3 * (10.8 * 8.8 - 80 + 6 - 2.2 * 1.2), 6)
    const { z0, x0, x1 } = body?.box ?? { z0: 0, x0: 0, x1: 0 }
    expect([z0, x1 - x0]).toEqual([0.5, expect.closeTo(10.8, 9)])
  })
})

/** A bay of 2 x 1 x 3 repeated in a way. */
function repeated(way: Repeat['way'], set: Partial<Repeat> = {}, base = lookout()): Project {
  const plain = withMass(base, { name: 'Bay', height: 3, box: [8.6, -1, 2, 2] })
  const added = newRepeat(plain, schemeOf(plain), mint, [massNamed(plain, 'Bay').id], way.way)
  const made = apply(plain, added)
  return apply(made, changeRepeat(schemeOf(made), added.thing.id, { way, ...set }))
}
const grownOf = (project: Project) => {
  const study = studied(project)
  return study.forms.filter((f) => study.growth.from.get(f.id)?.by === 'repeat')
}

describe('more ways to repeat', () => {
  it('at the corners of another mass: each stands to its corner as the original to the first', () => {
    for (const at of places) {
      const base = lookout(at)
      const host = massNamed(base, 'Lookout').id
      const way = { way: 'sides', host, at: 'corners', apart: 1, count: 1, ends: 0 } as const
      const made = grownOf(repeated(way, {}, base))
      expect(made).toHaveLength(13)
      const far = made.map((f) => Math.hypot(f.at.x - at.x, f.at.y - at.y))
      for (const d of far) expect(d).toBeCloseTo(Math.hypot(8.6 - at.x, -1 - at.y), 4)
    }
  })
  it('along a path: 12.477 m at a pitch of 180 mm has 69 pitches with 56.5 mm left; spread evenly 180.82 mm', () => {
    const path = [
      { id: 'a', x: 0, y: 0, bulge: 0 },
      { id: 'b', x: 12.4765, y: 0, bulge: 0 },
    ]
    const fixed = { way: 'path', path, pitch: 0.18, count: 1, follow: 'turned' } as const
    expect(wayKind(fixed).says?.(fixed as never, { length: Number, value: Number } as never)).toBe(
      '69 pitches, 56.5 mm left',
    )
    expect(grownOf(repeated(fixed as never))).toHaveLength(69)
    const even = grownOf(repeated({ ...fixed, pitch: null, count: 70 } as never))
    const xs = even.map((f) => f.at.x).sort((a, b) => a - b)
    expect((xs[1] ?? 0) - (xs[0] ?? 0)).toBeCloseTo(0.18082, 4)
  })
  it('along an arc each is turned with it, and as far from its centre', () => {
    const path = [
      { id: 'a', x: 20, y: 0, bulge: 1 },
      { id: 'b', x: -20, y: 0, bulge: 0 },
    ]
    const made = grownOf(repeated({ way: 'path', path, pitch: null, count: 9, follow: 'turned' } as never))
    expect(made).toHaveLength(8)
    const turns = made.map((f) => Math.round(f.at.turn * 1e6) / 1e6)
    expect(turns).toEqual([22.5, 45, 67.5, 90, 112.5, 135, 157.5, 180])
  })
  it('closer on arcs, so that no gap is left: what is as long as the pitch meets its neighbour at the outside', () => {
    const path = [
      { id: 'a', x: 0, y: 0, bulge: 0 },
      { id: 'b', x: 12, y: 0, bulge: Math.tan(Math.PI / 8) },
      { id: 'c', x: 18, y: 6, bulge: 0 },
    ]
    const way = { way: 'path', path, pitch: 2, count: 1, follow: 'turned', bends: 'closed', reach: 1 } as const
    const frames = wayKind(way).places(way as never, { length: Number, value: Number } as never, () => null)
    const at = frames.map(({ step }) => ('to' in step ? step.to : { x: 0, y: 0, turn: 0 }))
    const outer = (i: number, along: number) => {
      const { x, y, turn } = at[i] ?? { x: 0, y: 0, turn: 0 }
      const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)]
      return [x + c * along + s, y + s * along - c] as const
    }
    // On the straight leg they stand at the pitch; about the arc of radius 6 the outer corners of two lie at one place.
    expect(at.slice(0, 6).map((p) => Math.round(p.x * 1e9) / 1e9)).toEqual([0, 2, 4, 6, 8, 10])
    const bent = at.findIndex((p) => p.turn > 0.001)
    for (let i = bent; i + 1 < at.length; i++) {
      const [p, q] = [outer(i, 1), outer(i + 1, -1)]
      expect(Math.hypot(p[0] - q[0], p[1] - q[1])).toBeLessThan(1e-9)
    }
    expect(at.length - bent).toBeGreaterThan(4)
  })
  it('closer on arcs that are shorter than the pitch too: no gap at the outside, wherever the arc lies', () => {
    for (const [straight, sweep, reach] of [
      [3, 90, 1],
      [4.7, 60, 0],
      [3.4, 150, 0.5],
      [5.1, 30, 2],
    ] as const) {
      // A straight stretch, an arc of radius 0.6 (0.3 to 1.6 m long), and a straight stretch that leaves it.
      const turn = (sweep * Math.PI) / 180
      const end = [straight + 0.6 * Math.sin(turn), 0.6 * (1 - Math.cos(turn))] as const
      const path = [
        { id: 'a', x: 0, y: 0, bulge: 0 },
        { id: 'b', x: straight, y: 0, bulge: Math.tan(turn / 4) },
        { id: 'c', x: end[0], y: end[1], bulge: 0 },
        { id: 'd', x: end[0] + 12 * Math.cos(turn), y: end[1] + 12 * Math.sin(turn), bulge: 0 },
      ]
      const way = { way: 'path', path, pitch: 2, count: 1, follow: 'turned', bends: 'closed', reach } as const
      const frames = wayKind(way).places(way as never, { length: Number, value: Number } as never, () => null)
      const at = frames.map(({ step }) => ('to' in step ? step.to : { x: 0, y: 0, turn: 0 }))
      for (let i = 0; i + 1 < at.length; i++) {
        const [a, b] = [at[i], at[i + 1]].map((f) => f ?? { x: 0, y: 0, turn: 0 }) as [Frame, Frame]
        // Seen from the second: the first one's outer front corner does not lie behind its back edge.
        const [c, s] = [Math.cos((a.turn * Math.PI) / 180), Math.sin((a.turn * Math.PI) / 180)]
        const corner = [a.x + c + s * reach, a.y + s - c * reach] as const
        const [d, t] = [Math.cos((b.turn * Math.PI) / 180), Math.sin((b.turn * Math.PI) / 180)]
        expect((corner[0] - b.x) * d + (corner[1] - b.y) * t).toBeGreaterThan(-1 - 1e-6)
      }
      expect(at.length).toBeGreaterThan(6)
    }
  })
  it('of every second place mirrors every second one of those that stand there', () => {
    const way = { way: 'line', count: 9, apart: 3, direction: 0 } as const
    const base = projectWith([0, 3], mint)
    const plain = withMass(base, { name: 'Fin', height: 3, box: [0, 0, 1, 2] })
    const added = newRepeat(plain, schemeOf(plain), mint, [massNamed(plain, 'Fin').id], 'line')
    const made = apply(plain, added)
    for (const [every, wanted] of [
      [1, [1, 3, 5, 7]],
      [2, [2, 6]],
    ] as const) {
      const set = { way, every, mirrored: true }
      const p = apply(made, changeRepeat(schemeOf(made), added.thing.id, set))
      const repeat = Object.values(schemeOf(p).repeats)[0] as Repeat
      const ones = onesOf(repeat, ['L0'], numbersOf(p, schemeOf(p)), () => null)
      expect(ones.filter((o) => o.mirrored).map((o) => Number(o.key) - 1)).toEqual([...wanted])
    }
  })
  it('a mass leaves out another with all its repeats, and follows when these change', () => {
    const wall = withMass(projectWith([0, 3], mint), { name: 'Wall', height: 3, box: [0, 0, 20, 0.4] })
    const plain = withMass(wall, { name: 'Opening', height: 1.5, box: [1, -1, 1, 2] })
    const opening = massNamed(plain, 'Opening').id
    const added = newRepeat(plain, schemeOf(plain), mint, [opening], 'line')
    const way = { way: 'line', count: 6, apart: 3, direction: 0 } as const
    const made = apply(plain, added)
    const rows = apply(made, changeRepeat(schemeOf(made), added.thing.id, { way }))
    const less = (copies: 'one' | 'all') => ({
      id: 'less',
      move: 'combine' as const,
      on: true,
      how: 'less' as const,
      mass: opening,
      copies,
    })
    const volume = (p: Project) => studied(p).forms.find((f) => f.name === 'Wall')?.body.volume
    const cut = withMoves(rows, 'Wall', less('all'))
    expect(volume(withMoves(rows, 'Wall', less('one')))).toBeCloseTo(24 - 0.6, 9)
    expect(volume(cut)).toBeCloseTo(24 - 6 * 0.6, 9)
    const four = apply(cut, changeRepeat(schemeOf(cut), added.thing.id, { way: { ...way, count: 4 } }))
    expect(volume(four)).toBeCloseTo(24 - 4 * 0.6, 9)
    const left = apply(four, changeRepeat(schemeOf(four), added.thing.id, { out: ['3'] }))
    expect(volume(left)).toBeCloseTo(24 - 3 * 0.6, 9)
    const apart = apply(left, detach(left, schemeOf(left), massNamed(left, 'Wall').id, 'less'))
    const without = apply(apart, { edit: 'repeat.remove', scheme: schemeOf(apart).id, id: added.thing.id })
    expect(volume(without)).toBeCloseTo(24 - 3 * 0.6, 9)
  })
  it('like a chessboard, the ends only, all but the ends, every other one mirrored, at points', () => {
    const grid = { way: 'grid', columns: 4, rows: 3, apart: 5, between: 5, direction: 0 } as const
    expect(grownOf(repeated(grid, { which: 'chessboard' }))).toHaveLength(5)
    const line = { way: 'line', count: 6, apart: 5, direction: 30 } as const
    expect(grownOf(repeated(line, { which: 'ends' }))).toHaveLength(1)
    expect(grownOf(repeated(line, { which: 'inner' }))).toHaveLength(4)
    const mirrored = grownOf(repeated(line, { mirrored: true }))
    expect(new Set(mirrored.map((f) => f.body)).size).toBe(2)
    expect(grownOf(repeated({ way: 'points', list: [0, 0, 10, 0, 10, 20] }))).toHaveLength(2)
  })
})

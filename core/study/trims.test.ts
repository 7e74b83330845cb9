import { beforeAll, describe, expect, it } from 'vitest'
import { changeRepeat, changeRule, newRepeat, ruleOf, trimRule, withStep } from '../form'
import { moveLevel } from '../levels'
import { openKernel } from '../solid'
import type { Project } from '../project'
import { wayKind, type Repeat } from '../repeats'
import { apply, changeMass, massNamed, minter, projectWith, schemeOf, studied, withMass } from '../testing/make'

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

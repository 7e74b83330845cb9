import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { changeRepeat, newRepeat } from '../../form'
import { inOrder, type Mass, type Project } from '../../project'
import { openKernel, placePoint, type Vec2 } from '../../solid'
import { apply, changeMass, massNamed, minter, projectWith, schemeOf, studied, withMass } from '../../testing/make'
import { accountOf, entriesOf } from '.'

beforeAll(() => openKernel())

/** A mass as the scanline sees it: its corners in the world, its heights, and what it is. */
interface Seen {
  points: Vec2[]
  base: number
  top: number
  as: 'floor' | 'void' | 'core' | 'projecting'
  /** use by level */
  uses: string[]
  order: number
}

/**
 * m2 by use on a level, by another way than the product's: between two neighbouring heights of corners and crossings all edges are straight, so
 * that lengths at the middle times the height between are exact.
 */
function scanline(all: readonly Seen[], z: number, level: number): Record<string, number> {
  const here = all.filter((m) => m.base <= z && m.top > z && m.as !== 'projecting')
  const masses = [...here].sort((a, b) => Number(a.as === 'core') - Number(b.as === 'core') || a.order - b.order)
  const edges = masses.flatMap((m) => m.points.map((p, i) => [p, m.points[(i + 1) % m.points.length] as Vec2] as const))
  const ys = edges.map(([p]) => p[1])
  edges.forEach(([p, q], i) =>
    edges.slice(i + 1).forEach(([r, s]) => {
      const d = (q[0] - p[0]) * (s[1] - r[1]) - (q[1] - p[1]) * (s[0] - r[0])
      if (Math.abs(d) < 1e-12) return
      const t = ((r[0] - p[0]) * (s[1] - r[1]) - (r[1] - p[1]) * (s[0] - r[0])) / d
      if (t > 0 && t < 1) ys.push(p[1] + t * (q[1] - p[1]))
    }),
  )
  ys.sort((a, b) => a - b)
  const areas: Record<string, number> = {}
  for (let i = 1; i < ys.length; i++) {
    const [low, high] = [ys[i - 1] as number, ys[i] as number]
    if (high - low < 1e-12) continue
    const y = (low + high) / 2
    const spans = masses.map((m) => ({ m, xs: crossings(m.points, y) }))
    const xs = spans.flatMap((s) => s.xs).sort((a, b) => a - b)
    for (let k = 1; k < xs.length; k++) {
      const [from, to] = [xs[k - 1] as number, xs[k] as number]
      const x = (from + to) / 2
      const there = spans.filter((s) => s.xs.filter((c) => c < x).length % 2 === 1).map((s) => s.m)
      if (there.some((m) => m.as === 'void')) continue
      const first = there[0]
      if (first) areas[first.uses[level] ?? ''] = (areas[first.uses[level] ?? ''] ?? 0) + (to - from) * (high - low)
    }
  }
  return areas
}

const crossings = (points: readonly Vec2[], y: number): number[] =>
  points
    .flatMap(([x0, y0], i) => {
      const [x1, y1] = points[(i + 1) % points.length] as Vec2
      return y0 <= y === y1 <= y ? [] : [x0 + ((y - y0) * (x1 - x0)) / (y1 - y0)]
    })
    .sort((a, b) => a - b)

const LEVELS = [0, 3, 6.5, 9]
const dice = fc.array(
  fc.record({
    corners: fc.integer({ min: 3, max: 6 }),
    radius: fc.double({ min: 3, max: 12, noNaN: true }),
    start: fc.double({ min: 0, max: 360, noNaN: true }),
    at: fc.tuple(fc.double({ min: 0, max: 18, noNaN: true }), fc.double({ min: 0, max: 18, noNaN: true })),
    turn: fc.double({ min: 0, max: 360, noNaN: true }),
    height: fc.constantFrom(3, 6.5, 9.7, 14),
    level: fc.integer({ min: 0, max: 2 }),
    as: fc.constantFrom(
      'floor' as const,
      'floor' as const,
      'floor' as const,
      'void' as const,
      'core' as const,
      'projecting' as const,
    ),
    use: fc.integer({ min: 0, max: 3 }),
    range: fc.option(
      fc.tuple(fc.integer({ min: 0, max: 3 }), fc.integer({ min: 0, max: 3 }), fc.integer({ min: 0, max: 3 })),
    ),
    twice: fc.boolean(),
  }),
  { minLength: 1, maxLength: 4 },
)

describe('the ledger against another way to compute it', () => {
  it('every use on every level of random schemes with voids, cores, repeats and uses by storeys is that of a scanline', () => {
    fc.assert(
      fc.property(dice, fc.constantFrom(0, 612_345), (rolls, far) => {
        let p: Project = apply(projectWith(LEVELS), {
          edit: 'project.change',
          set: { smallestArea: 0, headroom: 0, wallAllowance: 0 },
        })
        const uses = inOrder(p.uses)
        const seen: Seen[] = []
        rolls.forEach((r, n) => {
          const name = `M${n}`
          const points = Array.from({ length: r.corners }, (_, i): Vec2 => {
            const a = ((r.start + (360 * i) / r.corners) * Math.PI) / 180
            return [r.at[0] + r.radius * Math.cos(a) + far, r.at[1] + r.radius * Math.sin(a) + far]
          })
          const set: Partial<Mass> = {
            ...(r.as === 'void' || r.as === 'core' ? { gives: r.as } : {}),
            ...(r.as === 'projecting' ? { projecting: 'apart' as const } : {}),
            storeyUses: r.range
              ? [{ id: 'r', from: `L${r.range[0]}`, to: `L${r.range[1]}`, use: uses[r.range[2]]?.id ?? '' }]
              : [],
          }
          p = withMass(
            p,
            { name, height: r.height, level: `L${r.level}`, points, use: uses[r.use]?.name ?? '' },
            (m) => ({ ...m, ...set }),
          )
          const { place } = massNamed(p, name)
          p = changeMass(p, name, { place: { ...place, turn: r.turn } })
          const about: Vec2 = [place.x as number, place.y as number]
          const placed = points.map(([x, y]) =>
            placePoint([x - about[0], y - about[1]], { x: about[0], y: about[1], z: 0, turn: r.turn }),
          )
          const base = LEVELS[r.level] as number
          const own = LEVELS.map((_, level) => {
            const [a, b, use] = r.range ?? [9, 9, 0]
            return (level >= Math.min(a, b) && level <= Math.max(a, b) ? uses[use] : uses[r.use])?.id ?? ''
          })
          const one: Seen = { points: placed, base, top: base + r.height, as: r.as, uses: own, order: n }
          seen.push(one)
          if (!r.twice) return
          const scheme = schemeOf(p)
          const repeat = newRepeat(p, scheme, minter(`rep${n}`), [massNamed(p, name).id], 'line')
          p = apply(p, repeat)
          const id = repeat.thing.id
          p = apply(p, changeRepeat(schemeOf(p), id, { way: { way: 'line', count: 2, apart: 7.3, direction: 0 } }))
          seen.push({ ...one, points: placed.map(([x, y]) => [x + 7.3, y]), order: n + 0.5 })
        })
        const study = studied(p)
        LEVELS.forEach((z, level) => {
          const wanted = scanline(
            seen.map((s) => ({ ...s, points: s.points.map(([x, y]): Vec2 => [x - far, y - far]) })),
            z,
            level,
          )
          const rows = entriesOf(study).filter((e) => e.level === `L${level}`)
          const total = Object.values(wanted).reduce((a, b) => a + b, 0)
          for (const use of uses) {
            const mine = rows.filter((e) => e.use === use.id).reduce((a, e) => a + e.gross, 0)
            expect(Math.abs(mine - (wanted[use.id] ?? 0))).toBeLessThan(0.0001 * Math.max(1, total))
          }
          const told = accountOf(study, { level: `L${level}` }).reduce((a, i) => a + i.area, 0)
          expect(told).toBeCloseTo(study.floors[level]?.area ?? 0, 4)
        })
      }),
      { numRuns: 200 },
    )
  })
})

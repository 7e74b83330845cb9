import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { loopArea, roofOver, type RoofFace, type Vec2, type Vec3 } from './index'

const box = (w: number, d: number): Vec2[] => [
  [0, 0],
  [w, 0],
  [w, d],
  [0, d],
]
const hip = (loops: Vec2[][], degrees: number) =>
  roofOver(loops, [{ from: 0, speed: () => 1 / Math.tan((degrees * Math.PI) / 180) }])
const turned = (loop: Vec2[], degrees: number): Vec2[] => {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)]
  return loop.map(([x, y]) => [c * x - s * y, s * x + c * y])
}
/** m that the corners of a face lie off the plane that rises from its edge, at most */
function offPlane({ loop, edge }: RoofFace, ends: [Vec2, Vec2][], slope: number): number {
  const [a, b] = ends[edge] as [Vec2, Vec2]
  const length = Math.hypot(b[0] - a[0], b[1] - a[1])
  return Math.max(
    ...loop.map(([x, y, z]) =>
      Math.abs(((b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0])) / length - z / slope),
    ),
  )
}
const endsOf = (loops: Vec2[][]) =>
  loops.flatMap((l) => l.map((a, i) => [a, l[(i + 1) % l.length] as Vec2] as [Vec2, Vec2]))

describe('the roof over an outline', () => {
  it('over 11.4 x 7.8 at 32 degrees has a ridge of 3.600 m, 2.437 m up', () => {
    for (const turn of [0, 17.3, 90]) {
      const faces = hip([turned(box(11.4, 7.8), turn)], 32)
      expect(faces).toHaveLength(4)
      const top = Math.max(...faces.flatMap((f) => f.loop.map((p) => p[2])))
      expect(top).toBeCloseTo(2.437, 3)
      const ridge = faces.flatMap((f) => f.loop).filter((p) => p[2] > top - 1e-6)
      const [a, b] = [
        ridge[0] as Vec3,
        ridge.find((p) => Math.hypot(p[0] - (ridge[0]?.[0] ?? 0), p[1] - (ridge[0]?.[1] ?? 0)) > 1) as Vec3,
      ]
      expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeCloseTo(3.6, 6)
    }
  })
  it('a gable is an edge that stands still', () => {
    const faces = roofOver(
      [box(11.4, 7.8)],
      [{ from: 0, speed: (e) => (e % 2 === 1 ? 0 : 1 / Math.tan((32 * Math.PI) / 180)) }],
    )
    expect(Math.max(...faces.flatMap((f) => f.loop.map((p) => p[2])))).toBeCloseTo(2.437, 3)
    expect(faces.filter((f) => Math.abs(loopArea(f.loop)) < 1e-9)).toHaveLength(2)
  })
  it('from a height on it may rise at another angle', () => {
    const faces = roofOver(
      [box(12, 8)],
      [
        { from: 0, speed: () => 0.5 },
        { from: 2, speed: () => 2 },
      ],
    )
    expect(faces).toHaveLength(8)
    expect(Math.max(...faces.flatMap((f) => f.loop.map((p) => p[2])))).toBeCloseTo(2 + 3 / 2, 9)
  })

  const cell = fc.tuple(fc.integer({ min: 0, max: 5 }), fc.integer({ min: 0, max: 4 }))
  const cells = fc.uniqueArray(cell, { minLength: 1, maxLength: 18, selector: ([x, y]) => `${x},${y}` })
  const sizes = fc.array(fc.integer({ min: 10, max: 60 }), { minLength: 7, maxLength: 7 })
  const isRoof = (loops: Vec2[][], degrees: number) => {
    const faces = hip(loops, degrees)
    const plan = loops.reduce((sum, l) => sum + loopArea(l), 0)
    expect(faces.reduce((sum, f) => sum + loopArea(f.loop), 0)).toBeCloseTo(plan, 5)
    const [ends, slope] = [endsOf(loops), Math.tan((degrees * Math.PI) / 180)]
    for (const f of faces) {
      expect(loopArea(f.loop)).toBeGreaterThan(-1e-9)
      expect(offPlane(f, ends, slope)).toBeLessThan(1e-5)
      for (const p of f.loop) expect(p[2]).toBeGreaterThan(-1e-9)
    }
  }
  it('covers any rectilinear outline with its holes, in planes, at any turn', () => {
    fc.assert(
      fc.property(
        cells,
        sizes,
        fc.double({ min: 0, max: 90, noNaN: true }),
        fc.integer({ min: 10, max: 70 }),
        (grid, steps, turn, degrees) => {
          for (const loops of outlinesOfCells(grid, steps))
            isRoof(
              loops.map((l) => turned(l, turn)),
              degrees,
            )
        },
      ),
      { numRuns: Number(process.env.RUNS ?? 150) },
    )
  })
  it('covers any star of corners, with a hole', () => {
    const star = fc.array(
      fc.integer({ min: 4000, max: 12000 }).map((mm) => mm / 1000),
      { minLength: 3, maxLength: 14 },
    )
    fc.assert(
      fc.property(star, fc.boolean(), fc.double({ min: 0.2, max: 2, noNaN: true }), (radii, hasHole, r) => {
        const at = (radius: number, i: number, n: number): Vec2 => {
          const a = (2 * Math.PI * i) / n
          return [radius * Math.cos(a), radius * Math.sin(a)]
        }
        const outer = radii.map((radius, i) => at(radius, i, radii.length))
        const hole = [0, 1, 2, 3, 4].map((i) => at(r, -i, 5))
        const isWithin = radii.length > 4 && hasHole
        isRoof(isWithin ? [outer, hole] : [outer], 40)
      }),
      { numRuns: Number(process.env.RUNS ?? 300) },
    )
  })
})

/** The outlines of cells of a grid, each with its holes, none touching itself at a corner. */
function outlinesOfCells(grid: [number, number][], steps: number[]): Vec2[][][] {
  const isIn = new Set(grid.map(([x, y]) => `${x},${y}`))
  // Cells that meet at a corner only are joined by a third.
  for (const [x, y] of grid)
    for (const [dx, dy] of [
      [1, 1],
      [1, -1],
    ] as const)
      if (isIn.has(`${x + dx},${y + dy}`) && !isIn.has(`${x + dx},${y}`) && !isIn.has(`${x},${y + dy}`))
        isIn.add(`${x + dx},${y}`)
  const at = (i: number) => steps.slice(0, i).reduce((a, b) => a + b, 0) / 10
  const next = new Map<string, [number, number][]>()
  const put = (a: [number, number], b: [number, number]) => next.set(a.join(), [...(next.get(a.join()) ?? []), b])
  for (const key of isIn) {
    const [x, y] = key.split(',').map(Number) as [number, number]
    const free = (dx: number, dy: number) => !isIn.has(`${x + dx},${y + dy}`)
    if (free(0, -1)) put([x, y], [x + 1, y])
    if (free(1, 0)) put([x + 1, y], [x + 1, y + 1])
    if (free(0, 1)) put([x + 1, y + 1], [x, y + 1])
    if (free(-1, 0)) put([x, y + 1], [x, y])
  }
  if ([...next.values()].some((l) => l.length > 1)) return []
  const loops: Vec2[][] = []
  while (next.size) {
    const [start] = [...next.keys()]
    const ring: [number, number][] = []
    for (let k = start as string; next.has(k);) {
      const [to] = next.get(k) as [[number, number]]
      next.delete(k)
      ring.push(to)
      k = to.join()
    }
    const bends = ring.filter((p, i) => {
      const [a, b] = [
        ring[(i + ring.length - 1) % ring.length] as [number, number],
        ring[(i + 1) % ring.length] as [number, number],
      ]
      return (p[0] - a[0]) * (b[1] - p[1]) !== (p[1] - a[1]) * (b[0] - p[0])
    })
    loops.push(bends.map(([x, y]) => [at(x), at(y)]))
  }
  const outers = loops.filter((l) => loopArea(l) > 0)
  return outers.length === 1 ? [[outers[0] as Vec2[], ...loops.filter((l) => loopArea(l) < 0)]] : []
}

import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import {
  areaOf,
  enclosed,
  groupsThatMeet,
  intersectRegions,
  loopArea,
  openKernel,
  perimeterOf,
  piecesOf,
  rectOf,
  straightened,
  subtractRegions,
  triangulate,
  turnOf,
  uniteRegions,
  type Region,
  type Vec2,
} from './index'

beforeAll(() => openKernel())

const box = (x: number, y: number, w: number, d: number): Region => [
  [
    [x, y],
    [x + w, y],
    [x + w, y + d],
    [x, y + d],
  ],
]
const boxes = fc
  .tuple(
    fc.integer({ min: -9, max: 9 }),
    fc.integer({ min: -9, max: 9 }),
    fc.integer({ min: 1, max: 9 }),
    fc.integer({ min: 1, max: 9 }),
  )
  .map(([x, y, w, d]) => box(x, y, w, d))

describe('regions', () => {
  it('add up: what two share, and what each has alone, is their union, near the origin and far from it', () => {
    fc.assert(
      fc.property(boxes, boxes, fc.constantFrom(0, 4096, 350000, 5600000), (a, b, far) => {
        const [p, q] = [a, b].map((r): Region => r.map((l) => l.map(([x, y]): Vec2 => [x + far, y + far]))) as [
          Region,
          Region,
        ]
        const [union, common, onlyA, onlyB] = [
          uniteRegions([p, q]),
          intersectRegions(p, q),
          subtractRegions(p, q),
          subtractRegions(q, p),
        ].map(areaOf) as [number, number, number, number]
        expect(union).toBeCloseTo(areaOf(p) + areaOf(q) - common, 3)
        expect(onlyA + onlyB + common).toBeCloseTo(union, 3)
      }),
    )
  })
  it('keep a courtyard as a hole of the piece that it lies in', () => {
    const ring = subtractRegions(box(0, 0, 10, 10), box(3, 3, 4, 4))
    const pieces = piecesOf([...ring, ...box(20, 0, 5, 5), ...box(4, 4, 2, 2)])
    expect(pieces.map((p) => [p.length, areaOf(p)])).toEqual([
      [2, 84],
      [1, 25],
      [1, 4],
    ])
    expect(perimeterOf(ring)).toBeCloseTo(56, 6)
  })
  it('are triangulated to their area for drawing, holes left open', () => {
    const region = [...subtractRegions(box(0, 0, 10, 10), box(3, 3, 4, 4)), ...box(20, 0, 5, 5)]
    const points = region.flat()
    const triangles = triangulate(region)
    let area = 0
    for (let t = 0; t < triangles.length; t += 3)
      area += loopArea([0, 1, 2].map((k) => points[triangles[t + k] ?? 0] as Vec2))
    expect(area).toBeCloseTo(109, 9)
  })
  it('lose doubled points, points on straight sides, and spikes that go out and come back', () => {
    expect(
      straightened([
        [0, 0],
        [5, 0],
        [5, 0],
        [10, 0],
        [10, 4],
        [0, 4],
      ]),
    ).toEqual([
      [0, 0],
      [10, 0],
      [10, 4],
      [0, 4],
    ])
    expect(
      straightened([
        [0, 0],
        [10, 0],
        [10, 2],
        [17, 9],
        [10, 2],
        [10, 4],
        [0, 4],
      ]),
    ).toEqual([
      [0, 0],
      [10, 0],
      [10, 4],
      [0, 4],
    ])
    expect(
      areaOf([
        straightened([
          [0, 0],
          [10, 0],
          [13, 1],
          [20, 5],
          [13, 1],
          [10, 0],
          [10, 4],
          [0, 4],
        ]),
      ]),
    ).toBeCloseTo(40, 9)
  })
  it('that turned inside out are dropped', () => {
    expect(
      areaOf(
        enclosed([
          [
            [0, 0],
            [10, 0],
            [10, 10],
            [6, -2],
            [0, 10],
          ],
        ]),
      ),
    ).toBeGreaterThan(0)
    expect(
      enclosed([
        [
          [0, 0],
          [0, 5],
          [5, 5],
          [5, 0],
        ],
      ]),
    ).toEqual([])
  })
})

it('right angles turn exactly', () => {
  for (const [degrees, c, s] of [
    [0, 1, 0],
    [90, 0, 1],
    [180, -1, 0],
    [270, 0, -1],
    [-90, 0, -1],
    [450, 0, 1],
  ] as const)
    expect(turnOf(degrees)).toEqual({ c, s })
  expect(turnOf(30).s).toBeCloseTo(0.5, 12)
})

it('things that touch are grouped, in any order, as comparing each with each would', () => {
  fc.assert(
    fc.property(fc.array(boxes, { maxLength: 14 }), (list) => {
      const groups = groupsThatMeet(list, rectOf, () => true)
      expect(groups.flat()).toHaveLength(list.length)
      const touch = (a: Region, b: Region) => {
        const [p, q] = [rectOf(a), rectOf(b)]
        return p.x0 <= q.x1 && q.x0 <= p.x1 && p.y0 <= q.y1 && q.y0 <= p.y1
      }
      groups.forEach((g, i) =>
        groups.slice(0, i).forEach((h) => {
          for (const a of g) for (const b of h) expect(touch(a, b)).toBe(false)
        }),
      )
      for (const g of groups)
        if (g.length > 1) for (const a of g) expect(g.some((b) => b !== a && touch(a, b))).toBe(true)
    }),
  )
})

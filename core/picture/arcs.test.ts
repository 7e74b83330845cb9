import { describe, expect, it } from 'vitest'
import { Sheet } from '../../demo/raster'
import { arcBetween, arcPoints, gapOf, type Vec2 } from '../solid'
import { traceSketch, type FoundShape } from './index'

/** An outline with bulges as points along it, a pixel or so apart on arcs: turned by some degrees about the middle of the sheet. */
function inked(corners: readonly [x: number, y: number, bulge?: number][], degrees = 0): number[][] {
  const a = (degrees * Math.PI) / 180
  return corners
    .flatMap(([x, y, bulge = 0], i): Vec2[] => {
      const [u, v] = corners[(i + 1) % corners.length] as [number, number]
      const arc = arcBetween([x, y], [u, v], bulge)
      return arc ? arcPoints({ ...arc, n: 200 }).slice(0, -1) : [[x, y]]
    })
    .map(([x, y]) => [
      600 + (x - 600) * Math.cos(a) - (y - 450) * Math.sin(a),
      450 + (x - 600) * Math.sin(a) + (y - 450) * Math.cos(a),
    ])
}

const QUARTER = Math.tan(Math.PI / 8)
/** Corners, how many of the sides are arcs, and the true area. */
const SHAPES: [string, [number, number, number?][], { corners: number; arcs: number; area: number }][] = [
  [
    'a bar with two round ends',
    [[350, 300], [850, 300, 1], [850, 600], [350, 600, 1]],
    { corners: 4, arcs: 2, area: 500 * 300 + Math.PI * 150 ** 2 },
  ],
  [
    'a bar with an apse',
    [[300, 250], [800, 250], [800, 350, 1], [800, 550], [800, 650], [300, 650]],
    { corners: 6, arcs: 1, area: 500 * 400 + (Math.PI * 100 ** 2) / 2 },
  ],
  [
    'a block with one round corner',
    [[300, 250], [900, 250], [900, 500, QUARTER], [750, 650], [300, 650]],
    { corners: 5, arcs: 1, area: 600 * 400 - 150 ** 2 * (1 - Math.PI / 4) },
  ],
  [
    'half of a disc',
    [[300, 300], [900, 300, 1]],
    { corners: 3, arcs: 2, area: (Math.PI * 300 ** 2) / 2 },
  ],
  [
    'a bar with a side that swells inwards',
    [[300, 250], [900, 250], [900, 650], [300, 650, -0.4]],
    { corners: 4, arcs: 1, area: NaN },
  ],
] // prettier-ignore

const arcsOf = (f: FoundShape | undefined) => (f?.bulges[0] ?? []).filter((b) => b !== 0).length
const trueArea = (corners: readonly [number, number, number?][]) => {
  const points = inked(corners)
  return Math.abs(
    points.reduce((sum, [x = 0, y = 0], i) => {
      const [u = 0, v = 0] = points[(i + 1) % points.length] ?? []
      return sum + (x * v - u * y) / 2
    }, 0),
  )
}

describe('arcs in ink', () => {
  for (const [name, corners, want] of SHAPES)
    for (const degrees of [0, 17])
      it(`${name}, turned by ${degrees}, has its arcs, and its area to half a percent`, async () => {
        const found = await traceSketch(new Sheet(1200, 900).loop(inked(corners, degrees), 6).rgba(), {
          within: 5,
          smallest: 400,
        })
        expect(found).toHaveLength(1)
        expect([found[0]?.outer.length, arcsOf(found[0])]).toEqual([want.corners, want.arcs])
        const area = Number.isNaN(want.area) ? trueArea(corners) : want.area
        expect(Math.abs((found[0]?.area ?? 0) / area - 1)).toBeLessThan(5e-3)
        // Each corner lies where it was drawn.
        const drawn = inked(
          corners.map(([x, y]) => [x, y] as [number, number]),
          degrees,
        ) as Vec2[]
        for (const p of drawn) expect(Math.min(...(found[0]?.outer ?? []).map((q) => gapOf(p, q)))).toBeLessThan(12)
      })
  it('a disc that a line parts in two gives two halves that do not overlap', async () => {
    const ring = inked([[350, 450, 1], [850, 450, 1]]) // prettier-ignore
    const found = await traceSketch(new Sheet(1200, 900).loop(ring, 6).line([350, 450], [850, 450], 6).rgba(), {
      within: 5,
      smallest: 400,
    })
    expect(found.map((f) => [f.outer.length, arcsOf(f)])).toEqual([
      [3, 2],
      [3, 2],
    ])
    for (const { area } of found) expect(Math.abs(area / ((Math.PI * 250 ** 2) / 2) - 1)).toBeLessThan(6e-3)
  })
  it('polygons of eight and twelve sides, and a zigzag, have none', async () => {
    const regular = (n: number): [number, number][] =>
      Array.from({ length: n }, (_, i) => [
        600 + 300 * Math.cos((2 * Math.PI * i) / n),
        450 + 300 * Math.sin((2 * Math.PI * i) / n),
      ])
    for (const n of [5, 8, 12]) {
      const found = await traceSketch(new Sheet(1200, 900).loop(inked(regular(n)), 6).rgba(), {
        within: 5,
        smallest: 400,
      })
      expect([n, found[0]?.outer.length, arcsOf(found[0])]).toEqual([n, n, 0])
    }
    const teeth = [[300, 250], [500, 300], [700, 250], [900, 320], [900, 650], [300, 650]] as [number, number][] // prettier-ignore
    const found = await traceSketch(new Sheet(1200, 900).loop(inked(teeth), 6).rgba(), { within: 5, smallest: 400 })
    expect([found[0]?.outer.length, arcsOf(found[0])]).toEqual([6, 0])
  })
})

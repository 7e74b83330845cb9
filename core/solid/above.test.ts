import { beforeAll, describe, expect, it } from 'vitest'
import { aboveHeight, openKernel, sweepBody, volumeOf, type Mesh, type Outline, type Vec2 } from './index'

beforeAll(() => openKernel())

const outline: Outline = {
  points: [
    [0, 0],
    [12, 0],
    [12, 12],
    [0, 12],
  ] as Vec2[],
  edges: ['a', 'b', 'c', 'd'],
  arcs: [null, null, null, null],
}
/** A twisted tower, 24 m high, and the heights of its rows of facets. */
const tower = () => {
  const sweep = { low: [outline], high: [outline], z0: 0, z1: 24, twist: { x: 6, y: 6, from: 0, to: 24, angle: 90 } }
  const solid = sweepBody(sweep, { base: 'base', top: 'top', side: (edge) => edge })
  const heights = [...new Set(Array.from(solid.positions).filter((_, i) => i % 3 === 2))].sort((m, n) => m - n)
  return { solid, heights }
}
const areaOf = ({ positions: p, triangles }: Mesh, t: number): number => {
  const [a, b, c] = [0, 1, 2].map((k) => (triangles[t + k] as number) * 3) as [number, number, number]
  const [u, w] = [b, c].map((v) => [0, 1, 2].map((k) => (p[v + k] as number) - (p[a + k] as number))) as [
    number[],
    number[],
  ]
  const cross = [1, 2, 0].map((j, i) => {
    const k = 3 - i - j
    return (u[j] as number) * (w[k] as number) - (u[k] as number) * (w[j] as number)
  })
  return Math.hypot(...cross) / 2
}

describe('what lies above a height', () => {
  it('has no triangle without area, nor a volume that jumps, where the height is that of corners, or nearly', () => {
    const { solid, heights } = tower()
    expect(heights.length).toBeGreaterThan(8)
    for (const z of heights.slice(1, -1)) {
      const exact = (volumeOf(solid) / 24) * (24 - z)
      for (const by of [0, 1e-12, -1e-12, 1e-9, -1e-9, 1e-7, -1e-7, 1e-3]) {
        const { volume, mesh } = aboveHeight(solid, z + by)
        const areas = Array.from({ length: mesh.triangles.length / 3 }, (_, i) => areaOf(mesh, 3 * i))
        expect(Math.min(...areas)).toBeGreaterThan(1e-6)
        // It has the same plan all the way up, less a little where its facets are flat between their corners.
        expect(Math.abs(volume - exact)).toBeLessThan(0.01 + 144 * Math.abs(by))
      }
    }
  })
})

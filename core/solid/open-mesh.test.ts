import fc from 'fast-check'
import { expect, it } from 'vitest'
import { carrierOf, STILL } from './carry'
import { bodyFault } from './fault'
import { divideAtRows, type OpenMesh } from './open-mesh'
import { refine } from './refined-mesh'
import { volumeOf } from './solid'

/** A tetrahedron, whose four sides have edges of any slope. */
const tetrahedron = (heights: readonly number[]): OpenMesh => ({
  points: [0, 0, heights[0] ?? 0, 9, 1, heights[1] ?? 0, 2, 8, heights[2] ?? 0, 4, 3, heights[3] ?? 0],
  triangles: [0, 2, 1, 0, 1, 3, 1, 2, 3, 2, 0, 3],
  facetOf: [0, 1, 2, 3],
})
const solidOf = (m: OpenMesh) => ({
  positions: Float64Array.from(m.points),
  triangles: Uint32Array.from(m.triangles),
  facetOf: Uint32Array.from(m.facetOf),
  facets: [],
})
// Corners at whole heights, so that several lie at one, and rows pass through some.
const Heights = fc
  .tuple(fc.integer({ min: 0, max: 4 }), fc.integer({ min: 0, max: 4 }), fc.integer({ min: 0, max: 4 }))
  .map((z) => [...z, 9])
const Rows = fc
  .uniqueArray(fc.integer({ min: 1, max: 34 }), { maxLength: 20 })
  .map((r) => r.map((n) => n / 4).sort((a, b) => a - b))

it('a body divided at rows is closed, has its volume, and no triangle passes through a row', () => {
  fc.assert(
    fc.property(Heights, Rows, (heights, rows) => {
      const mesh = tetrahedron(heights)
      const volume = volumeOf(solidOf(mesh))
      divideAtRows(mesh, rows)
      const { positions, triangles } = solidOf(mesh)
      expect(bodyFault({ positions, triangles }, 'edges')).toBeNull()
      expect(volumeOf(solidOf(mesh))).toBeCloseTo(volume, 9)
      for (let t = 0; t < triangles.length; t += 3) {
        const zs = [0, 1, 2].map((k) => positions[(triangles[t + k] ?? 0) * 3 + 2] ?? 0)
        expect(rows.filter((z) => z > Math.min(...zs) && z < Math.max(...zs))).toEqual([])
      }
    }),
  )
})

it('a body refined for a twist is closed, has its volume, and keeps the facets of its triangles', () => {
  fc.assert(
    fc.property(Heights, fc.integer({ min: -300, max: 300 }), (heights, turn) => {
      const mesh = tetrahedron(heights)
      const volume = volumeOf(solidOf(mesh))
      const before = mesh.triangles.length
      refine(mesh, carrierOf({ ...STILL, x: 0, y: 0, ranges: [[0, 9]], turn }))
      expect(bodyFault(solidOf(mesh), 'edges')).toBeNull()
      expect(volumeOf(solidOf(mesh))).toBeCloseTo(volume, 9)
      expect(new Set(mesh.facetOf)).toEqual(new Set([0, 1, 2, 3]))
      if (Math.abs(turn) > 60) expect(mesh.triangles.length).toBeGreaterThan(before * 4)
    }),
  )
})

import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { applyEdit } from '@geotome/core/edits'
import { moveMasses } from '@geotome/core/form'
import { openKernel, type Vec2, type Vec3 } from '@geotome/core/solid'
import { massNamed, projectWith, schemeOf, studied, withMass } from '../../../core/testing/make'
import { nothingSent, viewOf } from '../worker/view'
import { toPane, type View } from './camera'
import { stageGeometry } from './geometry-store'
import { pickAmong } from './picking'
import { cornersOf, endsOf, faceNearest, facesDrawn, jointAt, linesRound } from './spots'

/** A box far out on the map, turned, as the page has it. */
const size: Vec2 = [900, 640]
const HIGH = 9
function page(turned: number, azimuth: number, elevation: number) {
  const drawn = withMass(projectWith([0, 3, 6, 9]), { name: 'Tower', height: HIGH, box: [0, 0, 12, 8] })
  const { id } = massNamed(drawn, 'Tower')
  const project = applyEdit(drawn, moveMasses(drawn, schemeOf(drawn), [id], [612_345.5, 201_234.25], turned)).project
  const ask = { scheme: schemeOf(project).id, preview: null, compare: null, section: null, proposal: null }
  const { masses } = stageGeometry.keep(viewOf(studied(project), ask, nothingSent(), 0))
  const [mass] = masses
  const geometry = stageGeometry.get(mass?.body ?? null)
  if (!mass || !geometry) throw new Error('nothing shown')
  pickAmong(() => [{ owner: mass.id, geometry, at: mass.at, tint: null }])
  const view: View = { target: [6, 4, 4], azimuth, elevation, scale: 19 }
  const px = (p: Vec3) => toPane(view, size, p)
  const faces = [...facesDrawn(mass).values()]
  const top = faces.reduce((a, b) => (b.normal[2] > a.normal[2] ? b : a))
  return { mass, view, px, faces, top }
}
const turned = fc.integer({ min: -1800, max: 1800 }).map((tenths) => tenths / 10)
const azimuth = fc.integer({ min: -180, max: 180 })
const elevation = fc.integer({ min: 15, max: 80 })
/** The four corners that a flat face has, each once. */
const cornersIn = (bits: Float32Array): Vec3[] => {
  const all = new Map<string, Vec3>()
  for (let i = 0; i < bits.length; i += 3) {
    const p = [...bits.subarray(i, i + 3)] as Vec3
    all.set(p.map((c) => c.toFixed(3)).join(), p)
  }
  return [...all.values()]
}
const off = (a: Vec3, b: Vec3) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2])

beforeAll(() => openKernel())

describe('what is picked of a mass', () => {
  it('faces have their area and look outward, however the mass is turned', () => {
    fc.assert(
      fc.property(turned, (by) => {
        const { faces } = page(by, -60, 35)
        expect(
          faces
            .map((f) => f.area)
            .sort((a, b) => a - b)
            .map((a) => Math.round(a * 1e3) / 1e3),
        ).toEqual([72, 72, 96, 96, 108, 108])
        const middle = [0, 1, 2].map((k) => faces.reduce((sum, f) => sum + (f.middle[k] as number) / 6, 0)) as Vec3
        for (const { middle: m, normal } of faces)
          expect(normal.reduce((sum, n, k) => sum + n * ((m[k] as number) - (middle[k] as number)), 0)).toBeGreaterThan(
            3.9,
          )
      }),
      { numRuns: 20 },
    )
  })
  it('a face is lined by its own sides alone: not by those between its triangles', () => {
    const { faces } = page(23.4, -60, 35)
    for (const { bits } of faces) expect(linesRound(bits)).toHaveLength(4 * 6)
  })
  it('a corner that is pointed at is that corner; one that the mass hides is none', () => {
    fc.assert(
      fc.property(turned, azimuth, elevation, (by, from, up) => {
        const { mass, view, px, top, faces } = page(by, from, up)
        for (const corner of cornersIn(top.bits)) {
          const spot = jointAt(view, size, px(corner), 'corner', [mass])
          expect(spot?.faces).toHaveLength(3)
          expect(spot && cornersOf(mass, spot).map((p) => off(p, corner) < 1e-3)).toEqual([true])
        }
        // Of the corners at the foot the one farthest away stands behind the mass.
        const foot = faces.reduce((a, b) => (b.normal[2] < a.normal[2] ? b : a))
        const a = (from * Math.PI) / 180
        const toward = (p: Vec3) => p[0] * Math.cos(a) + p[1] * Math.sin(a)
        const [hidden] = cornersIn(foot.bits).sort((p, q) => toward(p) - toward(q))
        const behind = hidden && jointAt(view, size, px(hidden), 'corner', [mass])
        expect(behind && hidden && cornersOf(mass, behind).some((p) => off(p, hidden) < 1e-3)).not.toBe(true)
      }),
      { numRuns: 25 },
    )
  })
  it('an edge that is pointed at is between the two faces that meet there', () => {
    fc.assert(
      fc.property(turned, azimuth, elevation, (by, from, up) => {
        const { mass, view, px, top } = page(by, from, up)
        const lines = linesRound(top.bits)
        for (let i = 0; i < lines.length; i += 6) {
          const [a, b] = [[...lines.subarray(i, i + 3)], [...lines.subarray(i + 3, i + 6)]] as [Vec3, Vec3]
          const middle = [0, 1, 2].map((k) => ((a[k] as number) + (b[k] as number)) / 2) as Vec3
          const spot = jointAt(view, size, px(middle), 'edge', [mass])
          expect(spot?.faces).toContain(top.name)
          const ends = spot ? endsOf(cornersOf(mass, spot)) : []
          expect(ends.map((e) => Math.min(off(e, a), off(e, b)) < 1e-3)).toEqual([true, true])
        }
      }),
      { numRuns: 25 },
    )
  })
  it('away from all edges there is none', () => {
    const { mass, view, px, top } = page(40, -60, 35)
    for (const kind of ['edge', 'corner'] as const) expect(jointAt(view, size, px(top.middle), kind, [mass])).toBeNull()
  })
  it('the face nearest to a point on it is that face', () => {
    const { mass, faces } = page(-71.3, -60, 35)
    for (const { middle, name } of faces) expect(faceNearest([mass], middle)?.faces).toEqual([name])
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Vec2, Vec3 } from '@geotome/core/solid'
import { turnOf } from '@geotome/core/solid'
import type { Geometry } from '../worker/protocol'
import type { Placed } from './placed'
import { toPane, type View } from './camera'
import { instancesOf, shadowsOf } from './instances'
import { hitsAt, isHidden, pickAll, pickAmong } from './picking'

const size: Vec2 = [760, 640]
const view: View = { target: [0, 0, 0], azimuth: -60, elevation: 35, scale: 12 }

/** A slab of 2 x 1, level, at a height of 1 within its own frame: two triangles. */
const slab: Geometry = {
  key: 'slab',
  positions: Float32Array.of(0, 0, 1, 2, 0, 1, 2, 1, 1, 0, 0, 1, 2, 1, 1, 0, 1, 1),
  normals: Float32Array.from({ length: 18 }, (_, i) => (i % 3 === 2 ? 1 : 0)),
  edges: new Float32Array(),
  contours: new Float32Array(),
  faceOf: Uint32Array.of(0, 0),
}
const at = (x: number, y: number, z: number, turn: number) => ({ x, y, z, turn })
const item = (owner: string, place: Placed['at']): Placed => ({ owner, geometry: slab, at: place, tint: null })
const world = ([u, v]: Vec2, { x, y, z, turn }: Placed['at']): Vec3 => {
  const { c, s } = turnOf(turn)
  return [x + c * u - s * v, y + s * u + c * v, z + 1]
}

describe('picking', () => {
  it('finds whatever is placed, turned as it may be, by the triangle that lies under the pixel', () => {
    const number = (most: number) => fc.integer({ min: -most, max: most })
    fc.assert(
      fc.property(number(20), number(20), number(9), number(360), fc.boolean(), (x, y, z, turn, upper) => {
        const place = at(x, y, z, turn)
        pickAmong(() => [item('far', at(500, 500, 0, 0)), item('one', place)])
        const p = world(upper ? [0.5, 0.75] : [1.5, 0.25], place)
        const [hit, more] = hitsAt(view, size, toPane(view, size, p), { from: -1e9, to: 1e9 })
        expect([hit?.id, hit?.bit, more]).toEqual(['one', upper ? 1 : 0, undefined])
        for (const k of [0, 1, 2] as const) expect(hit?.point.toArray()[k]).toBeCloseTo(p[k], 3)
        expect(hitsAt(view, size, toPane(view, size, p), { from: -1e9, to: z + 0.5 })).toEqual([])
      }),
    )
  })
  it('gives what lies behind too, nearest first, and says what is hidden', () => {
    pickAmong(() => [item('low', at(0, 0, 0, 0)), item('high', at(0, 0, 3, 0))])
    const plan: View = { ...view, elevation: 90 }
    expect(pickAll(plan, size, toPane(plan, size, [1, 0.5, 0]), { from: -99, to: 99 }).map((h) => h.id)).toEqual([
      'high',
      'low',
    ])
    expect([isHidden(plan, [1, 0.5, 2]), isHidden(plan, [1, 0.5, 5]), isHidden(plan, [9, 9, 0])]).toEqual([
      true,
      false,
      false,
    ])
  })
})

describe('what looks alike', () => {
  const palette = { up: '#ffffff', lit: '#dddddd', shade: '#bbbbbb', paper: '#ffffff' } as never
  it('is drawn once and placed; what is turned, tinted or drawn in another colour is not one of them', () => {
    const many = Array.from({ length: 30 }, (_, i) => item(`m${i}`, at(i, 2 * i, 3 * (i % 3), 17)))
    const odd = [item('turned', at(0, 0, 0, 18)), { ...item('tinted', at(0, 0, 0, 17)), tint: '#ff0000' }]
    const parted = instancesOf([...many, ...odd], palette)
    expect(parted.single.map((s) => s.owner)).toEqual(['turned', 'tinted'])
    expect(parted.many.map((m) => [m.places.length / 3, m.faces.getAttribute('position').count])).toEqual([[30, 6]])
    // Ten of them stand on each of three storeys: a shadow for each.
    expect(shadowsOf(parted.many, 1e6).map((s) => s.places.length / 3)).toEqual([10, 10, 10])
    expect(instancesOf(many.slice(0, 7), palette).many).toEqual([])
  })
})

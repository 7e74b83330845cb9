import { areaOf, betweenSheets, enclosed, subtractRegions, type Region, type Vec2, type Vec3 } from '../solid'
import { crossing, type PartBody } from './body'
import type { WorldFace } from './print'

export interface RoofShape { body: PartBody; plan: Region; /** m2 on the slope, overhang included */ faceArea: number }

/** Whether an edge's far side is a face that a roof hangs over; a ridge, a valley or a wall above is none. */
export type Overhangs = (beyond: string, a: Vec3, b: Vec3) => boolean

/**
 * A roof on a face that looks up: the face widened by the overhang (m, level, square to each eaves and verge), with its
 * thickness outside (above) or inside, edges cut plumb. `covered` is what stands on it, and is left out.
 */
export function shapeRoof(face: WorldFace, thickness: number, side: 'inside' | 'outside', overhang: number, overhangs: Overhangs, covered: Region): RoofShape {
  const { n, d } = face.plane
  const heightAt = ([x, y]: Vec2) => (d - n[0] * x - n[1] * y) / n[2]
  // An edge shorter than its neighbours' overhangs turns inside out when they cross: what it enclosed then is dropped.
  const tidy = (region: Region) => (overhang > 0 ? enclosed(region) : region)
  const plain = tidy(face.loops.map((loop, l) => widened(loop, (i) => (overhang > 0 && overhangs(face.beyond[l]?.[i] ?? '', loop[i] as Vec3, loop[(i + 1) % loop.length] as Vec3) ? overhang : 0))))
  const plan = covered.length ? subtractRegions(plain, covered) : plain
  const up = thickness / n[2]
  const [low, high] = side === 'outside' ? [0, up] : [-up, 0]
  const flat = n[2] > 1 - 1e-9
  const body: PartBody = flat
    ? { kind: 'prism', region: plan, z0: d / n[2] + low, z1: d / n[2] + high }
    : { kind: 'mesh', mesh: betweenSheets(plan, (p) => heightAt(p) + low, (p) => heightAt(p) + high) }
  return { body, plan, faceArea: areaOf(plan) / n[2] }
}

/** A loop in plan with each edge moved out by its own distance, corners where the moved edges cross. */
export function widened(loop: Vec3[], by: (edge: number) => number): Vec2[] {
  const plan = loop.map(([x, y]): Vec2 => [x, y])
  const edges = plan.map((a, i) => {
    const b = plan[(i + 1) % plan.length] as Vec2
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1
    const along: Vec2 = [(b[0] - a[0]) / length, (b[1] - a[1]) / length]
    const out = Math.abs(by(i))
    // Outer loops run counter-clockwise and holes clockwise: outside is to the right of both.
    return { at: [a[0] + along[1] * out, a[1] - along[0] * out] as Vec2, along, out, from: a }
  })
  return edges.map((edge, i) => {
    const before = edges[(i + edges.length - 1) % edges.length] as (typeof edges)[number]
    if (edge.out === 0 && before.out === 0) return edge.from
    return crossing(before.at, before.along, edge.at, edge.along) ?? edge.at
  })
}

import {
  areaIn,
  areaOf,
  betweenSheets,
  enclosed,
  subtractRegions,
  thickened,
  type Region,
  type Vec2,
  type Vec3,
  TOLERANCE,
  gapOf,
  meetingOf,
} from '../solid'
import type { PartBody } from './body'
import { planeOf, tiltOf, type WorldFace } from './print'

export interface RoofShape {
  body: PartBody
  plan: Region
  /** m2 on the slope, overhang included */ faceArea: number
}

/** How far (m) a roof hangs over an edge, by the face beyond it; over a ridge, a valley or a wall above it does not. */
export type Overhangs = (beyond: string, a: Vec3, b: Vec3) => number

/**
 * A roof on a face that looks up, or a soffit slab on one that looks down: the face widened by its overhangs (m, level, square to each
 * eaves and verge), its thickness outside or inside of the face, edges cut plumb. `covered` is what stands on it, and is left out.
 */
export function shapeRoof(
  face: WorldFace,
  thickness: number,
  side: 'inside' | 'outside',
  overhangs: Overhangs,
  covered: Region,
): RoofShape {
  if (face.bent) return bentRoof(face, thickness, side)
  const { n, d } = face.plane
  const heightAt = ([x, y]: Vec2) => (d - n[0] * x - n[1] * y) / n[2]
  const by = face.loops.map((loop, l) =>
    loop.map((a, i) => overhangs(face.beyond[l]?.[i] ?? '', a, loop[(i + 1) % loop.length] as Vec3)),
  )
  // Seen from above a face that looks down runs the other way round.
  const loops = n[2] > 0 ? face.loops : face.loops.map((l) => [...l].reverse())
  // An edge shorter than its neighbours' overhangs turns inside out when they cross: what it enclosed then is dropped.
  const tidy = (region: Region) => (by.some((l) => l.some((o) => o > 0)) ? enclosed(region) : region)
  const plain = tidy(loops.map((loop, l) => widened(loop, (i) => (n[2] > 0 ? (by[l]?.[i] ?? 0) : 0))))
  const plan = covered.length ? subtractRegions(plain, covered) : plain
  const up = thickness / n[2]
  const [low, high] = [0, side === 'outside' ? up : -up].sort((a, b) => a - b) as [number, number]
  const flat = Math.abs(n[2]) > 1 - TOLERANCE.rounding
  const body: PartBody = flat
    ? { kind: 'prism', region: plan, z0: d / n[2] + low, z1: d / n[2] + high }
    : {
        kind: 'mesh',
        mesh: betweenSheets(
          plan,
          (p) => heightAt(p) + low,
          (p) => heightAt(p) + high,
        ),
      }
  return { body, plan, faceArea: areaOf(plan) / Math.abs(n[2]) }
}

/** A roof on a twisted or doubly curved face: on its flat bits, its thickness measured square to their middle slope. */
function bentRoof(face: WorldFace, thickness: number, side: 'inside' | 'outside'): RoofShape {
  const sign = side === 'outside' ? 1 : -1
  const by: Vec3 = [0, 0, (sign * thickness) / (tiltOf(face) || 1)]
  const faceArea = face.flats.reduce((sum, f) => sum + areaIn(planeOf(f), f), 0)
  const up = tiltOf(face) > 0
  const plan = enclosed(face.flats.map((f) => (up ? f : [...f].reverse()).map(([x, y]): Vec2 => [x, y])))
  return { body: { kind: 'mesh', mesh: thickened(face.flats, by) }, plan, faceArea }
}

/** A loop in plan with each edge moved out (below zero: in) by its own distance, corners where the moved edges cross. */
export function widened(loop: readonly (readonly number[])[], by: (edge: number) => number): Vec2[] {
  const plan = loop.map(([x = 0, y = 0]): Vec2 => [x, y])
  const edges = plan.map((a, i) => {
    const b = plan[(i + 1) % plan.length] as Vec2
    const length = gapOf(b, a) || 1
    const along: Vec2 = [(b[0] - a[0]) / length, (b[1] - a[1]) / length]
    const out = by(i)
    // Outer loops run counter-clockwise and holes clockwise: outside is to the right of both.
    return { at: [a[0] + along[1] * out, a[1] - along[0] * out] as Vec2, along, out, from: a }
  })
  return edges.flatMap((edge, i): Vec2[] => {
    const before = edges[(i + edges.length - 1) % edges.length] as (typeof edges)[number]
    if (edge.out === 0 && before.out === 0) return [edge.from]
    const met = meetingOf(before.at, before.along, edge.at, edge.along, TOLERANCE.point)
    if (met) return [met]
    // Edges that run on straight: where one is moved further than the other there is a step.
    const last: Vec2 = [edge.from[0] + before.along[1] * before.out, edge.from[1] - before.along[0] * before.out]
    return before.out === edge.out ? [edge.at] : [last, edge.at]
  })
}

import { inFrame } from './in-frame'
import type { Vec2 } from './place'
import { dotOf, planeAxes } from './plane'
import { boxOf, prism, type Plane, type Solid, type Vec3 } from './solid'

/** A block on one side of a plane that holds all of a body there, and more: its face on the plane has a name of its own. */
export function halfSpace({ n, d }: Plane, solid: Solid, isBelow: boolean, cutFace: string): Solid {
  const box = boxOf(solid.positions)
  const middle: Vec3 = [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2, (box.z0 + box.z1) / 2]
  const reach = Math.hypot(box.x1 - box.x0, box.y1 - box.y0, box.z1 - box.z0) + 1
  const off = dotOf(n, middle) - d
  const foot: Vec3 = [middle[0] - off * n[0], middle[1] - off * n[1], middle[2] - off * n[2]]
  const { u, v: w } = planeAxes(n)
  const square: Vec2[] = [
    [-reach, -reach],
    [reach, -reach],
    [reach, reach],
    [-reach, reach],
  ]
  const end = `${cutFace}-end`
  const depth = reach + Math.abs(off)
  const block = isBelow
    ? prism(square, [end, end, end, end], -depth, 0, end, cutFace)
    : prism(square, [end, end, end, end], 0, depth, cutFace, end)
  const placed = inFrame(block, { origin: foot, u, v: w, w: n })
  // The cut itself lies on the very plane that was asked for.
  const own = isBelow ? { n, d } : { n: [-n[0], -n[1], -n[2]] as Vec3, d: -d }
  return { ...placed, facets: placed.facets.map((f) => (f.name === cutFace ? { name: f.name, plane: own } : f)) }
}

import { TOLERANCE } from '../values'
import type { Mesh } from './extrude'
import { withKernel } from './kernel'
import type { Placement } from './place'
import type { Region } from './rect'
import { placeSolid, type Plane, type Solid } from './solid'
import { toKernel } from './kernel-body'
import type { CrossSection, Manifold, ManifoldToplevel } from 'manifold-3d/manifold'
import type { Vec2 } from './place'

/** A plane that a room lies below (n . p <= d), over what lies within upright half planes (n . p >= d); everywhere where there are none. */
export interface Ceiling extends Plane {
  within: { n: Vec2; d: number }[]
}

/** A room that a body may fill: over a region, from one height to another, below planes. m */
export interface Allowed {
  region: Region
  from: number
  to: number
  planes: Ceiling[]
}

/** What of a body lies above the room's foot: its plan; and what of that lies beyond the room: m3, and its triangles. */
export interface Beyond {
  plan: Region
  volume: number
  mesh: Mesh
}

/** What of a placed body lies beyond the room that is allowed: its plan, m3, and triangles. */
export function beyond(body: Solid, at: Placement, room: Allowed): Beyond {
  return withKernel((kernel, own) => {
    // Near the body, so that single precision is fine wherever the site lies.
    const o = [Math.round(at.x), Math.round(at.y)] as const
    const whole = toKernel(placeSolid(body, { ...at, x: at.x - o[0], y: at.y - o[1] }), kernel, own)
    const above = own(whole.trimByPlane([0, 0, 1], room.from))
    if (above.isEmpty()) return { plan: [], volume: 0, mesh: NOTHING }
    const plan = (own(above.project()) as CrossSection)
      .toPolygons()
      .map((l) => l.map(([x, y]): Vec2 => [x + o[0], y + o[1]]))
    const inside = roomBody(kernel, own, room, o)
    const over = inside ? own(above.subtract(inside)) : above
    const volume = over.volume()
    return { plan, volume, mesh: volume > TOLERANCE.point ? meshOf(over, o) : NOTHING }
  })
}

/** The room itself as triangles. */
export function roomMesh(room: Allowed): Mesh {
  const first = room.region[0]?.[0] ?? [0, 0]
  const o = [Math.round(first[0]), Math.round(first[1])] as const
  return withKernel((kernel, own) => {
    const body = roomBody(kernel, own, room, o)
    return body ? meshOf(body, o) : NOTHING
  })
}

const NOTHING: Mesh = { positions: new Float64Array(), triangles: new Uint32Array() }

function roomBody(
  kernel: ManifoldToplevel,
  own: <T extends CrossSection | Manifold>(o: T) => T,
  room: Allowed,
  [ox, oy]: readonly [number, number],
): Manifold | null {
  if (room.region.length === 0 || room.to <= room.from) return null
  let body = own(
    own(
      own(
        new kernel.CrossSection(
          room.region.map((l) => l.map(([x, y]): Vec2 => [x - ox, y - oy])),
          'Positive',
        ),
      ).extrude(room.to - room.from),
    ).translate([0, 0, room.from]),
  )
  // What lies on the far side of a plane is cut off: the kernel keeps what lies along the normal.
  for (const { n, d, within } of room.planes) {
    const off = d - n[0] * ox - n[1] * oy
    if (within.length === 0) {
      body = own(body.trimByPlane([-n[0], -n[1], -n[2]], -off))
      continue
    }
    const under = within.reduce(
      (part, half) => own(part.trimByPlane([...half.n, 0], half.d - half.n[0] * ox - half.n[1] * oy)),
      body,
    )
    body = own(body.subtract(own(under.trimByPlane(n, off))))
  }
  return body
}

function meshOf(body: Manifold, [ox, oy]: readonly [number, number]): Mesh {
  const mesh = body.getMesh()
  const shift = [ox, oy, 0]
  return {
    positions: Float64Array.from(mesh.vertProperties, (c, i) => c + (shift[i % 3] as number)),
    triangles: Uint32Array.from(mesh.triVerts),
  }
}

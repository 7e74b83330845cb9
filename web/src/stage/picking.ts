import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three'
import { MeshBVH } from 'three-mesh-bvh'
import { turnOf, type Vec2, type Vec3 } from '@geotome/core/solid'
import type { Geometry, MassView } from '../worker/protocol'
import { linesIn, type Placed } from './placed'
import { axesOf, facing, toPane, type View } from './camera'

/** What the pointer can pick: what is drawn solid, and the lines of it. */
interface Pickable {
  items: readonly Placed[]
  edges: Float32Array
}
let found: Pickable | null = null
let find: () => readonly Placed[] = () => []

/** From now on the pointer picks among these, which are worked out when it first does. */
export function pickAmong(items: () => readonly Placed[]): void {
  found = null
  find = items
}

function pickable(): Pickable {
  if (!found) {
    const items = find()
    let edges: Float32Array | null = null
    found = {
      items,
      get edges() {
        return (edges ??= linesIn(items).edges)
      },
    }
  }
  return found
}

/** The triangles of a body in a tree of boxes: built once for all that stand there with it. */
const trees = new WeakMap<Geometry, MeshBVH>()
function treeOf(geometry: Geometry): MeshBVH {
  let tree = trees.get(geometry)
  if (!tree) {
    const mesh = new BufferGeometry()
    mesh.setAttribute('position', new BufferAttribute(geometry.positions, 3))
    // Told apart from what is drawn: the order of the triangles stays as it is.
    trees.set(geometry, (tree = new MeshBVH(mesh, { indirect: true })))
  }
  return tree
}

/** A ray as a body sees it that stands at a place. */
function rayWithin(ray: Ray, { x, y, z, turn }: MassView['at']): Ray {
  const { c, s } = turnOf(-turn)
  const turned = (v: Vector3, dx: number, dy: number, dz: number) =>
    new Vector3(c * (v.x - dx) - s * (v.y - dy), s * (v.x - dx) + c * (v.y - dy), v.z - dz)
  return new Ray(turned(ray.origin, x, y, z), turned(ray.direction, 0, 0, 0))
}

/** Whether something that is drawn stands between a point (m) and the viewer. */
export function isHidden(view: View, [x, y, z]: Vec3): boolean {
  const { toward } = axesOf(view)
  const direction = new Vector3(...toward)
  const ray = new Ray(new Vector3(x, y, z).addScaledVector(direction, 0.05), direction)
  return pickable().items.some(
    ({ geometry, at }) =>
      geometry.positions.length > 0 && treeOf(geometry).raycastFirst(rayWithin(ray, at), DoubleSide) !== null,
  )
}

/** What lies under a pixel: whose it is, where, and which of its owner's triangles. */
export interface Hit {
  id: string
  point: Vector3
  bit: number
}

/** Everything under a pixel, nearest first, each once; only what the blade and the ground leave. */
export const pickAll = (view: View, size: Vec2, at: Vec2, range: { from: number; to: number }): Hit[] => {
  const hits = hitsAt(view, size, at, range)
  return hits.filter((h, i) => hits.findIndex((o) => o.id === h.id) === i)
}

/** Every triangle under a pixel, nearest first. */
export function hitsAt(view: View, size: Vec2, at: Vec2, range: { from: number; to: number }): Hit[] {
  const { toward } = axesOf(view)
  const direction = new Vector3(-toward[0], -toward[1], -toward[2])
  const ray = new Ray(new Vector3(...facing(view, size, at)).addScaledVector(direction, -FAR), direction)
  return pickable()
    .items.flatMap(({ owner, geometry, at: place }) =>
      geometry.positions.length === 0
        ? []
        : treeOf(geometry)
            .raycast(rayWithin(ray, place), DoubleSide)
            .map(({ distance, faceIndex }) => ({
              id: owner,
              point: ray.at(distance, new Vector3()),
              bit: faceIndex ?? 0,
              far: distance,
            })),
    )
    .filter(({ point: { z } }) => z <= range.to + 1e-3 && z >= range.from - 1e-3)
    .sort((u, v) => u.far - v.far)
}

/** m that a ray begins before what is looked at */
const FAR = 10000

/** The corner of what is drawn that lies nearest to a pixel, within `within` px; of those equally near the one nearest to the viewer. */
export function cornerAt(view: View, size: Vec2, at: Vec2, within: number): Vec3 | null {
  const p = pickable().edges
  const { toward } = axesOf(view)
  let best: { off: number; depth: number; point: Vec3 } | null = null
  for (let i = 0; i < p.length; i += 3) {
    const point: Vec3 = [p[i] ?? 0, p[i + 1] ?? 0, p[i + 2] ?? 0]
    const [x, y] = toPane(view, size, point)
    const off = Math.hypot(x - at[0], y - at[1])
    if (off > within) continue
    const depth = point[0] * toward[0] + point[1] * toward[1] + point[2] * toward[2]
    if (!best || off < best.off - 0.5 || (off < best.off + 0.5 && depth > best.depth)) best = { off, depth, point }
  }
  return best?.point ?? null
}

import { Ray, Vector3 } from 'three'
import type { Vec2, Vec3 } from '@geotome/core/solid'
import type { Batch } from './batches'
import { axesOf, facing, toPane, type View } from './camera'

/** What the pointer can pick: the batch that is drawn. */
export const pickable: { batch: Batch | null } = { batch: null }

/** Whether something that is drawn stands between a point (m) and the viewer. */
export function isHidden(view: View, [x, y, z]: Vec3): boolean {
  const p = pickable.batch?.faces.getAttribute('position').array
  if (!p) return false
  const { toward } = axesOf(view)
  const direction = new Vector3(...toward)
  const ray = new Ray(new Vector3(x, y, z).addScaledVector(direction, 0.05), direction)
  const [a, b, c, hit] = [new Vector3(), new Vector3(), new Vector3(), new Vector3()]
  for (let i = 0; i < p.length; i += 9) {
    a.fromArray(p, i)
    b.fromArray(p, i + 3)
    c.fromArray(p, i + 6)
    if (ray.intersectTriangle(a, b, c, false, hit)) return true
  }
  return false
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
  const batch = pickable.batch
  if (!batch) return []
  const { toward } = axesOf(view)
  const direction = new Vector3(-toward[0], -toward[1], -toward[2])
  const ray = new Ray(new Vector3(...facing(view, size, at)).addScaledVector(direction, -10000), direction)
  const p = batch.faces.getAttribute('position').array
  const [a, b, c, hit] = [new Vector3(), new Vector3(), new Vector3(), new Vector3()]
  const hits: (Hit & { far: number })[] = []
  let first = 0
  for (let t = 0; t < batch.owners.length; t++) {
    const i = t * 9
    if (batch.owners[t] !== batch.owners[first]) first = t
    a.set(p[i] ?? 0, p[i + 1] ?? 0, p[i + 2] ?? 0)
    b.set(p[i + 3] ?? 0, p[i + 4] ?? 0, p[i + 5] ?? 0)
    c.set(p[i + 6] ?? 0, p[i + 7] ?? 0, p[i + 8] ?? 0)
    if (!ray.intersectTriangle(a, b, c, false, hit)) continue
    if (hit.z > range.to + 1e-3 || hit.z < range.from - 1e-3) continue
    hits.push({ id: batch.owners[t] ?? '', point: hit.clone(), bit: t - first, far: hit.distanceTo(ray.origin) })
  }
  return hits.sort((u, v) => u.far - v.far)
}

/** The corner of what is drawn that lies nearest to a pixel, within `within` px; of those equally near the one nearest to the viewer. */
export function cornerAt(view: View, size: Vec2, at: Vec2, within: number): Vec3 | null {
  const p = pickable.batch?.edges
  if (!p) return null
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

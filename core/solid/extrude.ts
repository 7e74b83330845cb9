import { TOLERANCE } from '../values'
import earcut from 'earcut'
import { capOf, withKernel } from './kernel'
import { inside } from './region'
import type { Region } from './rect'
import type { Vec2 } from './place'
import { loopArea, type Vec3 } from './solid'

/** A closed triangle mesh without names: xyz in metres (doubles), three vertex numbers per triangle. */
export interface Mesh {
  positions: Float64Array
  triangles: Uint32Array
}

/** A frame in space: region coordinates (u, v) run along the two axes from the origin, w along their cross product. */
export interface Frame {
  origin: Vec3
  u: Vec3
  v: Vec3
  w: Vec3
}

/** Keeps the side of an upright plane that its normal points to: n . (point - at) >= 0, in plan. */
export interface Trim {
  at: Vec2
  n: Vec2
}

/** A region swept from w = 0 to `depth` in a frame, then trimmed by upright planes. */
export interface Swept {
  region: Region
  depth: number
  frame: Frame
  trims: Trim[]
}

/** The body of one swept region. */
export const sweepRegion = (swept: Swept): Mesh => unitedSweeps([swept])

/** Several of them as one body. */
export function unitedSweeps(all: Swept[]): Mesh {
  return withKernel((kernel, own) => {
    // Near the first one's origin, so that single precision is fine wherever the site lies.
    const [ox, oy, oz] = all[0]?.frame.origin ?? [0, 0, 0]
    const bodies = all.map(({ region, depth, frame: { u, v, w, origin }, trims }) => {
      const sign = depth < 0 ? -1 : 1
      let body = own(own(new kernel.CrossSection(region, 'Positive')).extrude(Math.abs(depth)))
      // A sweep against w mirrors the body; the kernel turns its triangles round by itself.
      body = own(
        body.transform([
          u[0],
          u[1],
          u[2],
          0,
          v[0],
          v[1],
          v[2],
          0,
          w[0] * sign,
          w[1] * sign,
          w[2] * sign,
          0,
          origin[0] - ox,
          origin[1] - oy,
          origin[2] - oz,
          1,
        ]),
      )
      for (const { at, n } of trims)
        body = own(body.trimByPlane([n[0], n[1], 0], n[0] * (at[0] - ox) + n[1] * (at[1] - oy)))
      return body
    })
    const [first] = bodies
    const mesh = (bodies.length > 1 ? own(kernel.Manifold.union(bodies)) : first)?.getMesh()
    const origin = [ox, oy, oz]
    return {
      positions: Float64Array.from(mesh?.vertProperties ?? [], (c, i) => c + (origin[i % 3] as number)),
      triangles: Uint32Array.from(mesh?.triVerts ?? []),
    }
  })
}

/**
 * Triangles over a region in plan, for drawing it: those of a body are `capOf`'s. Corners are numbered through all its loops. Needs no
 * kernel.
 */
export function triangulate(region: Region): number[] {
  const outers = region.map((loop, i) => ({ loop, i })).filter(({ loop }) => loopArea(loop) > 0)
  if (outers.length > 1) return separately(region)
  const order = [...outers, ...region.map((loop, i) => ({ loop, i })).filter(({ loop }) => loopArea(loop) <= 0)]
  const starts = region.map((_, i) => region.slice(0, i).reduce((sum, l) => sum + l.length, 0))
  const flat: number[] = []
  const holes: number[] = []
  const global: number[] = []
  for (const { loop, i } of order) {
    if (flat.length) holes.push(flat.length / 2)
    loop.forEach((p, k) => {
      flat.push(p[0] - (region[0]?.[0]?.[0] ?? 0), p[1] - (region[0]?.[0]?.[1] ?? 0))
      global.push((starts[i] ?? 0) + k)
    })
  }
  const cut = earcut(flat, holes)
  const result: number[] = []
  for (let t = 0; t < cut.length; t += 3) {
    const [a, b, c] = [cut[t] ?? 0, cut[t + 1] ?? 0, cut[t + 2] ?? 0]
    const [ax, ay, bx, by, cx, cy] = [
      flat[a * 2] ?? 0,
      flat[a * 2 + 1] ?? 0,
      flat[b * 2] ?? 0,
      flat[b * 2 + 1] ?? 0,
      flat[c * 2] ?? 0,
      flat[c * 2 + 1] ?? 0,
    ]
    const up = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax) > 0
    result.push(global[a] ?? 0, global[up ? b : c] ?? 0, global[up ? c : b] ?? 0)
  }
  return result
}

/** A body between two sheets over one region in plan: `low` and `high` give the heights (m) at a point. */
export function betweenSheets(region: Region, low: (p: Vec2) => number, high: (p: Vec2) => number): Mesh {
  return stitched(
    region.flat().map((p): Vec3 => [p[0], p[1], low(p)]),
    region.flat().map((p): Vec3 => [p[0], p[1], high(p)]),
    region,
    region,
  )
}

/** A body between two regions of the same corners at two heights (m), straight lines leading from each corner to its own above. */
export const betweenRings = (below: Region, above: Region, z0: number, z1: number): Mesh =>
  stitched(
    below.flat().map((p): Vec3 => [p[0], p[1], z0]),
    above.flat().map((p): Vec3 => [p[0], p[1], z1]),
    below,
    above,
  )

/** A sheet of triangles thickened by moving each of its corners by a vector (m); corners that lie together are one. */
export function thickened(triangles: Vec3[][], by: Vec3): Mesh {
  const number = new Map<string, number>()
  const points: Vec3[] = []
  const at = (p: Vec3) => {
    const key = p.map((c) => Math.round(c * 1e5)).join()
    let n = number.get(key)
    if (n === undefined) {
      number.set(key, (n = points.length))
      points.push(p)
    }
    return n
  }
  const sheet = triangles
    .map((t) => t.map(at) as [number, number, number])
    .filter(([a, b, c]) => a !== b && b !== c && c !== a)
  const n = points.length
  // Moved against the side that the triangles face, the sheet itself is the outer skin.
  const [p0, p1, p2] = triangles[0] as [Vec3, Vec3, Vec3]
  const down =
    [0, 1, 2].reduce((sum, k) => {
      const [i, j] = [(k + 1) % 3, (k + 2) % 3] as [0 | 1 | 2, 0 | 1 | 2]
      return sum + ((p1[i] - p0[i]) * (p2[j] - p0[j]) - (p1[j] - p0[j]) * (p2[i] - p0[i])) * (by[k] ?? 0)
    }, 0) < 0
  const out: number[] = []
  const open = new Map<string, [number, number]>()
  for (const [a, b, c] of sheet) {
    out.push(...(down ? [a, b, c, n + a, n + c, n + b] : [a, c, b, n + a, n + b, n + c]))
    for (const [p, q] of [
      [a, b],
      [b, c],
      [c, a],
    ] as [number, number][])
      if (!open.delete(`${q}/${p}`)) open.set(`${p}/${q}`, [p, q])
  }
  for (const [p, q] of open.values())
    out.push(...(down ? [p, n + q, q, p, n + p, n + q] : [p, q, n + q, p, n + q, n + p]))
  return {
    positions: Float64Array.from(
      [...points, ...points.map((p): Vec3 => [p[0] + by[0], p[1] + by[1], p[2] + by[2]])].flat(),
    ),
    triangles: Uint32Array.from(out),
  }
}

function stitched(low: Vec3[], high: Vec3[], below: Region, above: Region): Mesh {
  const n = low.length
  const positions = Float64Array.from([...low, ...high].flat())
  const triangles: number[] = []
  const [foot, head] = [capOf(below), below === above ? null : capOf(above)]
  for (let t = 0; t < foot.length; t += 3) triangles.push(foot[t] ?? 0, foot[t + 2] ?? 0, foot[t + 1] ?? 0)
  for (const list of [head ?? foot])
    for (let t = 0; t < list.length; t += 3)
      triangles.push(n + (list[t] ?? 0), n + (list[t + 1] ?? 0), n + (list[t + 2] ?? 0))
  let start = 0
  for (const loop of below) {
    loop.forEach((_, k) => {
      const [i, j] = [start + k, start + ((k + 1) % loop.length)]
      // By its shorter diagonal, so that the two skins of a twisted wall bend alike.
      if (gap(low[j], high[i]) < gap(low[i], high[j]) - TOLERANCE.rounding) triangles.push(i, j, n + i, j, n + j, n + i)
      else triangles.push(i, j, n + j, i, n + j, n + i)
    })
    start += loop.length
  }
  return { positions, triangles: Uint32Array.from(triangles) }
}

const gap = (a: Vec3 | undefined, b: Vec3 | undefined) =>
  Math.hypot((a?.[0] ?? 0) - (b?.[0] ?? 0), (a?.[1] ?? 0) - (b?.[1] ?? 0), (a?.[2] ?? 0) - (b?.[2] ?? 0))

function separately(region: Region): number[] {
  const loops = region.map((loop, i) => ({ loop, i, area: loopArea(loop) }))
  const starts = region.map((_, i) => region.slice(0, i).reduce((sum, l) => sum + l.length, 0))
  return loops
    .filter((l) => l.area > 0)
    .flatMap((outer) => {
      const holes = loops.filter((l) => l.area <= 0 && inside(outer.loop, l.loop[0] as Vec2))
      const own = [outer, ...holes]
      const numbers = own.flatMap((l) => l.loop.map((_, k) => (starts[l.i] ?? 0) + k))
      return triangulate(own.map((l) => l.loop)).map((k) => numbers[k] ?? 0)
    })
}

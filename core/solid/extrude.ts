import earcut from 'earcut'
import { withKernel } from './kernel'
import { inside, type Region } from './region'
import { loopArea, type Vec2, type Vec3 } from './solid'

/** A closed triangle mesh without names: xyz in metres (doubles), three vertex numbers per triangle. */
export interface Mesh { positions: Float64Array; triangles: Uint32Array }

/** A frame in space: region coordinates (u, v) run along the two axes from the origin, w along their cross product. */
export interface Frame { origin: Vec3; u: Vec3; v: Vec3; w: Vec3 }

/** Keeps the side of an upright plane that its normal points to: n . (point - at) >= 0, in plan. */
export interface Trim { at: Vec2; n: Vec2 }

/** A region swept from w = 0 to `depth` in a frame, then trimmed by upright planes. */
export function sweepRegion(region: Region, depth: number, frame: Frame, trims: Trim[]): Mesh {
  return withKernel((kernel, own) => {
    const { u, v, w, origin } = frame
    const sign = depth < 0 ? -1 : 1
    let body = own(own(new kernel.CrossSection(region, 'Positive')).extrude(Math.abs(depth)))
    // A sweep against w mirrors the body; the kernel turns its triangles round by itself.
    body = own(body.transform([u[0], u[1], u[2], 0, v[0], v[1], v[2], 0, w[0] * sign, w[1] * sign, w[2] * sign, 0, 0, 0, 0, 1]))
    for (const { at, n } of trims) body = own(body.trimByPlane([n[0], n[1], 0], n[0] * (at[0] - origin[0]) + n[1] * (at[1] - origin[1])))
    const mesh = body.getMesh()
    const positions = Float64Array.from(mesh.vertProperties, (c, i) => c + (origin[i % 3] as number))
    return { positions, triangles: Uint32Array.from(mesh.triVerts) }
  })
}

/** Triangles over a region in plan, for drawing it; corners are numbered through all its loops. Needs no kernel. */
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
    loop.forEach((p, k) => { flat.push(p[0] - (region[0]?.[0]?.[0] ?? 0), p[1] - (region[0]?.[0]?.[1] ?? 0)); global.push((starts[i] ?? 0) + k) })
  }
  const cut = earcut(flat, holes)
  const result: number[] = []
  for (let t = 0; t < cut.length; t += 3) {
    const [a, b, c] = [cut[t] ?? 0, cut[t + 1] ?? 0, cut[t + 2] ?? 0]
    const [ax, ay, bx, by, cx, cy] = [flat[a * 2] ?? 0, flat[a * 2 + 1] ?? 0, flat[b * 2] ?? 0, flat[b * 2 + 1] ?? 0, flat[c * 2] ?? 0, flat[c * 2 + 1] ?? 0]
    const up = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax) > 0
    result.push(global[a] ?? 0, global[up ? b : c] ?? 0, global[up ? c : b] ?? 0)
  }
  return result
}

/** A body between two sheets over one region in plan: `low` and `high` give the heights (m) at a point. */
export function betweenSheets(region: Region, low: (p: Vec2) => number, high: (p: Vec2) => number): Mesh {
  const points = region.flat()
  const n = points.length
  const positions = new Float64Array(n * 6)
  points.forEach((p, i) => { positions.set([p[0], p[1], low(p)], i * 3); positions.set([p[0], p[1], high(p)], (n + i) * 3) })
  const triangles: number[] = []
  // The kernel's triangles cover exactly what the region encloses, however thin its corners; those for drawing may not.
  const caps = withKernel((kernel) => kernel.triangulate(region)).flat()
  for (let t = 0; t < caps.length; t += 3) {
    const [a, b, c] = [caps[t] ?? 0, caps[t + 1] ?? 0, caps[t + 2] ?? 0]
    triangles.push(a, c, b, n + a, n + b, n + c)
  }
  let start = 0
  for (const loop of region) {
    loop.forEach((_, k) => {
      const [i, j] = [start + k, start + ((k + 1) % loop.length)]
      triangles.push(i, j, n + j, i, n + j, n + i)
    })
    start += loop.length
  }
  return { positions, triangles: Uint32Array.from(triangles) }
}

function separately(region: Region): number[] {
  const loops = region.map((loop, i) => ({ loop, i, area: loopArea(loop) }))
  const starts = region.map((_, i) => region.slice(0, i).reduce((sum, l) => sum + l.length, 0))
  return loops.filter((l) => l.area > 0).flatMap((outer) => {
    const holes = loops.filter((l) => l.area <= 0 && inside(outer.loop, l.loop[0] as Vec2))
    const own = [outer, ...holes]
    const numbers = own.flatMap((l) => l.loop.map((_, k) => (starts[l.i] ?? 0) + k))
    return triangulate(own.map((l) => l.loop)).map((k) => numbers[k] ?? 0)
  })
}


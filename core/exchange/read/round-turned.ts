import { cornerAt, crossOf, dotOf, lessOf, TOLERANCE, type Vec3 } from '../../solid'

/** Facets of a full turn at least, and degrees that neighbours along its profile turn at most to be those of a curve. */
const LEAST_SIDES = 30
const SMOOTH = 12
/** how far neighbours of one curve differ in width */
const ALIKE = 2

/** Corners that lie on one circle about an axis: from its middle, along the axis, and the corners with their angles. */
interface Ring {
  r: number
  z: number
  vertices: number[]
}

/** An axis with its corners as rings of so many, evenly spaced and in line with one another. */
interface Turned {
  at: Vec3
  axis: Vec3
  u: Vec3
  w: Vec3
  rings: Ring[]
  sides: number
}

/**
 * A body that was turned all round about an axis and read as facets: its rings are set outwards so that each regular polygon has the area
 * of its circle, and the corners of a curved profile along it too (by turn * width / 12, as in roundedOut). Cones, balls, rings of any
 * profile keep their volume. Null where it is no such body.
 */
export function roundedTurned(corners: readonly number[], triangles: readonly number[]): number[] | null {
  const used = [...new Set(triangles)]
  const turned = axesFor(corners, triangles, used)
    .map((axis) => turnedAbout(corners, used, axis))
    .find((found) => found !== null)
  if (!turned) return null
  const step = (2 * Math.PI) / turned.sides
  const factor = Math.sqrt(step / Math.sin(step))
  const profile = profileOf(corners, triangles, turned)
  const out = [...corners]
  turned.rings.forEach((ring, i) => {
    const [dr, dz] = profile[i] ?? [0, 0]
    const [r, z] = [(ring.r + dr) * (ring.r > 0 ? factor : 0), ring.z + dz]
    for (const v of ring.vertices) {
      const [x, y] = ring.r > 0 ? wayOf(corners, v, turned) : [0, 0]
      for (let k = 0; k < 3; k++)
        out[v * 3 + k] =
          (turned.at[k] ?? 0) + z * (turned.axis[k] ?? 0) + r * (x * (turned.u[k] ?? 0) + y * (turned.w[k] ?? 0))
    }
  })
  return out
}

/** The unit vector in which a corner lies from the axis, in the axis' own plane. */
function wayOf(corners: readonly number[], v: number, { at, u, w }: Turned): [number, number] {
  const d = lessOf(cornerAt(corners, v), at)
  const [x, y] = [dotOf(d, u), dotOf(d, w)]
  const r = Math.hypot(x, y)
  return [x / r, y / r]
}

/** Directions that the axis may have: those of the body's extent, and, for a ball, the way to the corner in which most facets meet. */
function axesFor(corners: readonly number[], triangles: readonly number[], used: readonly number[]): Vec3[] {
  const middle = middleOf(corners, used)
  const spread: number[][] = [0, 1, 2].map(() => [0, 0, 0])
  for (const v of used) {
    const d = lessOf(cornerAt(corners, v), middle)
    for (let i = 0; i < 3; i++)
      for (let k = 0; k < 3; k++) (spread[i] as number[])[k] = (spread[i]?.[k] ?? 0) + (d[i] ?? 0) * (d[k] ?? 0)
  }
  const count = new Map<number, number>()
  for (const v of triangles) count.set(v, (count.get(v) ?? 0) + 1)
  const pole = used.reduce((most, v) => ((count.get(v) ?? 0) > (count.get(most) ?? 0) ? v : most), used[0] ?? 0)
  const toPole = lessOf(cornerAt(corners, pole), middle)
  return [...principal(spread), ...(Math.hypot(...toPole) > TOLERANCE.touch ? [unit(toPole)] : [])]
}

/** The eigenvectors of a symmetric matrix, by Jacobi's rotations. */
function principal(m: number[][]): Vec3[] {
  const a = m.map((row) => [...row])
  const e: number[][] = [0, 1, 2].map((i) => [0, 1, 2].map((k) => (i === k ? 1 : 0)))
  const get = (of: number[][], i: number, k: number) => of[i]?.[k] ?? 0
  for (let sweep = 0; sweep < 30; sweep++)
    for (const [p, q] of [
      [0, 1],
      [0, 2],
      [1, 2],
    ] as const) {
      // prettier-ignore
      if (get(a, p, q) === 0) continue
      const angle = Math.atan2(2 * get(a, p, q), get(a, q, q) - get(a, p, p)) / 2
      const [c, s] = [Math.cos(angle), Math.sin(angle)]
      for (let k = 0; k < 3; k++) {
        const [x, y] = [get(a, k, p), get(a, k, q)]
        ;(a[k] as number[])[p] = c * x - s * y
        ;(a[k] as number[])[q] = s * x + c * y
        const [f, g] = [get(e, k, p), get(e, k, q)]
        ;(e[k] as number[])[p] = c * f - s * g
        ;(e[k] as number[])[q] = s * f + c * g
      }
      for (let k = 0; k < 3; k++) {
        const [x, y] = [get(a, p, k), get(a, q, k)]
        ;(a[p] as number[])[k] = c * x - s * y
        ;(a[q] as number[])[k] = s * x + c * y
      }
    }
  return [0, 1, 2].map((k) => unit([get(e, 0, k), get(e, 1, k), get(e, 2, k)]))
}

/** The corners as rings about an axis through their middle; null unless all rings have one number of corners, evenly spaced and in line. */
function turnedAbout(corners: readonly number[], used: readonly number[], axis: Vec3): Turned | null {
  const at = middleOf(corners, used)
  const u = unit(crossOf(axis, Math.abs(axis[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0]))
  const w = crossOf(axis, u)
  const places = used.map((v) => {
    const d = lessOf(cornerAt(corners, v), at)
    const [x, y] = [dotOf(d, u), dotOf(d, w)]
    const r = Math.hypot(x, y)
    return { v, z: dotOf(d, axis), r: r < NEAR ? 0 : r, angle: Math.atan2(y, x) }
  })
  const rings: (Ring & { angles: number[] })[] = []
  for (const p of places.sort((a, b) => a.z - b.z)) {
    let near = rings.length - 1
    while (near >= 0 && Math.abs((rings[near]?.r ?? 0) - p.r) >= NEAR && p.z - (rings[near]?.z ?? 0) < NEAR) near--
    const ring = p.z - (rings[near]?.z ?? -Infinity) < NEAR ? rings[near] : undefined
    if (ring) {
      ring.vertices.push(p.v)
      ring.angles.push(p.angle)
    } else rings.push({ r: p.r, z: p.z, vertices: [p.v], angles: [p.angle] })
    if (rings.length > MOST_RINGS) return null
  }
  const round = rings.filter((g) => g.r > 0)
  const sides = round[0]?.vertices.length ?? 0
  if (sides < LEAST_SIDES || round.some((g) => g.vertices.length !== sides)) return null
  const step = (2 * Math.PI) / sides
  const first = round[0]?.angles[0] ?? 0
  const isEven = round.every((g) => {
    const steps = g.angles.map((a) => (a - first) / step)
    const whole = new Set(steps.map((s) => ((Math.round(s) % sides) + sides) % sides))
    return whole.size === sides && steps.every((s) => Math.abs(s - Math.round(s)) * step * g.r < NEAR)
  })
  return isEven ? { at, axis, u, w, rings, sides } : null
}

/** m: corners of one ring lie so near to it; rings of one body at most */
const NEAR = TOLERANCE.touch
const MOST_RINGS = 2000

/** For each ring how far its place in the profile moves (from the axis, along it), where the profile is a curve there. */
function profileOf(
  corners: readonly number[],
  triangles: readonly number[],
  { rings, u, w, at }: Turned,
): [number, number][] {
  const ringOf = new Map(rings.flatMap((g, i) => g.vertices.map((v) => [v, i] as const)))
  const beside = rings.map(() => new Set<number>())
  const angle = (v: number) => {
    const d = lessOf(cornerAt(corners, v), at)
    return Math.atan2(dotOf(d, w), dotOf(d, u))
  }
  const step = (2 * Math.PI) / Math.max(...rings.map((g) => g.vertices.length))
  for (let i = 0; i < triangles.length; i++) {
    const [p, q] = [triangles[i] ?? 0, triangles[i % 3 === 2 ? i - 2 : i + 1] ?? 0]
    const [a, b] = [ringOf.get(p) ?? 0, ringOf.get(q) ?? 0]
    if (a === b) continue
    const turned = Math.abs(((angle(p) - angle(q) + 3 * Math.PI) % (2 * Math.PI)) - Math.PI)
    // Across a facet, and not along the profile.
    if (rings[a]?.r !== 0 && rings[b]?.r !== 0 && turned > step / 4) continue
    beside[a]?.add(b)
    beside[b]?.add(a)
  }
  const place = (i: number): [number, number] => [rings[i]?.r ?? 0, rings[i]?.z ?? 0]
  const smooth = rings.map((ring, i): { turn: number; width: number; way: [number, number] } | null => {
    const near = [...(beside[i] ?? [])]
    const [p] = [place(i)]
    const a = near[0] === undefined ? null : place(near[0])
    // On the axis the profile goes on as its own image.
    const b = ring.r === 0 ? a && ([-a[0], a[1]] as [number, number]) : near[1] === undefined ? null : place(near[1])
    if (!a || !b || near.length !== (ring.r === 0 ? 1 : 2)) return null
    const [x, y] = [[p[0] - a[0], p[1] - a[1]] as const, [b[0] - p[0], b[1] - p[1]] as const]
    const [wide, next] = [Math.hypot(...x), Math.hypot(...y)]
    const turn = Math.acos(Math.min(1, Math.max(-1, (x[0] * y[0] + x[1] * y[1]) / (wide * next))))
    if (turn < TOLERANCE.slope || turn > (SMOOTH * Math.PI) / 180 || wide > next * ALIKE || next > wide * ALIKE)
      return null
    const out: [number, number] = [p[0] - (a[0] + b[0]) / 2, p[1] - (a[1] + b[1]) / 2]
    const far = Math.hypot(...out) || 1
    return { turn, width: (wide + next) / 2, way: [out[0] / far, out[1] / far] }
  })
  return smooth.map((s, i) => {
    if (!s) return [0, 0]
    const by = (s.turn * s.width * shareOf(i, smooth, beside)) / 12
    return [s.way[0] * by, s.way[1] * by]
  })
}

/** The end corners of a curve stay; the corners between them move farther out to make up for it. */
function shareOf(i: number, smooth: readonly unknown[], beside: readonly Set<number>[]): number {
  const run = new Set([i])
  const ends = new Set<number>()
  for (const k of run)
    for (const next of beside[k] ?? []) {
      if (smooth[next]) run.add(next)
      else ends.add(next)
    }
  return ends.size === 0 ? 1 : (run.size + ends.size / 2) / run.size
}

const middleOf = (corners: readonly number[], used: readonly number[]): Vec3 =>
  [0, 1, 2].map((k) => used.reduce((sum, v) => sum + (corners[v * 3 + k] ?? 0), 0) / used.length) as Vec3

function unit(v: Vec3): Vec3 {
  const length = Math.hypot(...v) || 1
  return [v[0] / length, v[1] / length, v[2] / length]
}

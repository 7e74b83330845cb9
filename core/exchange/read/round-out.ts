import { cornerAt, crossOf, dotOf, lessOf, planeThrough, TOLERANCE, type Vec3 } from '../../solid'

/** Degrees that neighbouring facets of one curve turn at most. */
const SMOOTH = 12
/** Facets that a curve has at least, and how far neighbours of it may differ in width and turn. */
const LEAST_FACETS = 4
const ALIKE = 2
/** Edges over which a body turns by little that are no run: from so many on they are those of a curve. */
const LEAST_SEAMS = 8

/** Where two flat faces meet in a straight edge. */
interface Seam {
  faces: [number, number]
  vertices: Set<number>
  along: Vec3
  /** radians between the two faces, and 1 where the edge is convex, -1 where it is hollow */
  turn: number
  sign: 1 | -1
}

/**
 * Facets that stand in for a curve have their corners on it, so that they enclose too little (or, in a hole, too much). Moves the edges of
 * such runs of facets away from their centre, until area and volume are those of the curve: by turn * width / 12, which for a circle is what
 * `arcPoints` does (the area between a parabola and its chord is two thirds of its height times the chord). The ends of a run stay.
 * `faces`: triangles of each flat face. Gives the corners, and how many runs could not be moved, since other sloping faces meet them.
 */
export function roundedOut(
  corners: readonly number[],
  faces: readonly number[][],
): { corners: number[]; left: number } {
  const out = [...corners]
  const normals = faces.map(
    (t) => planeThrough(...([0, 1, 2].map((k) => cornerAt(corners, t[k] ?? 0)) as [Vec3, Vec3, Vec3])).n,
  )
  const facesAt = facesByVertex(faces)
  const seams = smoothSeams(corners, faces, normals)
  const runs = runsOf(seams, corners, faces, normals)
  // The edges of a cone or a ball are not parallel: they make no run.
  let left = seams.length - runs.reduce((sum, r) => sum + r.seams.length, 0) >= LEAST_SEAMS ? 1 : 0
  for (const run of runs) {
    const along = run.seams[0]?.along ?? [0, 0, 1]
    const own = new Set(run.seams.flatMap((s) => s.faces))
    const isFree = run.seams.every((s) =>
      [...s.vertices].every((v) =>
        [...(facesAt.get(v) ?? [])].every(
          (f) => own.has(f) || Math.abs(dotOf(normals[f] ?? along, along)) > 1 - TOLERANCE.slope,
        ),
      ),
    )
    if (!isFree) {
      left++
      continue
    }
    const count = run.seams.length + 1
    const factor = run.isClosed ? 1 : count / (count - 1)
    run.seams.forEach((seam, i) => {
      const [a, b] = seam.faces.map((f) => normals[f] ?? along) as [Vec3, Vec3]
      const middle: Vec3 = [a[0] + b[0], a[1] + b[1], a[2] + b[2]]
      const by = (seam.sign * factor * seam.turn * (run.widths[i] ?? 0)) / 12 / Math.hypot(...middle)
      for (const v of seam.vertices)
        for (let k = 0; k < 3; k++) out[v * 3 + k] = (corners[v * 3 + k] ?? 0) + by * (middle[k] ?? 0)
    })
  }
  return { corners: out, left }
}

function facesByVertex(faces: readonly number[][]): Map<number, Set<number>> {
  const out = new Map<number, Set<number>>()
  faces.forEach((triangles, f) => {
    for (const v of triangles) {
      const known = out.get(v)
      if (known) known.add(f)
      else out.set(v, new Set([f]))
    }
  })
  return out
}

/** The straight edges over which two faces turn by little. */
function smoothSeams(corners: readonly number[], faces: readonly number[][], normals: readonly Vec3[]): Seam[] {
  const faceOf = new Map<string, number>()
  faces.forEach((t, f) => {
    for (let i = 0; i < t.length; i++) faceOf.set(`${t[i]}/${t[i % 3 === 2 ? i - 2 : i + 1]}`, f)
  })
  const seams = new Map<string, Seam | null>()
  for (const [edge, a] of faceOf) {
    const [p = 0, q = 0] = edge.split('/').map(Number)
    const b = faceOf.get(`${q}/${p}`)
    if (b === undefined || b <= a) continue
    const turn = Math.acos(Math.min(1, Math.max(-1, dotOf(normals[a] ?? [0, 0, 1], normals[b] ?? [0, 0, 1]))))
    if (turn > (SMOOTH * Math.PI) / 180) continue
    const [from, to] = [cornerAt(corners, p), cornerAt(corners, q)]
    const along = unit(lessOf(to, from))
    const known = seams.get(`${a}/${b}`)
    if (known === null) continue
    if (known && Math.abs(dotOf(known.along, along)) < 1 - TOLERANCE.slope) seams.set(`${a}/${b}`, null)
    else if (known) known.vertices.add(p).add(q)
    else {
      // From the edge into the second face: below the first one's plane where the edge is convex.
      const inward = crossOf(normals[b] ?? along, lessOf(from, to))
      const sign = dotOf(normals[a] ?? along, inward) < 0 ? 1 : -1
      seams.set(`${a}/${b}`, { faces: [a, b], vertices: new Set([p, q]), along, turn, sign })
    }
  }
  return [...seams.values()].filter((s): s is Seam => s !== null)
}

interface Run {
  seams: Seam[]
  /** m, the mean width of the two faces at each seam */
  widths: number[]
  isClosed: boolean
}

/** Seams one after another across facets of about one width and one turn. */
function runsOf(
  seams: Seam[],
  corners: readonly number[],
  faces: readonly number[][],
  normals: readonly Vec3[],
): Run[] {
  const across = (f: number, along: Vec3): number => {
    const way = crossOf(along, normals[f] ?? [0, 0, 1])
    const places = (faces[f] ?? []).map((v) => dotOf(cornerAt(corners, v), way))
    return Math.max(...places) - Math.min(...places)
  }
  const isLike = (a: number, b: number) => a < b * ALIKE && b < a * ALIKE
  const widthOf = new Map<Seam, number>()
  const at = new Map<number, Seam[]>()
  for (const seam of seams) {
    const [a, b] = seam.faces.map((f) => across(f, seam.along)) as [number, number]
    if (!isLike(a, b)) continue
    widthOf.set(seam, (a + b) / 2)
    for (const f of seam.faces) at.set(f, [...(at.get(f) ?? []), seam])
  }
  const nextOf = (seam: Seam, face: number): Seam | null => {
    const others = (at.get(face) ?? []).filter(
      (s) =>
        s !== seam &&
        s.sign === seam.sign &&
        isLike(s.turn, seam.turn) &&
        Math.abs(dotOf(s.along, seam.along)) > 1 - TOLERANCE.slope,
    )
    return others.length === 1 ? (others[0] ?? null) : null
  }
  const seen = new Set<Seam>()
  const out: Run[] = []
  for (const seed of widthOf.keys()) {
    if (seen.has(seed)) continue
    seen.add(seed)
    const run = [seed]
    let isClosed = false
    for (const side of [1, 0] as const) {
      let [seam, face] = [seed, seed.faces[side]]
      for (;;) {
        const next = nextOf(seam, face)
        if (!next) break
        if (seen.has(next)) {
          isClosed = next === (side === 1 ? run[0] : run.at(-1)) && run.length > 2
          break
        }
        seen.add(next)
        if (side === 1) run.push(next)
        else run.unshift(next)
        face = next.faces[0] === face ? next.faces[1] : next.faces[0]
        seam = next
      }
      if (isClosed) break
    }
    if (run.length + 1 >= LEAST_FACETS) out.push({ seams: run, widths: run.map((s) => widthOf.get(s) ?? 0), isClosed })
  }
  return out
}

function unit(v: Vec3): Vec3 {
  const length = Math.hypot(...v) || 1
  return [v[0] / length, v[1] / length, v[2] / length]
}

import type { MassForm } from '../form'
import {
  arcPoints,
  crossOf,
  dotOf,
  lessOf,
  offSegment,
  type Arc,
  type CutLoop,
  type Vec2,
  type Vec3,
  rawName,
  goesRound,
  TOLERANCE,
  gapOf,
} from '../solid'
import { alongArc, exact, girthOf, type FacePrint, type Ties, type WorldFace } from './print'
import type { FabricContext } from './context'

/** A stretch of a floor's outline that one face of the mass was cut along, m; `arc` where it is round. */
export interface Run {
  points: Vec2[]
  arc: Arc | null
  key: string
}

/** How a bent face is taken in one storey: by an upright wall over its foot, or by flat facets from foot to head. `off` m at most. */
export interface StoreyFace {
  face: WorldFace
  rows: [Vec3[], Vec3[]] | null
  off: number
  /** m that a corner of a facet lies off the plane of its three others, at most; null for an upright wall */
  warp: number | null
  key: string
}

/** The runs of a face at a height (m), in the sense of the floor's outline; `key` names each by the faces at its ends. */
export function runsAt(context: FabricContext, form: MassForm, face: string, z: number): Run[] {
  const plate = context.plateAt(form, Math.min(z, form.top - TOLERANCE.touch))
  return (plate?.loops ?? []).flatMap((outline) => runsOf(outline, face))
}

function runsOf(outline: CutLoop, face: string): Run[] {
  const n = outline.points.length
  const on = (i: number) => outline.faces[(i + n) % n] === face
  const first = outline.points.findIndex((_, i) => on(i) && !on(i - 1))
  if (first < 0)
    return on(0)
      ? [
          {
            points: fromStart(outline.points, outline.arcs[0] ?? null),
            arc: outline.arcs[0] ?? null,
            key: `${face}>${face}`,
          },
        ]
      : []
  const runs: Run[] = []
  for (let k = 0; k < n; k++) {
    const i = (first + k) % n
    if (!on(i)) continue
    const points = [outline.points[i] as Vec2]
    const arc = outline.arcs[i] ?? null
    let j = i
    for (; on(j) && points.length <= n; j = (j + 1) % n, k++) points.push(outline.points[(j + 1) % n] as Vec2)
    runs.push({ points, arc: arc && part(arc, points), key: `${outline.faces[(i + n - 1) % n]}>${outline.faces[j]}` })
  }
  return runs
}

/** The points of a run below and above that belong together: of arcs facet by facet, of straight edges their ends. */
function paired(run: Run, head: Run, closed: boolean): [Vec2[], Vec2[]] {
  if (run.arc && head.arc) {
    const row = (arc: Arc) => {
      const points = arcPoints({ ...arc, n: run.arc?.n ?? arc.n })
      return closed ? [...points, points[0] as Vec2] : points
    }
    return [row(run.arc), row(head.arc)]
  }
  const ends = (r: Run): Vec2[] => [r.points[0] as Vec2, r.points.at(-1) as Vec2]
  return head.points.length === run.points.length ? [run.points, head.points] : [ends(run), ends(head)]
}

/** The points of a whole circle from where its arc begins, so that those of one height correspond to those of another. */
function fromStart(points: Vec2[], arc: Arc | null): Vec2[] {
  if (!arc) return points
  const [x, y] = [arc.x + arc.r * Math.cos(arc.from), arc.y + arc.r * Math.sin(arc.from)]
  const gaps = points.map((p) => Math.hypot(p[0] - x, p[1] - y))
  const first = gaps.indexOf(Math.min(...gaps))
  return [...points.slice(first), ...points.slice(0, first)]
}

/** The part of an arc between the first and the last point of a run. */
function part(arc: Arc, points: Vec2[]): Arc {
  const [a, b] = [
    alongArc(arc, points[0] as Vec2, girthOf(arc) / 2),
    alongArc(arc, points.at(-1) as Vec2, girthOf(arc) / 2),
  ]
  const [from, to] = [a / arc.r, b / arc.r].map((t) => t * Math.sign(arc.sweep)) as [number, number]
  return { ...arc, from: arc.from + from, sweep: to - from, n: points.length - 1 }
}

/** A bent face in a storey from z0 to z1 (m); several where the floor's outline meets the face more than once. */
export function storeyFaces(
  context: FabricContext,
  form: MassForm,
  face: WorldFace,
  z0: number,
  z1: number,
  follow: 'upright' | 'facets',
): StoreyFace[] {
  const lowest = Math.min(...face.flats.flat().map((p) => p[2]))
  const highest = Math.max(...face.flats.flat().map((p) => p[2]))
  const [low, high] = [Math.max(z0, lowest), Math.min(z1, highest)]
  if (high - low < TOLERANCE.least) return []
  const name = rawName(face.name)
  const heads = runsAt(context, form, name, high)
  const middles = runsAt(context, form, name, (low + high) / 2)
  return runsAt(context, form, name, low).flatMap((run): StoreyFace[] => {
    const closed = run.points[0] !== undefined && goesRound(run.key, name)
    const points = closed ? [...run.points, run.points[0] as Vec2] : run.points
    const head = heads.find((h) => h.key === run.key) ?? heads[0]
    const middle = middles.find((h) => h.key === run.key) ?? middles[0]
    if (points.length < 2) return []
    if (follow === 'facets') {
      if (!head || !middle) return []
      const [foot, top] = paired(run, head, closed)
      const rows: [Vec3[], Vec3[]] = [foot.map(([x, y]): Vec3 => [x, y, low]), top.map(([x, y]): Vec3 => [x, y, high])]
      const half = foot.map((p, i): Vec2 => {
        const q = top[i] as Vec2
        return [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2]
      })
      return [
        {
          face: uprightFace(name, foot, run.arc, low, high),
          rows,
          off: Math.max(
            ...middle.points.map((p) => offLine(p, half)),
            ...half.map((p) => offLine(p, closed ? [...middle.points, middle.points[0] as Vec2] : middle.points)),
          ),
          warp: warpOf(rows),
          key: run.key,
        },
      ]
    }
    const upright = uprightFace(name, points, run.arc, low, high)
    const arc = run.arc
    const far = (p: Vec2) =>
      arc
        ? Math.abs(Math.hypot(p[0] - arc.x, p[1] - arc.y) - arc.r)
        : Math.abs(upright.plane.n[0] * p[0] + upright.plane.n[1] * p[1] - upright.plane.d)
    return [
      {
        face: upright,
        rows: null,
        off: Math.max(0, ...[head, middle].flatMap((r) => r?.points.map(far) ?? [])),
        warp: null,
        key: run.key,
      },
    ]
  })
}

/** m: how far a corner of a facet lies off the plane of its three others, the most of all. */
function warpOf([foot, top]: [Vec3[], Vec3[]]): number {
  const off = (p: Vec3, a: Vec3, b: Vec3, c: Vec3) => {
    const n = crossOf(lessOf(b, a), lessOf(c, a))
    return Math.abs(dotOf(n, lessOf(p, a))) / (Math.hypot(...n) || 1)
  }
  return foot.slice(1).reduce((most, b, i) => {
    const [a, c, d] = [foot[i] as Vec3, top[i + 1] as Vec3, top[i] as Vec3]
    return Math.max(most, off(a, b, c, d), off(b, a, c, d), off(c, a, b, d), off(d, a, b, c))
  }, 0)
}

/** An upright face over a run, from one height to another. */
function uprightFace(name: string, points: Vec2[], arc: Arc | null, z0: number, z1: number): WorldFace {
  const [a, b] = [points[0] as Vec2, points.at(-1) as Vec2]
  const ring = arc ? points : [a, b]
  const loop: Vec3[] = [
    ...ring.map(([x, y]): Vec3 => [x, y, z0]),
    ...[...ring].reverse().map(([x, y]): Vec3 => [x, y, z1]),
  ]
  const length = gapOf(b, a)
  const n: Vec3 = length > TOLERANCE.rounding ? [(b[1] - a[1]) / length, (a[0] - b[0]) / length, 0] : [1, 0, 0]
  return {
    name,
    plane: { n, d: n[0] * a[0] + n[1] * a[1] },
    loops: [loop],
    beyond: [loop.map(() => '')],
    round: arc,
    bent: false,
    flats: [],
  }
}

/** What a part remembers of a bent face in its storey: foot and head hang on the levels that it stands on and reaches. */
export function storeyPrint(
  found: StoreyFace,
  ties: Ties,
  base: { level: string; height: number },
  top: { level: string; height: number } | null,
): FacePrint {
  const corner = ([x, y, z]: Vec3): number[] =>
    top && Math.abs(z - top.height) < TOLERANCE.height
      ? [exact(x), exact(y), exact(z - top.height), 1]
      : [exact(x), exact(y), exact(z - base.height)]
  const { face, rows } = found
  const r = face.round
  return {
    kind: 'face',
    zFrom: base.level,
    zTo: top?.level ?? null,
    normal: face.plane.n,
    distance: exact(face.plane.d),
    form: ties.form,
    loops: face.loops.map((l) => l.map(corner)),
    edges: face.beyond,
    round: r && [exact(r.x), exact(r.y), exact(r.r), exact(r.from), exact(r.sweep), r.n],
    rows: rows && [rows[0].map(corner), rows[1].map(corner)],
  }
}

const offLine = (p: Vec2, line: Vec2[]): number =>
  Math.min(...line.slice(1).map((b, i) => offSegment(p, line[i] as Vec2, b)))

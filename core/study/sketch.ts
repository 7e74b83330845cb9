import { placePoint, rectOf, rectsMeet, type Rect, type Vec2, type Vec3, TOLERANCE } from '../solid'
import { givesFloor } from './special'
import type { Study } from './types'

type Tone = 'ground' | 'up' | 'lit' | 'shade'

/**
 * A small picture of a scheme, from the south-east and above: flat shapes in the order in which they are drawn, in a box of `SKETCH`.
 * Tones, not colours, so that it can be drawn in any theme.
 */
export interface Sketch {
  /** `loops` are outlines as x, y, x, y ...: the first is filled, the others are holes; `soft`: a facet of a curve, without ink */
  shapes: { tone: Tone; loops: number[][]; soft: boolean }[]
}
export const SKETCH = { width: 200, height: 132 } as const

/** degrees: where one looks from, and how far down */
const [AZIMUTH, ELEVATION] = [-38, 31]
/** What has more faces than can be told apart at that size is drawn by the boxes of its masses. */
const MOST_FACES = 3000

const [a, e] = [(AZIMUTH * Math.PI) / 180, (ELEVATION * Math.PI) / 180]
const RIGHT: Vec3 = [-Math.sin(a), Math.cos(a), 0]
const UP: Vec3 = [-Math.sin(e) * Math.cos(a), -Math.sin(e) * Math.sin(a), Math.cos(e)]
const TOWARD: Vec3 = [Math.cos(e) * Math.cos(a), Math.cos(e) * Math.sin(a), Math.sin(e)]
const dot = (u: Vec3, v: Vec3) => u[0] * v[0] + u[1] * v[1] + u[2] * v[2]

/** A face on its way into the picture: where it is seen, and its plane and corners in space. */
interface Seen {
  tone: Tone
  soft: boolean
  loops: Vec2[][]
  corners: Vec3[]
  n: Vec3
  d: number
  /** m towards the viewer, of its middle */
  depth: number
  rect: Rect
}

/** The small picture of what is studied. */
export function sketchOf(study: Study): Sketch {
  const seen: Seen[] = []
  const put = (loops: Vec3[][], n: Vec3, soft = false) => {
    const corners = loops.flat()
    const first = corners[0]
    if (!first || dot(n, TOWARD) <= TOLERANCE.slope) return
    const flat = loops.map((loop) => loop.map((p): Vec2 => [dot(RIGHT, p), dot(UP, p)]))
    const depth = corners.reduce((sum, p) => sum + dot(TOWARD, p) / corners.length, 0)
    seen.push({ tone: toneOf(n), soft, loops: flat, corners, n, d: dot(n, first), depth, rect: rectOf(flat) })
  }
  const forms = study.forms.filter((f) => !study.scheme.masses[f.id]?.context && givesFloor(study.scheme, f))
  const isCoarse = forms.reduce((count, f) => count + f.body.flats().length, 0) > MOST_FACES
  for (const { at, rect, base, top, body } of forms) {
    if (isCoarse) {
      const { x0, y0, x1, y1 } = rect
      const up = ([x, y]: Vec2, z: number): Vec3 => [x, y, z]
      const side = (p: Vec2, q: Vec2) => [[up(p, base), up(q, base), up(q, top), up(p, top)]]
      const [sw, se, ne, nw]: [Vec2, Vec2, Vec2, Vec2] = [
        [x0, y0],
        [x1, y0],
        [x1, y1],
        [x0, y1],
      ]
      put(side(sw, se), [0, -1, 0])
      put(side(se, ne), [1, 0, 0])
      put([[up(sw, top), up(se, top), up(ne, top), up(nw, top)]], [0, 0, 1])
      continue
    }
    const turned = { x: 0, y: 0, z: 0, turn: at.turn }
    for (const face of body.flats()) {
      const [nx, ny] = placePoint([face.plane.n[0], face.plane.n[1]], turned)
      const loops = face.loops.map((l) => l.points.map((p): Vec3 => [...placePoint([p[0], p[1]], at), p[2] + at.z]))
      put(loops, [nx, ny, face.plane.n[2]], face.surface !== null)
    }
  }
  const ground = (study.ground.site?.ring ?? []).map(([x, y]): Vec2 => {
    const p: Vec3 = [x, y, 0]
    return [dot(RIGHT, p), dot(UP, p)]
  })
  return fitted([
    ...(ground.length ? [{ tone: 'ground' as const, soft: false, loops: [ground] }] : []),
    ...fromBehind(seen),
  ])
}

const toneOf = (n: Vec3): Tone => (n[2] > 0.5 ? 'up' : dot(n, [Math.cos(-1), Math.sin(-1), 0]) > 0.7 ? 'lit' : 'shade')

/**
 * What is behind comes first: of two that overlap in the picture the one that lies wholly behind the other's plane. Where they go round in
 * a circle, the one whose middle is farthest.
 */
function fromBehind(seen: Seen[]): Seen[] {
  const after = seen.map((): number[] => [])
  const waits = seen.map(() => 0)
  const eps = TOLERANCE.touch
  const isBehind = (s: Seen, t: Seen) => s.corners.every((p) => dot(t.n, p) <= t.d + eps)
  seen.forEach((s, i) => {
    for (let j = i + 1; j < seen.length; j++) {
      const t = seen[j] as Seen
      if (!rectsMeet(s.rect, t.rect, -eps)) continue
      const [sBehind, tBehind] = [isBehind(s, t), isBehind(t, s)]
      if (sBehind === tBehind) continue
      const [first, last] = sBehind ? [i, j] : [j, i]
      after[first]?.push(last)
      waits[last] = (waits[last] ?? 0) + 1
    }
  })
  const left = new Set(seen.keys())
  const out: Seen[] = []
  while (left.size) {
    let best = -1
    let isFree = false
    for (const i of left) {
      const free = waits[i] === 0
      if (best >= 0 && isFree && !free) continue
      if (best < 0 || (free && !isFree) || (seen[i]?.depth ?? 0) < (seen[best]?.depth ?? 0)) [best, isFree] = [i, free]
    }
    left.delete(best)
    out.push(seen[best] as Seen)
    for (const j of after[best] ?? []) waits[j] = (waits[j] ?? 1) - 1
  }
  return out
}

/** Brought into the box, down the page, to a tenth of a unit. */
function fitted(shapes: Pick<Seen, 'tone' | 'soft' | 'loops'>[]): Sketch {
  if (shapes.length === 0) return { shapes: [] }
  const { x0, x1, y0, y1 } = rectOf(shapes.flatMap((s) => s.loops))
  const scale = Math.min((SKETCH.width - 12) / Math.max(x1 - x0, 1), (SKETCH.height - 12) / Math.max(y1 - y0, 1))
  const tenth = (v: number) => Math.round(v * 10) / 10
  return {
    shapes: shapes.map(({ tone, soft, loops }) => ({
      tone,
      soft,
      loops: loops.map((loop) =>
        loop.flatMap(([x, y]) => [
          tenth(SKETCH.width / 2 + (x - (x0 + x1) / 2) * scale),
          tenth(SKETCH.height / 2 - (y - (y0 + y1) / 2) * scale),
        ]),
      ),
    })),
  }
}

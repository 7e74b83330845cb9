import {
  boxOf,
  capOf,
  faceName,
  roofOver,
  TOLERANCE,
  wayOf,
  type Facet,
  type Outline,
  type RoofFace,
  type RoofStage,
  type Solid,
  type Vec2,
  type Vec3,
} from '../solid'
import { refuse, tidy, type Num, type StandingNumbers } from '../values'
import { moveKind } from './define'
import { angle, length } from './fields'
import type { MoveBase } from './kind'
import { carriedBody, carriedOf } from './raise'

/** An edge of the eaves that is not as the others. */
export interface HipEdge {
  id: string
  side: string
  rises: 'at' | 'gable'
  /** degrees */ angle: Num
}

export interface HipMove extends MoveBase {
  move: 'hip'
  /** degrees at which every edge rises */ angle: Num
  edges: HipEdge[]
  /** m above the eaves, from where on it rises at the other angle; null: all the way up */ breaks: Num | null
  /** degrees */ upper: Num
}

/**
 * A roof whose every edge rises at once, over any outline with its holes: the straight skeleton. Edges may have an angle of their own, or
 * stand upright as gables; from a height on all may rise at another angle (a mansard). Its faces: <id>/<edge>, above the break
 * <id>/upper/<edge>; a gable is its side, run up.
 */
export const hip = moveKind<HipMove>({
  move: 'hip',
  called: 'a hipped roof',
  title: 'hip',
  group: 'roof',
  takes: 'carried',
  gives: 'body',
  fields: {
    angle: angle('roof angle', { from: 1, to: 85 }),
    edges: {
      is: 'list',
      label: 'edges of their own',
      one: 'edge',
      most: 200,
      item: {
        side: { is: 'side', label: 'side' },
        rises: {
          is: 'choice',
          label: 'it',
          options: [
            { value: 'at', label: 'rises at' },
            { value: 'gable', label: 'is a gable' },
          ],
        },
        angle: angle<HipEdge>('angle', { from: 1, to: 85, when: (e) => e.rises === 'at' }),
      },
      next: (_items, { plan }) => ({ side: plan[0]?.edges[0] ?? 'e1', rises: 'gable', angle: 45 }),
    },
    breaks: length('breaks', { otherwise: 'not at all', from: TOLERANCE.least, hint: 'Above the eaves.' }),
    upper: angle<HipMove>('above it', { from: 1, to: 85, when: (m) => m.breaks !== null }),
  },
  starts: () => ({ angle: 35, edges: [], breaks: null, upper: 20 }),
  check: (m, { name, form }) => {
    const { sweep } = carriedOf(form())
    if (sweep.twist)
      refuse('geometry', `"${name}" is given a hipped roof where it is twisted.`, 'Put the twist behind the roof.')
    if (new Set(m.edges.map((e) => e.side)).size !== m.edges.length)
      refuse('geometry', `An edge of the roof of "${name}" is said twice.`, 'Take one of the two off.')
  },
  build: (form, m, { numbers, name }) => {
    const carried = carriedOf(form)
    const walls = carriedBody(carried, numbers)
    const { high, z1 } = carried.sweep
    const names = high.flatMap((l) => l.edges)
    for (const e of m.edges)
      if (!names.includes(e.side))
        refuse(
          'unknown-id',
          `The roof of "${name}" has no edge "${e.side}" any more.`,
          'Choose one of its sides, or take it off.',
        )
    const loops = high.map((l) => l.points)
    if (boxOf(walls.positions).z1 < z1 - TOLERANCE.height || loops.some((l) => l.length < 3))
      refuse('geometry', `"${name}" comes to a point below its roof.`, 'Taper it less.')
    const faces = roofOver(loops, stagesOf(m, names, numbers))
    const solid = roofed(walls, faces, high, z1, m.id, carried.by)
    const top = Math.max(...faces.flatMap((f) => f.loop.map((p) => p[2])))
    return { ...form, carried: null, ridge: tidy(z1 + top), solid }
  },
})

/** How edges move inwards, by their names. */
function stagesOf(m: HipMove, names: string[], numbers: StandingNumbers): RoofStage[] {
  const cot = (num: Num) => 1 / Math.tan((numbers.angle(num) * Math.PI) / 180)
  const own = new Map(m.edges.map((e) => [e.side, e.rises === 'gable' ? 0 : cot(e.angle)]))
  const [all, upper] = [cot(m.angle), cot(m.upper)]
  const speed = (edge: number) => own.get(names[edge] ?? '') ?? all
  return [
    { from: 0, speed },
    ...(m.breaks === null
      ? []
      : [{ from: numbers.length(m.breaks), speed: (edge: number) => (speed(edge) === 0 ? 0 : upper) }]),
  ]
}

/** Walls with the faces of a roof in place of their top, which lies at a height (m). */
export function roofed(walls: Solid, faces: RoofFace[], eaves: Outline[], z: number, id: string, by: string): Solid {
  const edges = eaves.flatMap((l) =>
    l.points.map((a, i) => ({
      a,
      b: l.points[(i + 1) % l.points.length] as Vec2,
      name: l.edges[i] ?? '',
      arc: l.arcs[i],
    })),
  )
  const top = walls.facets.findIndex((f) => f.name === faceName(by, 'top'))
  const positions = Array.from(walls.positions)
  const numberOf = new Map<string, number>()
  const key = (p: Vec3) => p.map((c) => Math.round(c / TOLERANCE.fine)).join()
  for (let v = 0; v < positions.length; v += 3)
    numberOf.set(key([positions[v] as number, positions[v + 1] as number, positions[v + 2] as number]), v / 3)
  const corner = ([x, y, up]: Vec3): number => {
    const p: Vec3 = [x, y, up === 0 ? z : tidy(z + up)]
    const known = numberOf.get(key(p))
    if (known !== undefined) return known
    positions.push(...p)
    numberOf.set(key(p), positions.length / 3 - 1)
    return positions.length / 3 - 1
  }
  const [triangles, facetOf, facets]: [number[], number[], Facet[]] = [[], [], [...walls.facets]]
  walls.facetOf.forEach((f, t) => {
    if (f === top) return
    triangles.push(...walls.triangles.slice(t * 3, t * 3 + 3))
    facetOf.push(f)
  })
  const surfaces = new Map<string, Facet['surface']>()
  for (const { edge, stage, loop } of faces) {
    const e = edges[edge] as (typeof edges)[number]
    const way = wayOf(e.a, e.b)
    const off = (p: Vec3) => way[0] * (p[1] - e.a[1]) - way[1] * (p[0] - e.a[0])
    const isGable = loop.every((p) => Math.abs(off(p)) < TOLERANCE.fine * 10)
    const flat = loop.map((p): Vec2 => (isGable ? [way[0] * p[0] + way[1] * p[1], p[2]] : [p[0], p[1]]))
    const cap = capOf([flat])
    const numbers = loop.map(corner)
    const side = isGable
      ? facets.findIndex((f) => f.name === faceName(by, e.name) && Math.abs(f.plane.n[2]) < TOLERANCE.zero)
      : -1
    if (side < 0) {
      const name = isGable || stage === 0 ? faceName(id, e.name) : faceName(id, 'upper', e.name)
      facets.push(facetOver(name, loop, way, z, e, isGable, e.arc ? surfaceOf(surfaces, name) : undefined))
    }
    for (let t = 0; t < cap.length; t += 3) {
      triangles.push(...[0, 1, 2].map((k) => numbers[cap[t + k] as number] as number))
      facetOf.push(side < 0 ? facets.length - 1 : side)
    }
  }
  return {
    positions: Float64Array.from(positions),
    triangles: Uint32Array.from(triangles),
    facetOf: Uint32Array.from(facetOf),
    facets,
  }
}

/** Slopes over the facets of one arc are one curved face. */
function surfaceOf(known: Map<string, Facet['surface']>, name: string): Facet['surface'] {
  const surface = known.get(name) ?? { kind: 'free' as const }
  known.set(name, surface)
  return surface
}

function facetOver(
  name: string,
  loop: Vec3[],
  way: Vec2,
  z: number,
  { a }: { a: Vec2 },
  isGable: boolean,
  surface: Facet['surface'],
): Facet {
  if (isGable) {
    const n: Vec3 = [way[1], -way[0], 0]
    return { name, plane: { n, d: n[0] * a[0] + n[1] * a[1] } }
  }
  // It rises at right angles to its edge: from the corner that lies farthest from it.
  const off = (p: Vec3) => way[0] * (p[1] - a[1]) - way[1] * (p[0] - a[0])
  const foot = loop.reduce((f, p) => (p[2] < f[2] ? p : f))
  const head = loop.reduce((f, p) => (p[2] > f[2] ? p : f))
  const slope = (head[2] - foot[2]) / (off(head) - off(foot))
  const long = Math.hypot(1, slope)
  const n: Vec3 = [(way[1] * slope) / long, (-way[0] * slope) / long, 1 / long]
  const plane = { n, d: n[0] * foot[0] + n[1] * foot[1] + n[2] * (foot[2] + z) }
  return surface ? { name, plane, surface } : { name, plane }
}

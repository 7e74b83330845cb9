import * as v from 'valibot'
import {
  boxOf,
  intersect,
  placePoint,
  placeSolid,
  prism,
  type Outline,
  type Solid,
  type Vec2,
  faceName,
} from '../solid'
import { IdSchema, NumSchema, refuse, tidy, type Num } from '../values'
import type { MoveBase, MoveKind } from './kind'
import { carriedBody, carriedOf } from './raise'
import { stretched } from './stretched'

export interface PitchMove extends MoveBase {
  move: 'pitch'
  angle: Num
  direction: Num
}

/**
 * A gabled top: two slopes rise from the eaves, at the outline's two extremes square to the ridge, and meet in the middle.
 * Ridge height = eaves + tan(angle) x half the width. Its faces: <id>/left and <id>/right of the ridge's direction; the
 * sides keep their names and run up under the slopes.
 */
export const pitch: MoveKind<PitchMove> = {
  move: 'pitch',
  called: 'a pitch',
  group: 'roof',
  fields: {},
  takes: 'carried',
  gives: 'body',
  placed: true,
  schema: () =>
    v.strictObject({ id: IdSchema, on: v.boolean(), move: v.literal('pitch'), angle: NumSchema, direction: NumSchema }),
  starts: ({ plan }) => ({ angle: 35, direction: plan[0] ? ridgeAlong(plan[0].points, 'longer') : 0 }),
  numbers: (m) => [
    [m.angle, 'angle'],
    [m.direction, 'angle'],
  ],
  inner: () => null,
  check: (m, { before, name, numbers }) => {
    const angle = numbers.angle(m.angle)
    if (!(angle > 0 && angle < 85))
      refuse('size', `The roof angle of "${name}" is ${angle} degrees.`, 'Type an angle above 0 and below 85 degrees.')
    numbers.angle(m.direction)
    const bent = before.find((b) => b.move === 'taper' || b.move === 'twist')
    if (bent)
      refuse(
        'geometry',
        `"${name}" is pitched where its sides are no longer upright: behind a ${bent.move}.`,
        `Switch the ${bent.move} off, or the pitch.`,
      )
  },
  build: (form, m, { numbers }) => {
    const { eaves } = form
    const carried = carriedOf(form)
    const outline = carried.sweep.low[0] as Outline
    const solid = carriedBody(carried, numbers)
    const direction = numbers.angle(m.direction)
    const { low, high } = widthAcross(outline.points, direction)
    const { low: from, high: to } = widthAcross(outline.points, direction + 90)
    const rise = Math.tan((numbers.angle(m.angle) * Math.PI) / 180)
    const ridge = eaves + (rise * (high - low)) / 2
    const tall = stretched(solid, eaves, ridge + 1)
    const tent = tentOver({ low, high, from: -to - 1, to: -from + 1, eaves, ridge, rise }, m.id)
    return {
      ...form,
      carried: null,
      ridge: tidy(ridge),
      solid: intersect(tall, placeSolid(tent, { x: 0, y: 0, z: 0, turn: direction })),
    }
  },
}

/** The extent of an outline square to a direction (degrees): its middle is where the ridge runs. */
function widthAcross(points: Vec2[], direction: number): { low: number; high: number } {
  const across = points.map((p) => placePoint(p, { x: 0, y: 0, z: 0, turn: -direction })[1])
  return { low: Math.min(...across), high: Math.max(...across) }
}

/** m above the mass's base: eaves + tan(angle) x half the width square to the ridge; angles in degrees. */
export function ridgeHeight(points: Vec2[], eaves: number, angle: number, direction: number): number {
  const { low, high } = widthAcross(points, direction)
  return tidy(eaves + (Math.tan((angle * Math.PI) / 180) * (high - low)) / 2)
}

/** A tent along x, wider than the body by a metre on every side, so that only its two slopes cut. */
function tentOver(
  t: { low: number; high: number; from: number; to: number; eaves: number; ridge: number; rise: number },
  id: string,
): Solid {
  const foot = Math.min(0, t.eaves - t.rise) - 1
  const section: Vec2[] = [
    [t.low - 1, foot],
    [t.high + 1, foot],
    [t.high + 1, t.eaves - t.rise],
    [(t.low + t.high) / 2, t.ridge],
    [t.low - 1, t.eaves - t.rise],
  ]
  const lying = prism(
    section,
    ['foot', 'side', 'left', 'right', 'side'].map((n) => faceName(id, n)),
    t.from,
    t.to,
    faceName(id, 'end'),
    faceName(id, 'end'),
  )
  // The prism's own x, y, z become y, z, x: a turn, so that outside stays outside.
  const positions = new Float64Array(lying.positions.length)
  for (let i = 0; i < positions.length; i += 3)
    positions.set([lying.positions[i + 2] as number, lying.positions[i] as number, lying.positions[i + 1] as number], i)
  return {
    ...lying,
    positions,
    facets: lying.facets.map((f) => ({
      name: f.name,
      plane: { n: [f.plane.n[2], f.plane.n[0], f.plane.n[1]], d: f.plane.d },
    })),
  }
}

/** The ridge's direction (degrees) along the longer or the shorter extent of an outline. */
export function ridgeAlong(points: Vec2[], which: 'longer' | 'shorter'): number {
  const box = boxOf(points.flatMap(([x, y]) => [x, y, 0]))
  const wide = box.x1 - box.x0 >= box.y1 - box.y0
  return wide === (which === 'longer') ? 0 : 90
}

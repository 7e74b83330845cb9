import * as v from 'valibot'
import { loopArea, type Arc, type Outline, type Vec2 } from '../solid'
import { IdSchema, NumSchema, refuse } from '../values'
import type { Form, MoveBase, MoveKind } from './kind'
import { leaned } from './lean'
import { carriedOf } from './raise'

const TaperBySchema = v.variant('kind', [
  /** the top is the outline drawn so many times as large, about its middle */
  v.strictObject({ kind: v.literal('scale'), scale: NumSchema }),
  /** every side leans in by so many degrees from upright (below zero: out) */
  v.strictObject({ kind: v.literal('lean'), angle: NumSchema }),
])
export type TaperBy = v.InferOutput<typeof TaperBySchema>
export interface TaperMove extends MoveBase {
  move: 'taper'
  by: TaperBy
}

/** Lets the sides of a raised outline lean: to a scale at the top, or all by one angle. Faces keep their names. */
export const taper: MoveKind<TaperMove> = {
  move: 'taper',
  called: 'a taper',
  takes: 'carried',
  gives: 'carried',
  schema: () => v.strictObject({ id: IdSchema, on: v.boolean(), move: v.literal('taper'), by: TaperBySchema }),
  numbers: (m) => [m.by.kind === 'scale' ? [m.by.scale, 'number'] : [m.by.angle, 'angle']],
  inner: () => null,
  check: (m, { before, form, name, numbers }) => {
    if (before.some((b) => b.move === 'taper'))
      refuse('geometry', `"${name}" is tapered twice.`, 'Change the first taper, or switch it off.')
    if (m.by.kind === 'scale') {
      const scale = numbers.value(m.by.scale, 'number')
      if (!(scale >= 0 && scale <= 20))
        refuse(
          'size',
          `The top of "${name}" is scaled to ${scale}.`,
          'Type a scale from 0 (a point) to 20; 1 leaves the sides upright.',
        )
    } else {
      const angle = numbers.angle(m.by.angle)
      if (Math.abs(angle) >= 80)
        refuse(
          'size',
          `The sides of "${name}" lean by ${angle} degrees.`,
          'Type an angle between -80 and 80 degrees from upright.',
        )
      leanedTop(form(), angle, name)
    }
  },
  build: (form, m, { numbers, name }) => {
    const { sweep, by } = carriedOf(form)
    const high =
      m.by.kind === 'scale'
        ? scaled(sweep.low, numbers.value(m.by.scale, 'number'))
        : leanedTop(form, numbers.angle(m.by.angle), name)
    return { ...form, outline: null, carried: { sweep: { ...sweep, high }, by } }
  },
}

/** The top of a form that is carried, with every side leaning in by so many degrees. Errors: 'geometry' where sides meet below it. */
function leanedTop(form: Form, angle: number, name: string): Outline[] {
  const { low, z0, z1 } = carriedOf(form).sweep
  return leaned(low, Math.tan((angle * Math.PI) / 180) * (z1 - z0), () =>
    refuse('geometry', `The sides of "${name}" meet below its top.`, 'Let them lean less, or raise it less.'),
  )
}

/** The middle of the area that closed lines enclose, m. */
export function centreOf(lines: Outline[]): Vec2 {
  const o = lines[0]?.points[0] ?? [0, 0]
  let [x, y, area] = [0, 0, 0]
  for (const { points } of lines) {
    area += loopArea(points)
    points.forEach((p, i) => {
      const q = points[(i + 1) % points.length] as Vec2
      const cross = (p[0] - o[0]) * (q[1] - o[1]) - (q[0] - o[0]) * (p[1] - o[1])
      x += (p[0] + q[0] - 2 * o[0]) * cross
      y += (p[1] + q[1] - 2 * o[1]) * cross
    })
  }
  return [o[0] + x / (6 * area), o[1] + y / (6 * area)]
}

/** Closed lines drawn so many times as large about the middle of their area; arcs stay arcs. */
export function scaled(lines: Outline[], scale: number): Outline[] {
  const [cx, cy] = centreOf(lines)
  const arcs = new Map<Arc, Arc>()
  const arcOf = (arc: Arc) => {
    let a = arcs.get(arc)
    if (!a)
      arcs.set(arc, (a = { ...arc, x: cx + (arc.x - cx) * scale, y: cy + (arc.y - cy) * scale, r: arc.r * scale }))
    return a
  }
  return lines.map((l) => ({
    ...l,
    points: l.points.map(([x, y]): Vec2 => [cx + (x - cx) * scale, cy + (y - cy) * scale]),
    arcs: l.arcs.map((a) => a && arcOf(a)),
  }))
}

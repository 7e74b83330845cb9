import * as v from 'valibot'
import { TOLERANCE, type Arc, type Outline, type Vec2 } from '../solid'
import { NumSchema, refuse } from '../values'
import { carriedAlong, storeysOf } from './along'
import { centreOf } from './centre'
import { moveKind } from './define'
import type { Form, MoveBase } from './kind'
import { leaned } from './set-off'
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
export const taper = moveKind<TaperMove>({
  move: 'taper',
  called: 'a taper',
  group: 'shape',
  takes: 'carried',
  gives: 'carried',
  also: 'body',
  spans: true,
  fields: {},
  more: {
    entries: { by: TaperBySchema },
    numbers: (m) => [m.by.kind === 'scale' ? [m.by.scale, 'number'] : [m.by.angle, 'angle']],
  },
  starts: () => ({ by: { kind: 'scale', scale: 0.8 } }),
  dependsOn: storeysOf,
  check: (m, { before, form, name, numbers }) => {
    if (m.by.kind === 'scale') {
      const scale = numbers.value(m.by.scale, 'number')
      if (!(scale >= 0 && scale <= 20))
        refuse(
          'size',
          `The top of "${name}" is scaled to ${scale}.`,
          'Type a scale from 0 (a point) to 20; 1 leaves the sides upright.',
        )
      return
    }
    const angle = numbers.angle(m.by.angle)
    if (Math.abs(angle) >= 80)
      refuse(
        'size',
        `The sides of "${name}" lean by ${angle} degrees.`,
        'Type an angle between -80 and 80 degrees from upright.',
      )
    if (m.span || before.some((b) => b.move === 'taper'))
      refuse(
        'geometry',
        `The sides of "${name}" cannot lean by an angle ${m.span ? 'in part' : 'where they lean already'}.`,
        'Let it go to a scale at the top.',
      )
    leanedTop(form(), angle, name)
  },
  build: (form, m, { numbers, name, ranges, asBody }) => {
    const sweep = form.carried?.sweep
    // The outline is carried from low to high once: what stands there already, is twisted, or in part, is tapered as a body.
    if (sweep && sweep.low === sweep.high && ranges === null) {
      const high =
        m.by.kind === 'scale'
          ? scaled(sweep.low, numbers.value(m.by.scale, 'number'))
          : leanedTop(form, numbers.angle(m.by.angle), name)
      return { ...form, outline: null, carried: { sweep: { ...sweep, high }, by: carriedOf(form).by } }
    }
    if (m.by.kind !== 'scale')
      return refuse(
        'geometry',
        `The sides of "${name}" can lean by an angle only where they stand upright.`,
        'Let it go to a scale at the top, or put the taper behind the raise.',
      )
    const scale = numbers.value(m.by.scale, 'number')
    if (scale < TOLERANCE.least)
      refuse('size', `"${name}" is tapered to a point where it is a body.`, 'Type a scale above zero.')
    return carriedAlong(asBody(form), { scale }, ranges, numbers)
  },
})

/** The top of a form that is carried, with every side leaning in by so many degrees. Errors: 'geometry' where sides meet below it. */
function leanedTop(form: Form, angle: number, name: string): Outline[] {
  const { low, z0, z1 } = carriedOf(form).sweep
  return leaned(low, Math.tan((angle * Math.PI) / 180) * (z1 - z0), () =>
    refuse('geometry', `The sides of "${name}" meet below its top.`, 'Let them lean less, or raise it less.'),
  )
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

import { faceName, halfSpace, intersect, wayOf, type Plane, type Vec2 } from '../solid'
import { refuse, tidy, type Num } from '../values'
import { moveKind } from './define'
import { angle } from './fields'
import type { MoveBase } from './kind'
import { carriedBody, carriedOf } from './raise'
import { stretched } from './stretched'

export interface SlopeMove extends MoveBase {
  move: 'slope'
  /** the side whose top is its lower edge */ side: string
  /** degrees */ angle: Num
}

/** A roof of one slope that rises from the top of one side, over all of the outline. Its face: <id>/slope; sides run up under it. */
export const slope = moveKind<SlopeMove>({
  move: 'slope',
  called: 'a single slope',
  title: 'one slope',
  group: 'roof',
  takes: 'carried',
  gives: 'body',
  fields: { side: { is: 'side', label: 'rises from' }, angle: angle('roof angle', { from: 0.1, to: 80 }) },
  starts: ({ plan }) => {
    const side = plan[0]?.edges[0]
    return side === undefined ? null : { side, angle: 8 }
  },
  check: (m, { form, name }) => {
    const { sweep } = carriedOf(form())
    if (sweep.low !== sweep.high || sweep.twist)
      refuse(
        'geometry',
        `"${name}" is given a roof of one slope where its sides are no longer upright.`,
        'Put the taper or the twist behind the roof.',
      )
  },
  build: (form, m, { numbers, name }) => {
    const carried = carriedOf(form)
    const outer = carried.sweep.low[0]
    const at = outer?.edges.indexOf(m.side) ?? -1
    if (!outer || at < 0 || outer.arcs[at])
      return refuse(
        'unknown-id',
        `The roof of "${name}" has no straight side "${m.side}" to rise from.`,
        'Choose one of its straight sides.',
      )
    const [a, b] = [outer.points[at], outer.points[(at + 1) % outer.points.length]] as [Vec2, Vec2]
    const way = wayOf(a, b)
    const rise = Math.tan((numbers.angle(m.angle) * Math.PI) / 180)
    const { z1 } = carried.sweep
    const off = (p: Vec2) => way[0] * (p[1] - a[1]) - way[1] * (p[0] - a[0])
    const offs = outer.points.map(off)
    const [least, most] = [Math.min(...offs), Math.max(...offs)]
    if (z1 + least * rise <= carried.sweep.z0)
      refuse('geometry', `The slope of "${name}" falls below its base.`, 'Let it rise less, or from another side.')
    const long = Math.hypot(1, rise)
    const n: Plane['n'] = [(way[1] * rise) / long, (-way[0] * rise) / long, 1 / long]
    const plane: Plane = { n, d: n[0] * a[0] + n[1] * a[1] + n[2] * z1 }
    const ridge = z1 + most * rise
    const tall = stretched(carriedBody(carried, numbers), z1, ridge + 1)
    const solid = intersect(tall, halfSpace(plane, tall, true, faceName(m.id, 'slope')))
    return { ...form, carried: null, ridge: tidy(ridge), solid }
  },
})

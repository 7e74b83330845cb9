import { faceName, subtract, sweepBody, TOLERANCE } from '../solid'
import { refuse, type Num } from '../values'
import { moveKind } from './define'
import { length } from './fields'
import type { MoveBase } from './kind'
import { leaned } from './set-off'
import { carriedBody, carriedOf } from './raise'
import { stretched } from './stretched'

export interface UpstandMove extends MoveBase {
  move: 'upstand'
  /** m above the flat roof */ height: Num
  /** m */ thick: Num
}

/**
 * A flat roof within an upstand: the sides run up by so much, and stand so thick round the roof. Faces: the roof keeps its name, the
 * upstand's head is <id>/head, its inner sides <id>/<edge>.
 */
export const upstand = moveKind<UpstandMove>({
  move: 'upstand',
  called: 'an upstand',
  group: 'roof',
  takes: 'carried',
  gives: 'body',
  fields: {
    height: length('above the roof by', { from: TOLERANCE.least }),
    thick: length('thick', { from: TOLERANCE.least }),
  },
  starts: () => ({ height: 0.9, thick: 0.3 }),
  check: (_m, { form, name }) => {
    const { sweep } = carriedOf(form())
    if (sweep.low !== sweep.high || sweep.twist)
      refuse(
        'geometry',
        `"${name}" is given an upstand where its sides are no longer upright.`,
        'Put the taper or the twist behind the upstand.',
      )
  },
  build: (form, m, { numbers, name }) => {
    const carried = carriedOf(form)
    const { low, z1 } = carried.sweep
    const [height, thick] = [numbers.length(m.height), numbers.length(m.thick)]
    const within = leaned(low, thick, () =>
      refuse('geometry', `Within an upstand ${thick} m thick nothing is left of "${name}".`, 'Make it thinner.'),
    )
    const walls = carriedBody(carried, numbers)
    const [roof, head] = [faceName(carried.by, 'top'), faceName(m.id, 'head')]
    const tall = stretched(walls, z1, z1 + height)
    const room = sweepBody(
      { low: within, high: within, z0: z1, z1: z1 + height + 1, twist: null },
      { base: roof, top: faceName(m.id, 'out'), side: (edge) => faceName(m.id, edge) },
    )
    const named = { ...tall, facets: tall.facets.map((f) => (f.name === roof ? { ...f, name: head } : f)) }
    return { ...form, carried: null, solid: subtract(named, room) }
  },
})

import { onesOfWay, stepped, wayKind, WaySchema, type Way } from '../../repeats'
import type { Fielded, Fields } from '../../moves'
import { numbersIn } from '../../moves'
import type { StepBase, StepKind } from './kind'

export interface RepeatStep extends StepBase {
  step: 'repeat'
  way: Way
}

/** Lets each stand there many times, in a way of repeats. Keys: its own, then that of the way. */
export const repeat: StepKind<RepeatStep> & { entries: { way: typeof WaySchema } } = {
  step: 'repeat',
  called: 'repeat',
  about: 'along a line or a path, in a grid, round a centre, at the sides of a mass',
  fields: {},
  entries: { way: WaySchema },
  says: (s) => `repeat each ${wayKind(s.way).called}`,
  starts: () => ({ way: { way: 'line', count: 3, apart: 30, direction: 0 } }),
  numbers: (s) => numbersIn(wayKind(s.way).fields as Fields<never>, s.way as unknown as Fielded),
  each: (cell, s, { numbers, room, world }) => {
    const places = onesOfWay(s.way, numbers, (id) => {
      const host = world.mass(id)
      return host && host.plan(host.base)
    })
    room(places.length)
    return places.map(({ key, nth, step }) => {
      const at = nth === 0 ? cell.key : `${cell.key}.${key}`
      const moved = stepped(cell, step)
      return { ...cell, key: at, at: [nth + 1, 1] as [number, number], ...moved }
    })
  },
}

import type { Edit } from '@geotome/core/edits'
import { dragRepeat, moveMasses, moveRule } from '@geotome/core/form'
import { tidy } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { atHeight, type View } from '../../stage/camera'
import type { Grip } from '../hand'
import type { World } from '../kind'
import { byStride } from './standing'

export const PLACE_HELP = [
  ['drag the picked mass', 'moves it'],
  ['drag one of a picked repeat', 'sets how far apart they stand; elsewhere moves them all'],
] as const

/** What is moved in plan: whether it is there still, and the edit that moves it by so much (m). */
interface Moved {
  is: (world: World) => boolean
  by: (world: World, by: Vec2) => Edit
}

/** Picked masses. */
export const massesMoved = (ids: string[]): Moved => ({
  is: ({ scheme }) => ids.every((id) => scheme.masses[id]),
  by: ({ project, scheme }, by) => moveMasses(project, scheme, ids, by),
})

/** A rule, with all that it grows. */
export const ruleMoved = (id: string): Moved => ({
  is: ({ scheme }) => scheme.rules[id] !== undefined,
  by: ({ project, scheme }, by) => moveRule(project, scheme, id, by),
})

/** One of a repeat, by its key. */
export const repeatMoved = (id: string, key: string): Moved => ({
  is: ({ scheme }) => scheme.repeats[id] !== undefined,
  by: ({ project, scheme }, by) => dragRepeat(project, scheme, id, key, by),
})

/** What is picked, held anywhere on it; px in the window, `corner` that of the pane. */
export function placeGrip(
  what: Moved,
  from: Vec2,
  pane: { view: View; size: Vec2; corner: Vec2; ground: number },
  world: World,
  click: Grip['click'],
): Grip {
  const on = (at: Vec2) => atHeight(pane.view, pane.size, [at[0] - pane.corner[0], at[1] - pane.corner[1]], pane.ground)
  const a = on(from)
  const stride = world.project.stride.length
  return {
    label: 'move',
    slack: 4,
    ...(click ? { click } : {}),
    answer: ({ at }) => {
      const b = on(at)
      const by: Vec2 = [byStride(tidy(b[0] - a[0]), stride), byStride(tidy(b[1] - a[1]), stride)]
      if ((by[0] === 0 && by[1] === 0) || !what.is(world)) return null
      return { say: [], edit: (now) => what.by(now, by) }
    },
  }
}

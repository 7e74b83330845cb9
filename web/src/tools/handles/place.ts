import { moveMasses } from '@geotome/core/form'
import { tidy } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { atHeight, type View } from '../../stage/camera'
import type { Grip } from '../hold'
import type { World } from '../kind'
import { byStride } from './standing'

export const PLACE_HELP = [['drag the picked mass', 'moves it']] as const

/** Picked masses, held anywhere on them; px in the window, `corner` that of the pane. */
export function placeGrip(
  ids: string[],
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
      if ((by[0] === 0 && by[1] === 0) || !ids.every((id) => world.scheme.masses[id])) return null
      return { say: [], edit: ({ project, scheme }) => moveMasses(project, scheme, ids, by) }
    },
  }
}

import { uprightFrame, type Upright } from '@geotome/core/slice'
import type { Vec2 } from '@geotome/core/solid'
import type { Grip } from '../hand'
import { byStride } from './standing'

export const SECTION_HELP = [['drag the section’s line in plan', 'moves the section']] as const

/** The section's line in a plan of so many px to a metre. Nothing of the project changes: the view does. */
export function sectionGrip(
  section: Upright,
  from: Vec2,
  scale: number,
  stride: number,
  put: (s: Upright) => void,
): Grip {
  const { toward } = uprightFrame(section.azimuth)
  return {
    label: 'move the section',
    slack: 1,
    answer: ({ at }) => {
      // On screen plan's north is up.
      const moved = ((at[0] - from[0]) * toward[0] - (at[1] - from[1]) * toward[1]) / scale
      return { say: [], look: () => put({ ...section, toward: byStride(section.toward + moved, stride) }) }
    },
    undone: () => put(section),
  }
}

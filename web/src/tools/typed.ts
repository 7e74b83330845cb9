import { bearingIn, keptDirection, readTyped, Refusal, showQuantity } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import type { DrawnOn, World } from './kind'

/** What is typed into a live field, in m or degrees; null where it is empty or cannot be read yet. */
export function typedValue(
  text: string,
  world: World,
  quantity: 'length' | 'angle' | 'number' = 'length',
): number | null {
  if (!text.trim()) return null
  try {
    return readTyped(text, quantity, world.project, world.scheme).value
  } catch (e) {
    if (e instanceof Refusal) return null
    throw e
  }
}

/** What a live field of a direction is called: as the project says directions in plan; on a face or an upright plane 0 is level to the right. */
export const directionLabel = ({ project }: World, on?: DrawnOn): string =>
  on ? 'direction' : project.directions === 'bearing' ? 'bearing' : 'from east'

/** A direction that is typed, in degrees from the first axis of what is drawn on to the left; null where it cannot be read yet. */
export function typedDirection(text: string, world: World, on?: DrawnOn): number | null {
  const said = typedValue(text, world, 'angle')
  return said === null || on ? said : (keptDirection(said, world.project.directions) as number)
}

/** The direction from one point to another as the project says it. */
export function directionSaid(from: Vec2, to: Vec2, world: World, on?: DrawnOn): string {
  const kept = (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI
  return showQuantity(on ? kept : bearingIn(kept, world.project.directions), 'angle', world.project)
}

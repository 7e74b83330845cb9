import { readTyped, Refusal } from '@geotome/core/project'
import type { World } from './kind'

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

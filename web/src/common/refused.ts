import { Refusal } from '@geotome/core/project'
import { tellFault } from './tell'

/** What an asking gives; null where it is refused, which is said. */
export async function orSay<T>(asking: Promise<T>): Promise<T | null> {
  try {
    return await asking
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    tellFault(e.message)
    return null
  }
}

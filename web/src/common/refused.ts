import { toast } from 'sonner'
import { Refusal } from '@geotome/core/project'

/** What an asking gives; null where it is refused, which is said. */
export async function orSay<T>(asking: Promise<T>): Promise<T | null> {
  try {
    return await asking
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    toast.error(e.message)
    return null
  }
}

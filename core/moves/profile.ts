import type { Outline } from '../solid'
import { refuse, type KeptProfile, type Numbers } from '../values'
import { shifted, singleLine } from './outline'
import { shapeKind, type OutlineShape } from './shapes/list'

/** A profile that is kept by name. Errors: 'stale' where it is gone. */
export const keptProfile = (id: string, numbers: Numbers): KeptProfile =>
  numbers.profile?.(id) ??
  refuse('stale', 'The profile that it uses is gone.', 'Choose another one, or a shape of its own.')

/** A kept profile as one closed line about its insertion point, m, counter-clockwise. Errors: 'stale', 'outline' where it encloses a court. */
export function profileLine(id: string, numbers: Numbers): Outline {
  const { shape, x, y, name } = keptProfile(id, numbers)
  const line = singleLine(shape as OutlineShape, numbers, `The profile "${name}"`)
  return shifted(line, [-numbers.length(x), -numbers.length(y)])
}

/** What a form that uses a profile hangs on of it, as text. */
export function profileText(id: string | null | undefined, numbers: Numbers): string {
  if (!id) return ''
  const kept = numbers.profile?.(id)
  if (!kept) return `${id} gone`
  const shape = kept.shape as OutlineShape
  const values = shapeKind(shape)
    .numbers(shape)
    .map(([num, quantity]) => numbers.value(num, quantity))
  return JSON.stringify([shape, values, numbers.length(kept.x), numbers.length(kept.y)])
}

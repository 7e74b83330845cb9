import { times } from '../../moves'
import { refuse, tidy, TOLERANCE, type Num } from '../../values'
import { isRaised } from '../cell'
import type { StepBase, StepKind } from './kind'
import { whole } from './whole'

export interface StoreysStep extends StepBase {
  step: 'storeys'
  /** null: as many as the site permits */ count: Num | null
}

/** Raises each by whole storeys, up to the level that is so many above; where there is none, by as much as the last storey is high. */
export const storeys: StepKind<StoreysStep> = {
  step: 'storeys',
  called: 'storeys',
  about: 'raise by whole storeys',
  fields: { count: times('storeys', { otherwise: 'as many as the site permits', from: 1, to: 500 }) },
  says: 'raise by {count} storeys',
  starts: () => ({ count: 3 }),
  each: (cell, s, { numbers, world, note }) => {
    if (isRaised(cell)) return refuse('geometry', 'It is raised already.', 'Take one of the two steps off.')
    const foot = world.base + cell.up
    const above = world.storeys.filter((l) => l.height > foot + TOLERANCE.height)
    const heights = above.map((l) => l.height)
    // The topmost storey is as high as the one below it: no level says where it ends.
    const all = [foot, ...heights]
    const last = all.length > 1 ? (all.at(-1) as number) - (all.at(-2) as number) : 3
    const limit = world.site?.limit ?? null
    const many = (): number => {
      if (s.count !== null) return whole(numbers, s.count, 'A number of storeys')
      if (limit === null)
        return refuse(
          'geometry',
          'The site permits any height.',
          'Give it a permitted height, or type a number of storeys.',
        )
      const fits = heights.filter((h) => h <= limit + TOLERANCE.height).length
      const more = fits === heights.length ? Math.floor((limit - (all.at(-1) as number) + TOLERANCE.height) / last) : 0
      return (
        fits + more ||
        refuse('size', 'No storey fits below the permitted height.', 'Raise the limit, or lower the storey.')
      )
    }
    const count = many()
    const at = above[count - 1]
    const beyond = count - heights.length
    if (beyond > 1)
      note(
        `${count} storeys are more than there are levels for: ${heights.length + 1}.`,
        'Add levels, so that each of them has a floor.',
      )
    const height = at ? tidy(at.height - foot) : tidy((all.at(-1) as number) + beyond * last - foot)
    const upTo = at ? { level: at.id, above: 0 } : null
    return [{ ...cell, moves: [...cell.moves, { id: s.id, on: true, move: 'raise', height, upTo }] }]
  },
}

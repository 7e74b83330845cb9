import { TOLERANCE } from '../solid'
import { batch, type Edit, type SingleEdit } from '../edits'
import { numbersOf, refuse, tidy, type Id, type Num, type Project, type Scheme } from '../project'
import type { Above } from './commands'
import { levelHeights, type LevelHeight } from './heights'
import { setStoreyHeight } from './storeys'

/**
 * What a storey's height is made of, from its finished floor up: the clear height, the structural slab above, and the floor build-up on it,
 * up to the finished floor of the next storey. m
 */
export interface HeightParts {
  level: LevelHeight
  above: LevelHeight
  storey: number
  clear: number
  slab: number
  floor: number
}

/** null for the topmost storey, and for marks. */
export function heightParts(project: Project, scheme: Scheme, id: Id): HeightParts | null {
  const levels = levelHeights(project, scheme)
  const level = levels.find((l) => l.id === id)
  const above = level && levels.find((l) => l.kind === 'storey' && l.height > level.height + TOLERANCE.point)
  if (!level || !above || level.kind !== 'storey') return null
  const storey = tidy(above.height - level.height)
  return {
    level,
    above,
    storey,
    slab: above.slab,
    floor: above.floorBuildUp,
    clear: tidy(storey - above.slab - above.floorBuildUp),
  }
}

export type HeightPart = 'storey' | 'clear' | 'slab' | 'floor'
/** What gives way when a slab or a floor changes. */
export type GivesWay = 'clear' | 'storey'

/**
 * Changes one part of a storey's height. A new storey height is taken from the clear height, a new clear height from the storey; a slab
 * or a floor from whichever `gives`. The levels above are carried or held; `keep` says which end of the storey stays where the storey
 * changes.
 */
export function setHeightPart(
  project: Project,
  scheme: Scheme,
  id: Id,
  field: HeightPart,
  num: Num,
  how: { gives: GivesWay; above: Above; keep?: 'lower' | 'upper' },
): Edit {
  const now =
    heightParts(project, scheme, id) ??
    refuse('in-use', 'No storey stands on this level.', 'Add a storey above it first.')
  const value = numbersOf(project, scheme).length(num)
  if (value < 0) refuse('size', `A height of ${value} m is below zero.`, 'Type zero or more.')
  const storeyTo = (height: number): SingleEdit[] => {
    const edit = setStoreyHeight(project, scheme, id, now.above.id, tidy(height), how.keep ?? 'lower', how.above)
    return edit.edit === 'batch' ? edit.edits : [edit]
  }
  const tooMuch = () =>
    refuse(
      'size',
      `Nothing of the clear height is left: ${tidy(now.storey - (field === 'slab' ? value + now.floor : field === 'floor' ? value + now.slab : now.slab + now.floor))} m.`,
      'Let the storey give way instead, or type less.',
    )
  switch (field) {
    case 'storey':
      return value - now.slab - now.floor > 0
        ? batch(storeyTo(value))
        : refuse(
            'size',
            `A storey of ${value} m leaves no clear height under a slab of ${now.slab} m and a floor of ${now.floor} m.`,
            'Type more, or make the slab thinner.',
          )
    case 'clear':
      return batch(storeyTo(value + now.slab + now.floor))
    case 'slab':
    case 'floor': {
      const set: SingleEdit = {
        edit: 'level.change',
        scheme: scheme.id,
        id: now.above.id,
        set: field === 'slab' ? { slab: num } : { floorBuildUp: num },
      }
      if (how.gives === 'storey')
        return batch([set, ...storeyTo(now.clear + (field === 'slab' ? value + now.floor : now.slab + value))])
      return now.storey - (field === 'slab' ? value + now.floor : now.slab + value) > 0 ? set : tooMuch()
    }
  }
}

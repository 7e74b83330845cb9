import { loopArea, railsAreFlat, railsAt, railsOf, railsVolume, type Fold } from '../solid'
import { tidy, type StandingNumbers } from '../values'
import { sectionsOf, type LoftMove } from './loft'
import { formBehind } from './recipe'
import type { Move } from './list'

/** What a loft is if its faces stay warped, or are folded either way: m3, and the m2 of its cut at each level that it stands at. */
export interface Folding {
  fold: Fold
  volume: number
  plates: { level: string; area: number }[]
}

/** All three, by closed forms, or none where all faces are flat: no kernel is asked. Errors: those of the loft. */
export function foldings(recipe: readonly Move[], move: LoftMove, numbers: StandingNumbers, name: string): Folding[] {
  const at = recipe.findIndex((m) => m.id === move.id)
  const before = recipe.slice(0, at).filter((m) => m.on)
  const rails = railsOf(sectionsOf(formBehind(before, numbers, name), move, numbers, name))
  if (railsAreFlat(rails)) return []
  const top = rails.zs.at(-1) as number
  const levels = [...numbers.heights]
    .map(([level, h]) => ({ level, z: tidy(h - numbers.base) }))
    .filter(({ z }) => z >= 0 && z < top)
    .sort((a, b) => a.z - b.z)
  return (['warped', 'right', 'left'] as const).map((fold) => ({
    fold,
    volume: railsVolume(rails, fold),
    plates: levels.map(({ level, z }) => ({ level, area: loopArea(railsAt(rails, z, fold)) })),
  }))
}

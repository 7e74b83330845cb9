import { TOLERANCE } from '../solid'
import type { LevelHeight } from './heights'

/** A floor by its storey, and the other storeys at the same height: they are one floor, counted once. */
export interface OneFloor {
  level: LevelHeight
  also: LevelHeight[]
}

/** The floors of a scheme, lowest first; storeys within a millimetre of one another are one floor, called by the first of them. */
export function oneFloors(levels: readonly LevelHeight[]): OneFloor[] {
  const floors: OneFloor[] = []
  for (const level of levels) {
    if (level.kind !== 'storey') continue
    const below = floors.at(-1)
    if (below && level.height - below.level.height < TOLERANCE.least) below.also.push(level)
    else floors.push({ level, also: [] })
  }
  return floors
}

/** "Second", or "Second and Gallery" where two storeys lie at one height. */
export const floorName = ({ level, also }: { level: { name: string }; also: readonly { name: string }[] }): string =>
  [level, ...also].map((l) => l.name).join(' and ')

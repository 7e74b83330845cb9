import type { Region } from '../solid'
import type { Plate } from './plate'

/** What one mass brings to a floor: its plate, the part of it that is too low to count, and its use. */
export interface Share {
  plate: Plate
  low: Region
  use: string
  order: number
  /** what was taken off before: voids, and changes of the plate */
  off?: Off[] | undefined
  /** it is a core: gross floor, and none of the net; floor that others have too is theirs */
  core?: true
}

/** What was taken off a plate before it counts, m2. `by`: the id of the mass or of the change that did. */
export interface Off {
  why: 'void' | 'left out' | 'inset'
  by: string
  area: number
  region: Region
}

/** What was taken off the plates of a floor, by mass. */
export function offByMass(shares: readonly Share[]): Map<string, Off[]> {
  const taken = new Map<string, Off[]>()
  for (const { plate, off } of shares)
    if (off?.length) taken.set(plate.mass, [...(taken.get(plate.mass) ?? []), ...off])
  return taken
}

import type { LevelHeight } from '../levels'
import type { FloorVoid, Island, Off, Plate } from '../slice'

/** One storey's floor: all plates of the masses that take it, in islands of masses that meet. m, m2. */
export interface Floor {
  level: LevelHeight
  /** the other storeys at this height, which are the same floor and count nothing themselves */
  also: LevelHeight[]
  /** the storey at the same height at which this floor is counted; null where it is counted here */
  oneWith: LevelHeight | null
  plates: Plate[]
  islands: Island[]
  /** the islands that findings are made of: overlaps, slivers, low floor */
  noted: Island[]
  /** what voids take of it */
  voids: FloorVoid[]
  /** what was taken off its plates, by mass */
  off: ReadonlyMap<string, Off[]>
  area: number
  low: number
  perimeter: number
  /** m2 by use id */
  uses: Record<string, number>
  /** to the inner face of the outer walls; null until walls stand on it */
  net: number | null
}

/** A storey on which nothing is counted. */
export const emptyFloor = (level: LevelHeight): Floor => ({
  level,
  also: [],
  oneWith: null,
  plates: [],
  islands: [],
  noted: [],
  voids: [],
  off: new Map(),
  area: 0,
  low: 0,
  perimeter: 0,
  uses: {},
  net: null,
})

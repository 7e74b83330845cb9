import type { LedgerEntry, SurfaceFigures, Target, Terrace, VoidFigures } from '@geotome/core/study'

/** What the ledger tells of a study, as plain data; m, m2. */
export interface AreasView {
  entries: LedgerEntry[]
  voids: VoidFigures[]
  terraces: Terrace[]
  /** null while something is tried: it takes longer than areas */
  surfaces: SurfaceFigures | null
}

/** A figure that is sought, and what may move for it, by its key; SI units. */
export interface Wanted extends Target {
  mover: string
  from: number
  to: number
}

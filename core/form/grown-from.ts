import type { Id, Mass } from '../project'

/** What a body that is not stored comes from: its repeat or rule, which one of it, and the mass that is repeated. */
export interface GrownFrom {
  by: 'repeat' | 'rule'
  id: Id
  key: string
  mass: Id | null
}

/** A scheme with all that grows in it: its masses and those of its repeats, which are like drawn ones to whoever reads them. */
export interface Grown {
  masses: Record<Id, Mass>
  from: ReadonlyMap<Id, GrownFrom>
  /** what repeats and rules have to say of themselves */
  remarks: { by: GrownFrom['by']; id: Id; say: string; remedy: string }[]
}

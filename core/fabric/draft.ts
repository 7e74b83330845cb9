import type { MassForm } from '../form'
import type { LevelHeight } from '../levels'
import { takenStoreys, tiesOf, type FabricContext } from './context'
import { partKey, type Candidate, type How, type Proposal } from './offers'
import type { PartRole } from './part-shape'
import { storeyRanges, type StoreyRange } from './storey-ranges'

/** What is being proposed for one mass: what has been found so far, and what every kind of part asks. */
export interface Draft {
  context: FabricContext
  form: MassForm
  how: How
  storeys: LevelHeight[]
  ranges: StoreyRange[]
  ties: ReturnType<typeof tiesOf>
  out: Proposal
  /** The next number of a kind of part; of walls in a storey by its level. */
  next: (kind: string) => number
  offer: (role: PartRole, area: number, part: Candidate['part'], off?: number | null, warp?: number | null) => void
}

/** A tie to a level: so many m above it. */
export const tie = (level: string, above = 0) => ({ level, above })

/** An empty draft of what becomes of the faces of a form. */
export function draftFor(context: FabricContext, form: MassForm, how: How): Draft {
  const out: Proposal = { candidates: [], leftOut: [], remarks: [], faces: [] }
  const storeys = takenStoreys(context, form)
  const ties = tiesOf(context, form)
  const counts = new Map<string, number>()
  return {
    context,
    form,
    how,
    storeys,
    ranges: storeyRanges(form, storeys, ties.zFrom, ties.from),
    ties,
    out,
    next: (kind) => {
      const count = (counts.get(kind) ?? 0) + 1
      counts.set(kind, count)
      return count
    },
    offer: (role, area, part, off = null, warp = null) =>
      out.candidates.push({ key: partKey(part), role, area, off, warp, part }),
  }
}

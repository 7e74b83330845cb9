import { inOrder, type Part } from '../project'
import { howOf, partsFrom, type Choices } from './commands'
import type { FabricContext } from './context'
import type { Proposal } from './offers'
import { partSteps, type PartStudy } from './parts'
import { proposeSteps } from './propose'

/** What the faces would become by some choices, with the parts as they would be made. */
export interface Offer extends Proposal {
  /** one for each candidate, in the same order; accepting mints other ids */
  parts: Part[]
  /** those of them that have a body, by id; null: they have not been shaped yet */
  shaped: Map<string, PartStudy> | null
}

/** Reads the faces step by step: yields how much is done, 0 to 1. The parts are not shaped yet. Null masses: all. */
export function* offerSteps(
  context: FabricContext,
  masses: string[] | null,
  choices: Choices,
): Generator<number, Offer> {
  const proposal = yield* proposeSteps(context, masses ?? undefined, howOf(choices))
  let n = 0
  return { ...proposal, parts: partsFrom(context, () => `offered-${n++}`, proposal.candidates, choices), shaped: null }
}

/** Shapes the parts of an offer, joined with the parts of the scheme, step by step: yields how much is done, 0 to 1. */
export function* shapeSteps(context: FabricContext, offer: Offer): Generator<number, Offer> {
  const studied = yield* partSteps(context, [...inOrder(context.scheme.parts), ...offer.parts])
  const offered = new Set(offer.parts.map((p) => p.id))
  const shaped = new Map(studied.flatMap((p) => (offered.has(p.id) && p.body ? [[p.id, p] as const] : [])))
  return { ...offer, shaped }
}

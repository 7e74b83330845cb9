import { bodyMesh, offerSteps, shapeSteps, type Offer } from '@geotome/core/fabric'
import type { Vec2 } from '@geotome/core/solid'
import type { Study } from '@geotome/core/study'
import { merged, meshGeometry } from './geometry'
import type { Ask, ProposalView } from './protocol'
import { hash, partKey, type Send } from './thing-views'

/** an offer of so many parts is shown before they are shaped, which takes as long again */
const MANY = 3000

/** Keeps the last offer for as long as the study and the choices stay the same: accepting needs it again. */
export class LastOffer {
  private last: { study: Study; asked: string; offer: Offer } | null = null

  forget(): void {
    this.last = null
  }

  /** Works it out step by step: yields how much is done, 0 to 1. Many parts are shaped only where `whole` is asked for. */
  *steps(study: Study, ask: NonNullable<Ask['proposal']>, whole = false): Generator<number, Offer> {
    const asked = JSON.stringify(ask)
    const known = this.last?.study === study && this.last.asked === asked ? this.last.offer : null
    const read = known ?? (yield* offerSteps(study.context, ask.masses, ask.choices))
    this.last = { study, asked, offer: read }
    if (read.shaped || (read.parts.length > MANY && !whole)) return read
    const offer = yield* shapeSteps(study.context, read)
    this.last = { study, asked, offer }
    return offer
  }
}

/** What the faces would become, as the page shows it. */
export function proposalView({ shaped, parts, ...offer }: Offer, origin: Vec2, send: Send): ProposalView {
  const bodies = [...(shaped?.values() ?? [])]
  const key = `offer:${hash(bodies.map((p) => partKey(p)).join())}`
  return {
    candidates: offer.candidates.map((c, i) => ({
      key: c.key,
      off: c.off,
      warp: c.warp,
      name: c.part.name,
      role: c.role,
      mass: c.part.host.mass,
      level: c.part.base?.level ?? null,
      area: shaped?.get(parts[i]?.id ?? '')?.area ?? c.area,
    })),
    leftOut: offer.leftOut,
    remarks: offer.remarks,
    faces: offer.faces,
    volume: shaped && bodies.reduce((sum, p) => sum + p.volume, 0),
    mesh: bodies.length
      ? send(key, () =>
          merged(
            key,
            bodies.flatMap((p) => (p.body ? [meshGeometry(p.id, bodyMesh(p.body), origin)] : [])),
          ),
        )
      : null,
  }
}

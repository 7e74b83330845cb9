import { bodyMesh, howOf, partsFrom, propose, studyParts } from '@geotome/core/fabric'
import type { Vec2 } from '@geotome/core/solid'
import type { Study } from '@geotome/core/study'
import { merged, meshGeometry } from './geometry'
import type { Ask, ProposalView } from './protocol'
import { hash, partKey, type Send } from './thing-views'

/** What the faces would become, as the page shows it. */
export function proposalView(study: Study, ask: NonNullable<Ask['proposal']>, origin: Vec2, send: Send): ProposalView {
  const proposal = propose(study.context, ask.masses ?? undefined, howOf(ask.choices))
  let n = 0
  const trial = partsFrom(study.context, () => `offered-${n++}`, proposal.candidates, ask.choices)
  const shaped = studyParts(study.context, [...Object.values(study.scheme.parts), ...trial]).filter(
    (p) => p.id.startsWith('offered-') && p.body,
  )
  const key = `offer:${hash(shaped.map((p) => partKey(p)).join())}`
  return {
    candidates: proposal.candidates.map((c, i) => ({
      key: c.key,
      off: c.off,
      warp: c.warp,
      name: c.part.name,
      role: c.role,
      mass: c.part.host.mass,
      level: c.part.base?.level ?? null,
      area: shaped.find((s) => s.id === `offered-${i}`)?.area ?? c.area,
    })),
    leftOut: proposal.leftOut,
    remarks: proposal.remarks,
    faces: proposal.faces,
    volume: shaped.reduce((sum, p) => sum + p.volume, 0),
    mesh: shaped.length
      ? send(key, () =>
          merged(
            key,
            shaped.flatMap((p) => (p.body ? [meshGeometry(p.id, bodyMesh(p.body), origin)] : [])),
          ),
        )
      : null,
  }
}

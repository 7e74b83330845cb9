import type { MassForm } from '../form'
import { inOrder, type Id, type Scheme } from '../project'
import { areaOf, intersectRegions, loopArea, TOLERANCE } from '../solid'
import type { StudyCache } from './cache'
import { standingPlan } from './ground'
import type { Floor } from './floor'

/** Floor areas of a wing by level, m2; the wing of a mass by its id. */
export interface WingStudy {
  wings: { id: Id | null; name: string; areas: Record<Id, number>; total: number }[]
  of: Map<Id, Id | null>
}

/**
 * Areas by level and wing. A mass belongs to one wing: the one that it was told, or else the one whose outline holds most of its plan (the first
 * in order where two hold as much); so what spans several wings counts once. What lies in no wing is listed without one.
 */
export function studyWings(scheme: Scheme, forms: MassForm[], floors: Floor[], cache: StudyCache): WingStudy {
  const wings = inOrder(scheme.wings)
  const of = new Map<Id, Id | null>()
  if (wings.length === 0) return { wings: [], of }
  for (const form of forms) {
    const told = scheme.masses[form.id]?.wing ?? null
    of.set(
      form.id,
      told ??
        cache.memo.keep(form, 'wing', wings, () => {
          let best: { id: Id; area: number } | null = null
          for (const wing of wings) {
            if (!wing.outline) continue
            const area = areaOf(
              intersectRegions(standingPlan(form), [
                loopArea(wing.outline) < 0 ? [...wing.outline].reverse() : wing.outline,
              ]),
            )
            if (area > (best?.area ?? 0) + TOLERANCE.point) best = { id: wing.id, area }
          }
          return best?.id ?? null
        }),
    )
  }
  const rows: { id: Id | null; name: string }[] = [...wings, { id: null, name: 'in no wing' }]
  const sums = rows.map(({ id, name }) => ({ id, name, areas: {} as Record<Id, number>, total: 0 }))
  for (const floor of floors)
    for (const island of floor.islands)
      island.shares.forEach((share, i) => {
        const row = sums.find((s) => s.id === (of.get(share.plate.mass) ?? null))
        const area = island.own[i] ?? 0
        if (!row) return
        row.areas[floor.level.id] = (row.areas[floor.level.id] ?? 0) + area
        row.total += area
      })
  return { wings: sums.filter((s) => s.id !== null || s.total > TOLERANCE.point), of }
}

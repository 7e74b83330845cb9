import { floorName } from '../levels'
import { TOLERANCE } from '../solid'
import type { RatioBy } from './ratio'
import type { Study } from './types'

/** The area schedule as plain figures, m and m2; the form in which the command line gives it. */
export interface Ledger {
  scheme: string
  measuredTo: 'mass face'
  levels: {
    id: string
    /** of all storeys at that height, which are one floor */
    name: string
    /** the storey at the same height at which its floor is counted */
    oneWith: string | null
    height: number
    area: number
    low: number
    net: number | null
    perimeter: number
    uses: Record<string, number>
  }[]
  totals: {
    area: number
    low: number
    net: number | null
    /** storeys whose net floor is not known, where that of others is */ netUnknown: string[]
    volume: number
    footprint: number
    /** what projects, each by itself; in none of the other figures */
    projecting: { count: number; area: number; volume: number } | null
    ratio: number | null
    /** by the project's rule first, then by the others */ ratios: RatioBy[]
    site: number | null
    coverage: number | null
  }
  /** m2 by wing and level id; a mass that spans several counts in the one that holds most of its plan */
  wings: { id: string | null; name: string; areas: Record<string, number>; total: number }[]
}

/** The ledger of a study: storeys from the lowest up, uses by name. `area` is gross, to the mass face; `net` to the inner face of the outer walls. */
export function ledgerOf(study: Study): Ledger {
  const { project, scheme, floors, totals } = study
  return {
    scheme: scheme.name,
    measuredTo: 'mass face',
    levels: floors.map((f) => ({
      id: f.level.id,
      name: floorName(f),
      oneWith: f.oneWith?.name ?? null,
      height: f.level.height,
      area: round(f.area),
      low: round(f.low),
      net: f.net === null ? null : round(f.net),
      perimeter: round(f.perimeter),
      uses: Object.fromEntries(
        Object.entries(f.uses)
          .filter(([, area]) => area > TOLERANCE.point)
          .map(([use, area]) => [project.uses[use]?.name ?? use, round(area)]),
      ),
    })),
    totals: {
      area: round(totals.area),
      low: round(totals.low),
      net: totals.net === null ? null : round(totals.net),
      netUnknown: totals.netUnknown,
      volume: round(totals.volume),
      footprint: round(totals.footprint),
      projecting: totals.projecting && {
        count: totals.projecting.count,
        area: round(totals.projecting.area),
        volume: round(totals.projecting.volume),
      },
      ratio: totals.ratio === null ? null : round(totals.ratio),
      ratios: totals.ratios.map((r) => ({ ...r, ratio: r.ratio === null ? null : round(r.ratio) })),
      site: totals.site === null ? null : round(totals.site),
      coverage: totals.coverage === null ? null : round(totals.coverage),
    },
    wings: study.wings.wings.map((w) => ({
      ...w,
      total: round(w.total),
      areas: Object.fromEntries(Object.entries(w.areas).map(([level, area]) => [level, round(area)])),
    })),
  }
}

/** Figures are given to the square millimetre: what lies below is the arithmetic's, not the form's. */
const round = (value: number) => Math.round(value * 1e6) / 1e6 + 0

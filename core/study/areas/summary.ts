import type { Id } from '../../project'
import { sketchOf, type Sketch } from '../sketch'
import type { Study } from '../types'
import { briefOf, type BriefFigure } from './brief'
import { topOf } from '../special'
import { surfacesOf } from './surfaces'
import { terracesOf } from './terraces'

/** A scheme in one glance: a picture, its figures, and how it stands to the brief. SI units; null where it is not known. */
export interface SchemeSummary {
  scheme: Id
  name: string
  aside: boolean
  sketch: Sketch
  area: number
  net: number | null
  ratio: number | null
  coverage: number | null
  height: number
  storeys: number
  volume: number
  compact: number | null
  facade: number
  terraces: number
  /** m2 by use */
  uses: Record<Id, number>
  /** storeys, lowest first: m above the datum, m2 */
  levels: { name: string; height: number; area: number }[]
  brief: BriefFigure[]
  findings: number
}

/** The summary of a scheme. */
export function summaryOf(study: Study): SchemeSummary {
  const { scheme, project, totals, floors } = study
  const surfaces = surfacesOf(study)
  const uses: Record<Id, number> = {}
  for (const floor of floors) for (const [use, area] of Object.entries(floor.uses)) uses[use] = (uses[use] ?? 0) + area
  return {
    scheme: scheme.id,
    name: scheme.name,
    aside: scheme.aside,
    sketch: sketchOf(study),
    area: totals.area,
    net: totals.net,
    ratio: totals.ratio,
    coverage: totals.coverage,
    height: topOf(study),
    storeys: floors.filter((f) => f.area > 0).length,
    volume: totals.volume,
    compact: surfaces.compact,
    facade: Object.values(surfaces.facades).reduce((sum, a) => sum + a, 0),
    terraces: terracesOf(study).reduce((sum, t) => sum + t.area, 0),
    uses,
    levels: floors.map(({ level, area }) => ({ name: level.name, height: level.height, area })),
    brief: Object.keys(project.brief).length ? briefOf(study) : [],
    findings: study.findings.length,
  }
}

import { studyParts, type FabricContext, type PartStudy } from '../fabric'
import type { MassForm } from '../form'
import { levelHeights, type LevelHeight } from '../levels'
import { inOrder, numbersOf, refuse, type Project, type Scheme } from '../project'
import { areaOf, rectOf, rectsMeet, subtractRegions, uniteRegions, type Region } from '../solid'
import type { Share } from '../slice'
import { StudyCache, touchingGroups } from './cache'
import { CHECKS } from './findings'
import type { Floor, Study, Totals } from './types'

/**
 * Everything computed of a scheme: levels, standing masses, floors, totals, fabric, findings. A generator, so that a worker
 * can pause between masses and drop what has gone stale; `studyScheme` runs it through.
 */
export function* studySteps(project: Project, schemeId: string, cache: StudyCache): Generator<void, Study> {
  const scheme = project.schemes[schemeId] ?? refuse('unknown-id', 'That scheme is not there.', 'Choose one of the schemes of the project.')
  cache.begin()
  const numbers = numbersOf(project, scheme)
  const levels = levelHeights(project, scheme, numbers)
  const heightOf = new Map(levels.map((l) => [l.id, l.height]))
  const forms: MassForm[] = []
  for (const mass of inOrder(scheme.masses)) {
    forms.push(cache.form(mass, numbers, heightOf.get(mass.base.level) ?? 0))
    yield
  }
  const context: FabricContext = { project, scheme, numbers, levels, forms: new Map(forms.map((f) => [f.id, f])), plateAt: (form, z) => cache.plate(form, z) }
  const floors: Floor[] = []
  const headroom = numbers.length(project.headroom)
  const smallest = numbers.value(project.smallestArea, 'area')
  const takers = takersOf(scheme, forms, levels)
  for (const level of levels) {
    if (level.kind !== 'storey') continue
    floors.push(floorOf(cache, level, takers.get(level.id) ?? [], headroom, smallest))
    yield
  }
  const parts = studyParts(context)
  yield
  for (const floor of floors) floor.net = netOf(floor, parts)
  const totals = totalsOf(context, cache, floors, forms)
  yield
  const study = { project, scheme, context, levels, forms, floors, totals, parts }
  return { ...study, findings: CHECKS.flatMap((check) => check.run(study)) }
}

/** The study of a scheme in one go. */
export function studyScheme(project: Project, schemeId: string, cache = new StudyCache()): Study {
  const steps = studySteps(project, schemeId, cache)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}

/** The scheme that is meant when none is named: the first. */
export const firstScheme = (project: Project): Scheme => inOrder(project.schemes)[0] ?? refuse('unknown-id', 'The project has no scheme.', 'Add a scheme.')

function takersOf(scheme: Scheme, forms: MassForm[], levels: LevelHeight[]): Map<string, MassForm[]> {
  const takers = new Map<string, MassForm[]>(levels.map((l) => [l.id, []]))
  for (const form of forms) {
    const takes = scheme.masses[form.id]?.takes
    const listed = new Set(takes?.levels)
    for (const level of levels) {
      if (listed.has(level.id) === (takes?.kind === 'only') && level.height < form.top && level.height > form.base - 1e-4) takers.get(level.id)?.push(form)
    }
  }
  return takers
}

function floorOf(cache: StudyCache, level: LevelHeight, takers: MassForm[], headroom: number, smallest: number): Floor {
  const shares: Share[] = []
  for (const form of takers) {
    const plate = cache.plate(form, level.height)
    if (plate) shares.push(cache.share(form, plate, headroom))
  }
  const islands = cache.floorIslands(level, shares, smallest)
  const floor: Floor = { level, plates: shares.map((s) => s.plate), islands, area: 0, low: 0, perimeter: 0, uses: {}, net: null }
  for (const island of islands) {
    floor.area += island.area
    floor.low += island.low
    floor.perimeter += island.perimeter
    for (const [use, area] of Object.entries(island.uses)) floor.uses[use] = (floor.uses[use] ?? 0) + area
  }
  return floor
}

/** Floor less the plans of the walls that stand on it or rise through it, m2; null while no wall stands there. */
function netOf(floor: Floor, parts: PartStudy[]): number | null {
  const walls = parts.filter((p) => p.role === 'wall' && p.body && p.part.base?.level === floor.level.id)
  if (walls.length === 0) return null
  const plans = uniteRegions(walls.map((w) => w.plan))
  const rect = rectOf(plans)
  return floor.islands.reduce((sum, i) => sum + (rectsMeet(rect, rectOf(i.counted)) ? areaOf(subtractRegions(i.counted, plans)) : i.area), 0)
}

function totalsOf(context: FabricContext, cache: StudyCache, floors: Floor[], forms: MassForm[]): Totals {
  const { project, numbers } = context
  const area = floors.reduce((sum, f) => sum + f.area, 0)
  const counted = floors.filter((f) => f.level.height > -1e-6).reduce((sum, f) =>
    sum + Object.entries(f.uses).reduce((part, [use, a]) => part + (project.uses[use]?.counts === false ? 0 : a), 0), 0)
  const siteArea = project.siteArea === null ? null : numbers.value(project.siteArea, 'area')
  return {
    area, low: floors.reduce((sum, f) => sum + f.low, 0),
    net: floors.some((f) => f.net !== null) ? floors.reduce((sum, f) => sum + (f.net ?? f.area), 0) : null,
    volume: touchingGroups(forms).reduce((sum, group) => sum + cache.groupVolume(group), 0),
    footprint: footprintOf(cache, forms), ratio: siteArea ? counted / siteArea : null,
  }
}

/** The union of all plans of masses that rise above the datum, m2. */
function footprintOf(cache: StudyCache, forms: MassForm[]): number {
  const regions = forms.filter((f) => f.top > 1e-6).map((f) => cache.footprint(f))
  const rects = regions.map(rectOf)
  const alone: Region[] = []
  const meeting: Region[] = []
  regions.forEach((r, i) => (rects.some((o, k) => k !== i && rectsMeet(o, rects[i] as (typeof rects)[number])) ? meeting : alone).push(r))
  return alone.reduce((sum, r) => sum + areaOf(r), 0) + areaOf(uniteRegions(meeting))
}

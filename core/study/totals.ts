import type { FabricContext } from '../fabric'
import type { MassForm } from '../form'
import { floorName } from '../levels'
import { areaOf, groupsThatMeet, TOLERANCE } from '../solid'
import type { StudyCache } from './cache'
import type { Floor } from './floor'
import { ratioOf, ratiosOf } from './ratio'
import { givesFloor } from './special'
import type { GroundStudy } from './ground'
import type { Totals } from './types'

/** The figures of a scheme as a whole. While something is only tried, what takes long is that of before, and said to be pending. */
export function totalsOf(
  context: FabricContext,
  cache: StudyCache,
  floors: Floor[],
  forms: MassForm[],
  ground: GroundStudy,
  trying: boolean,
): Totals {
  const { project, scheme, numbers } = context
  const how = (f: MassForm) => scheme.masses[f.id]?.projecting
  const [built, out] = [forms.filter((f) => !how(f) && givesFloor(scheme, f)), forms.filter(how)]
  const area = floors.reduce((sum, f) => sum + f.area, 0)
  const siteArea = ground.site?.area ?? (project.siteArea === null ? null : numbers.value(project.siteArea, 'area'))
  const volumes = groupsThatMeet(
    built,
    (f) => f.rect,
    (a, b) => a.base < b.top && b.base < a.top,
  )
  const footprints = footprintGroups(forms.filter((f) => how(f) !== 'apart' && givesFloor(scheme, f)))
  // What many that meet have in common takes long: while something is tried, areas do not wait for it.
  const pending =
    trying &&
    cache.lastWhole !== null &&
    !(
      volumes.every((g) => cache.groups.knows(g, 'volume')) &&
      footprints.every((g) => cache.groups.knows(g, 'footprints'))
    )
  const { volume, footprint } =
    pending && cache.lastWhole
      ? cache.lastWhole
      : {
          volume: volumes.reduce((sum, group) => sum + groupVolume(cache, group), 0),
          footprint: footprints.reduce((sum, group) => sum + groupFootprint(cache, group), 0),
        }
  cache.lastWhole = { volume, footprint }
  return {
    area,
    low: floors.reduce((sum, f) => sum + f.low, 0),
    ...netTotal(floors),
    volume,
    footprint,
    pending,
    projecting: out.length
      ? {
          count: out.length,
          area: out.reduce((sum, f) => sum + areaOf(f.body.plan()), 0),
          volume: out.reduce((sum, f) => sum + f.body.volume, 0),
        }
      : null,
    ratio: ratioOf(project, numbers, floors, siteArea),
    ratios: ratiosOf(project, numbers, floors, siteArea),
    site: siteArea,
    coverage: siteArea ? footprint / siteArea : null,
  }
}

/** Net floor as a whole: known only where it is known of every floor; else the levels where it is not, if it is known of any. */
function netTotal(floors: readonly Floor[]): Pick<Totals, 'net' | 'netUnknown'> {
  const unknown = floors.filter((f) => f.net === null && f.area > TOLERANCE.area)
  const known = floors.filter((f) => f.net !== null)
  if (known.length === 0) return { net: null, netUnknown: [] }
  if (unknown.length) return { net: null, netUnknown: unknown.map(floorName) }
  return { net: known.reduce((sum, f) => sum + (f.net ?? 0), 0), netUnknown: [] }
}

const groupNode = (what: string, group: MassForm[]) => ({
  what,
  id: group.map((f) => f.id).join(),
  name: group.map((f) => f.name).join(', '),
  masses: group.map((f) => f.id),
})
/** m3: where bodies cannot be united, each by itself. */
const groupVolume = (cache: StudyCache, group: MassForm[]): number =>
  cache.attempts.run(
    groupNode('common volume', group),
    () => cache.groups.volume(group),
    () => group.reduce((sum, f) => sum + f.body.volume, 0),
  )
const groupFootprint = (cache: StudyCache, group: MassForm[]): number =>
  cache.attempts.run(
    groupNode('footprint', group),
    () => cache.groups.footprints(group),
    () => 0,
  )

/** The masses that rise above the datum, in groups whose plans may meet. */
const footprintGroups = (forms: MassForm[]): MassForm[][] =>
  groupsThatMeet(
    forms.filter((f) => f.top > TOLERANCE.point),
    (f) => f.rect,
    () => true,
  )

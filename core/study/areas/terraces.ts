import type { MassForm } from '../../form'
import { areaOf, piecesOf, placePoint, subtractRegions, TOLERANCE, uniteRegions, type Region } from '../../solid'
import type { Floor } from '../floor'
import type { Study } from '../types'

/** A flat top at a storey beside its floor: listed apart from the floor, m2. */
export interface Terrace {
  level: string
  masses: string[]
  area: number
  region: Region
}

/** The terraces of a scheme: flat tops at the height of a storey, less the floor that stands there, where a floor lies beside them. */
export function terracesOf({ floors, forms, scheme, context }: Study): Terrace[] {
  const tops: { form: MassForm; z: number; region: Region }[] = []
  for (const form of forms) {
    if (scheme.masses[form.id]?.projecting || scheme.masses[form.id]?.gives === 'void') continue
    for (const top of context.memo.keep(form, 'flat tops', [], () => flatTops(form))) tops.push({ form, ...top })
  }
  return floors.flatMap((floor) => {
    const here = tops.filter((t) => Math.abs(t.z - floor.level.height) < TOLERANCE.height)
    if (here.length === 0 || floor.islands.length === 0) return []
    const found = context.memo.keep(floor.islands, 'terraces', [...here.map((t) => t.region)], () => {
      const inside = uniteRegions(floor.islands.map((i) => i.region))
      const open = subtractRegions(uniteRegions(here.map((t) => t.region)), inside)
      return piecesOf(open).filter((piece) => areaOf(piece) > TOLERANCE.area && isBeside(piece, floor))
    })
    if (found.length === 0) return []
    const region = found.flat()
    return [{ level: floor.level.id, masses: here.map((t) => t.form.id), area: areaOf(region), region }]
  })
}

/** The flat faces of a form that look up, in plan, by their heights (m above the datum). */
function flatTops(form: MassForm): { z: number; region: Region }[] {
  const by = new Map<string, { z: number; regions: Region[] }>()
  for (const f of form.body.flats()) {
    if (f.plane.n[2] <= 1 - TOLERANCE.rounding) continue
    const z = f.plane.d + form.at.z
    const key = z.toFixed(4)
    const known = by.get(key) ?? { z, regions: [] }
    known.regions.push(f.loops.map((l) => l.points.map((p) => placePoint([p[0], p[1]], form.at))))
    by.set(key, known)
  }
  return [...by.values()].map(({ z, regions }) => ({ z, region: uniteRegions(regions) }))
}

/** Returns true where a piece has an edge in common with the floor: moved out by a hair they have an area in common. */
function isBeside(piece: Region, floor: Floor): boolean {
  const together = uniteRegions([piece, ...floor.islands.map((i) => i.region)])
  return piecesOf(together).length <= floor.islands.reduce((n, i) => n + piecesOf(i.region).length, 0)
}

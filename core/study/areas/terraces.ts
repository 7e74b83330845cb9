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
  const built = forms.filter((f) => !scheme.masses[f.id]?.projecting && scheme.masses[f.id]?.gives !== 'void')
  return floors.flatMap((floor) => {
    const z = floor.level.height
    const tops = built.flatMap((form) => {
      const region = context.memo.keep(form, `top at ${z.toFixed(6)}`, [], () => flatTopAt(form, z))
      return region.length ? [{ form, region }] : []
    })
    if (tops.length === 0 || floor.islands.length === 0) return []
    const inside = uniteRegions(floor.islands.map((i) => i.region))
    const open = subtractRegions(uniteRegions(tops.map((t) => t.region)), inside)
    const pieces = piecesOf(open).filter((piece) => areaOf(piece) > TOLERANCE.area && isBeside(piece, floor))
    if (pieces.length === 0) return []
    const region = pieces.flat()
    return [{ level: floor.level.id, masses: tops.map((t) => t.form.id), area: areaOf(region), region }]
  })
}

/** The flat faces of a form that look up at a height, in plan. */
function flatTopAt(form: MassForm, z: number): Region {
  const faces = form.body
    .flats()
    .filter((f) => f.plane.n[2] > 1 - TOLERANCE.rounding && Math.abs(f.plane.d + form.at.z - z) < TOLERANCE.height)
  return uniteRegions(faces.map((f) => f.loops.map((l) => l.points.map((p) => placePoint([p[0], p[1]], form.at)))))
}

/** Returns true where a piece has an edge in common with the floor: moved out by a hair they have an area in common. */
function isBeside(piece: Region, floor: Floor): boolean {
  const together = uniteRegions([piece, ...floor.islands.map((i) => i.region)])
  return piecesOf(together).length <= floor.islands.reduce((n, i) => n + piecesOf(i.region).length, 0)
}

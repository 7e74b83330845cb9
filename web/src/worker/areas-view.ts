import type { Region, Vec2 } from '@geotome/core/solid'
import {
  accountOf,
  briefOf,
  differencesOf,
  entriesOf,
  platesOf,
  surfacesOf,
  terracesOf,
  voidFigures,
  type AccountItem,
  type AccountOf,
  type BriefFigure,
  type LevelDifference,
  type PlateFigures,
  type PlatesBy,
  type Study,
} from '@geotome/core/study'
import { shifted } from './floor-view'
import type { AreasView } from './areas-protocol'

/** The areas of a study, regions from the view's origin. */
export const areasView = (study: Study, origin: Vec2, trying: boolean): AreasView => ({
  entries: entriesOf(study),
  voids: voidFigures(study),
  terraces: terracesOf(study).map((t) => ({ ...t, region: shifted(t.region, origin) })),
  surfaces: trying ? null : surfacesOf(study),
})

/** The brief against a study; nothing is computed where there is none. */
export const briefView = (study: Study): BriefFigure[] =>
  Object.keys(study.project.brief).length === 0 ? [] : briefOf(study)

/** What differs in plan between two schemes, regions from the view's origin. */
export const differencesView = (a: Study, b: Study, origin: Vec2): LevelDifference[] =>
  differencesOf(a, b).map((l) => ({ ...l, only: [shifted(l.only[0], origin), shifted(l.only[1], origin)] }))

/** How a figure came to be, regions from the view's origin. */
export const accountView = (study: Study, of: Partial<AccountOf>, origin: Vec2): AccountItem[] =>
  accountOf(study, of).map((i) => ({ ...i, region: shifted(i.region, origin) }))

/** The plates of a level, regions from the view's origin. */
export function platesView(study: Study, level: string, by: PlatesBy, above: number, origin: Vec2): PlateFigures[] {
  const floor = study.floors.find((f) => f.level.id === level)
  const shift = (region: Region) => shifted(region, origin)
  return floor ? platesOf(study, floor, by, above).map((p) => ({ ...p, region: shift(p.region), arcs: [] })) : []
}

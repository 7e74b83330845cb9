import type { PartStudy, FabricContext } from '../fabric'
import type { MassForm } from '../form'
import type { LevelHeight } from '../levels'
import type { Id, Mass, Mute, Project, Scheme } from '../project'
import type { Region } from '../solid'
import type { Edit } from '../edits'
import type { Island, Plate } from '../slice'
import type { GroundStudy } from './ground'
import type { PictureStudy } from './pictures'
import type { WingStudy } from './wings'

/** One storey's floor: all plates of the masses that take it, in islands of masses that meet. m, m2. */
export interface Floor {
  level: LevelHeight
  plates: Plate[]
  islands: Island[]
  /** the islands that findings are made of: overlaps, slivers, low floor */
  noted: Island[]
  area: number
  low: number
  perimeter: number
  /** m2 by use id */
  uses: Record<string, number>
  /** to the inner face of the outer walls; null until walls stand on it */
  net: number | null
}

export interface Totals {
  area: number
  low: number
  net: number | null
  volume: number
  footprint: number
  ratio: number | null
  /** m2 of the site, and the part of it that is built on, 0 to 1; null where it is not known */ site: number | null
  coverage: number | null
}

/** Something the checks found: the place, the reason and a remedy. */
export interface Finding {
  /** the same for the same thing from study to study */
  key: string
  kind: string
  say: string
  remedy: string
  level: string | null
  masses: string[]
  parts: string[]
  /** m2, where it is one of area */
  area: number | null
  region: Region
  /** what mends it in one action, where there is such a thing; the edit is made when it is asked for */
  fix: { label: string; edit(mint: () => Id): Edit } | null
}

/** Everything computed of one scheme. */
export interface Study {
  project: Project
  scheme: Scheme
  context: FabricContext
  levels: LevelHeight[]
  forms: MassForm[]
  /** masses that stand around as context: drawn, never counted */
  around: MassForm[]
  /** masses that could not be built, and why */
  unbuilt: { mass: Mass; say: string; remedy: string }[]
  floors: Floor[]
  totals: Totals
  parts: PartStudy[]
  ground: GroundStudy
  wings: WingStudy
  pictures: PictureStudy[]
  findings: Finding[]
  /** what was found too, looked at and left, each with the reason */
  muted: (Finding & { mute: Mute })[]
}

/** A check: looks at a study without findings and says what it found. A new one is a file in findings/ and a line in its list. */
export interface Check {
  kind: string
  run(study: Omit<Study, 'findings' | 'muted'>): Finding[]
}

export const finding = (
  kind: string,
  id: string,
  say: string,
  remedy: string,
  more: Partial<Finding> = {},
): Finding => ({
  key: `${kind}:${id}`,
  kind,
  say,
  remedy,
  level: null,
  masses: [],
  parts: [],
  area: null,
  region: [],
  fix: null,
  ...more,
})

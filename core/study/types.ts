import type { PartStudy, FabricContext } from '../fabric'
import type { Grown, MassForm } from '../form'
import type { LevelHeight } from '../levels'
import type { Mass, Mute, Project, Scheme } from '../project'
import type { GroundStudy } from './ground'
import type { PictureStudy } from './pictures'
import type { WingStudy } from './wings'
import type { Floor } from './floor'
import type { RatioBy } from './ratio'
import type { Finding } from './finding'

export interface Totals {
  area: number
  low: number
  net: number | null
  /** the storeys whose net floor is not known, where that of others is: then there is no total */ netUnknown: string[]
  volume: number
  footprint: number
  /** what projects: how many, m2 of their plans, m3, each by itself; none of it is in the other figures */
  projecting: { count: number; area: number; volume: number } | null
  ratio: number | null
  /** the ratio by the project's rule, and by the others */ ratios: RatioBy[]
  /** m2 of the site, and the part of it that is built on, 0 to 1; null where it is not known */ site: number | null
  coverage: number | null
  /** what is not computed yet while something is tried: volume, footprint and coverage are those of before then */
  pending: boolean
}

/** Everything computed of one scheme. */
export interface Study {
  project: Project
  /** with the masses that grow in it: see `growth` */
  scheme: Scheme
  growth: Grown
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
  /** why it matters, in a sentence */
  why?: string
  /** it takes long and says nothing that steers a gesture: while something is tried, its last findings stay */
  afterwards?: true
  run(study: Omit<Study, 'findings' | 'muted'>): Finding[]
}

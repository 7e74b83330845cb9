import { showNumber, showQuantity, showVolume, type Project, showPerLength } from '@geotome/core/project'
import type { SchemeSummary } from '@geotome/core/study'

/** A figure that every scheme has, or has not yet: `without` says why. */
export interface SchemeFigure {
  label: string
  of: (s: SchemeSummary) => number | null
  show: (value: number, project: Project) => string
  without?: string
}

const area = (v: number, project: Project) => showQuantity(v, 'area', project)

/** What a scheme is told by in one glance. */
export const SCHEME_FIGURES: readonly SchemeFigure[] = [
  { label: 'floor area', of: (s) => s.area, show: area },
  { label: 'net of walls', of: (s) => s.net, show: area, without: 'no walls yet' },
  { label: 'floor area ratio', of: (s) => s.ratio, show: (v) => v.toFixed(3), without: 'no site area yet' },
  {
    label: 'site coverage',
    of: (s) => s.coverage,
    show: (v) => `${(v * 100).toFixed(1)} %`,
    without: 'no site area yet',
  },
  { label: 'height', of: (s) => s.height, show: (v, project) => showQuantity(v, 'length', project) },
  { label: 'storeys with floor', of: (s) => s.storeys, show: String },
  { label: 'volume', of: (s) => s.volume, show: showVolume },
  { label: 'facade area', of: (s) => s.facade, show: area },
  { label: 'surface over volume', of: (s) => s.compact, show: showPerLength },
  { label: 'terraces, apart', of: (s) => s.terraces, show: area },
]

/** The area of the level of that name; null: the scheme has none. */
export const levelOf = (name: string): SchemeFigure => ({
  label: name,
  of: (s) => s.levels.find((l) => l.name === name)?.area ?? null,
  show: (v, project) => showNumber(v, 'area', project),
})

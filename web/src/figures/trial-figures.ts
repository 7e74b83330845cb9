import { showNumber, type Project, showPerLength } from '@geotome/core/project'
import type { TrialFigures } from '@geotome/core/study'

/** What trials are compared by. */
export const FIGURES = [
  { key: 'area', label: 'total area' },
  { key: 'ratio', label: 'ratio' },
  { key: 'height', label: 'height' },
  { key: 'overlap', label: 'overlap' },
  { key: 'compact', label: 'surface over volume' },
] as const
export type FigureKey = (typeof FIGURES)[number]['key']

export const shown = (f: TrialFigures, key: FigureKey, project: Project): string => {
  const value = f[key]
  if (value === null) return key === 'compact' ? '…' : 'none'
  if (key === 'area' || key === 'overlap') return showNumber(value, 'area', project)
  if (key === 'height') return showNumber(value, 'length', project)
  return key === 'ratio' ? value.toFixed(3) : showPerLength(value, project)
}

import { briefKey, LIMITED, type BriefOf, type Project, type Use } from '@geotome/core/project'
import { sayFigure } from '@geotome/core/study'

/** What a line of the brief, or a target, can be about, with what it is called. */
export interface BriefKind {
  key: string
  label: string
  of: BriefOf
}

/** All that a figure can be sought or limited of: uses gross and net, numbers of things, figures of the whole. */
export function briefKinds(project: Project, uses: readonly Use[]): BriefKind[] {
  const kind = (of: BriefOf): BriefKind => ({ key: briefKey(of), label: label(project, of), of })
  return [
    ...uses.map((u) => kind({ kind: 'use', use: u.id, measure: 'gross' })),
    ...uses.map((u) => kind({ kind: 'use', use: u.id, measure: 'net' })),
    ...uses.map((u) => kind({ kind: 'count', use: u.id, size: 60, measure: 'gross' })),
    ...uses.map((u) => kind({ kind: 'count', use: u.id, size: 60, measure: 'net' })),
    ...LIMITED.map((figure) => kind({ kind: 'figure', figure })),
  ]
}

function label(project: Project, of: BriefOf): string {
  if (of.kind === 'count') return `number of ${project.uses[of.use]?.name ?? ''}, ${of.measure}`
  return of.kind === 'use' ? `${project.uses[of.use]?.name ?? ''}, ${of.measure}` : sayFigure(project, of)
}

/** The ways in which a target holds. */
export const BOUNDS = [
  { value: 'about', label: 'about' },
  { value: 'least', label: 'at least' },
  { value: 'most', label: 'at most' },
] as const

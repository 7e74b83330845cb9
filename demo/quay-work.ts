import { applyEdit, type Edit } from '@geotome/core/edits'
import { blankProject, type Mass, type Project } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import { firstScheme } from '@geotome/core/study'

/** The project while it is made, and what changes it; the ids count up. */
export let count = 0
export const mint = () => `6b1c4a00-0000-4000-8000-${(++count).toString(16).padStart(12, '0')}`

await openKernel()
export let project: Project = { ...blankProject(mint, 'Kiln Quay', 'm', 4200) }
export const scheme = () => firstScheme(project)
export const change = (...edits: Edit[]) => {
  for (const edit of edits) project = applyEdit(project, edit).project
}
export const levelNamed = (name: string) => Object.values(scheme().levels).find((l) => l.name === name)?.id ?? ''
export const useNamed = (name: string) => Object.values(project.uses).find((u) => u.name === name)?.id ?? ''
export const massNamed = (name: string): Mass => Object.values(scheme().masses).find((m) => m.name === name) as Mass

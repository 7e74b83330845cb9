import { inOrder, refuse, type Project, type Scheme } from '@geotome/core/project'
import { firstScheme } from '@geotome/core/study'

/** A scheme by its name or id; the first where none is named. Errors: 'unknown-id' with those that there are. */
export function schemeNamed(project: Project, name: string | undefined): Scheme {
  if (name === undefined) return firstScheme(project)
  return (
    inOrder(project.schemes).find((s) => s.id === name || s.name.toLowerCase() === name.toLowerCase()) ??
    refuse(
      'unknown-id',
      `There is no scheme "${name}".`,
      `Choose one of ${inOrder(project.schemes)
        .map((s) => s.name)
        .join(', ')}.`,
    )
  )
}

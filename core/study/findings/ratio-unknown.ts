import { type Check } from '../types'
import { finding } from '../finding'

/** The project counts the floor area ratio from a level on that this scheme does not have. */
export const ratioUnknown: Check = {
  kind: 'floor area ratio unknown',
  why: 'Without it nobody sees whether the scheme is permitted.',
  run: ({ project, levels, totals }) => {
    const rule = project.ratioRule
    if (rule.kind !== 'level' || totals.site === null) return []
    if (levels.some((l) => l.kind === 'storey' && l.name.toLowerCase() === rule.name.toLowerCase())) return []
    return [
      finding(
        'floor area ratio unknown',
        'level',
        `The floor area ratio counts from ${rule.name} on, and there is no such storey`,
        'Choose another rule in the project, or give a storey that name.',
      ),
    ]
  },
}

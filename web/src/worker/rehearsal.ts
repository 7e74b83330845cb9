import type { Edit } from '@geotome/core/edits'
import { levelHeights, moveLevel } from '@geotome/core/levels'
import { checkProject, Refusal, type Project } from '@geotome/core/project'

/** ms of rest after which it begins */
export const AT_REST = 400
/** m: what nobody would see */
const HAIR = 0.001
/** how often a level is moved: after that, what is compiled gains less than it costs */
const TIMES = 3
/** ms after which it is enough: where a study takes long, one says all */
const ENOUGH = 300

/** The second storey of a scheme, which carries others as a rule, moved by a hair and some more each time: what a drag of it would try. */
function hairMoves(project: Project, schemeId: string): Edit[] {
  const scheme = project.schemes[schemeId]
  const storeys = scheme ? levelHeights(project, scheme).filter((l) => l.kind === 'storey') : []
  const level = storeys[1] ?? storeys[0]
  if (!scheme || !level) return []
  const times = Array.from({ length: TIMES }, (_, i) => HAIR * (i + 1))
  return times.map((by) => moveLevel(project, scheme, level.id, level.height + by, 'carried'))
}

/**
 * What a drag will ask for, done at rest. What stands is checked, so that the first edit that is tried is only checked where it changes
 * things; and once for a project a level is moved and put back, so that the first moves of a drag find compiled what they need.
 */
export class Rehearsal {
  private readonly had = new WeakSet<Project>()
  /**
   * `opened`: the project as it was opened; `study`: has a study made of what is tried, or stands, and gives false where it was left off
   * for another.
   */
  async of(
    opened: Project,
    now: Project,
    scheme: string,
    study: (tried: Edit | null) => Promise<boolean>,
  ): Promise<void> {
    try {
      checkProject(now)
      if (this.had.has(opened)) return
      this.had.add(opened)
      const begun = performance.now()
      for (const tried of hairMoves(now, scheme))
        if (performance.now() - begun < ENOUGH && !(await study(tried))) return
      await study(null)
    } catch (e) {
      // Nothing was asked for: whatever is asked for next says it.
      if (!(e instanceof Refusal)) throw e
    }
  }
}

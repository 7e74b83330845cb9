import { TOLERANCE } from '../solid'
import type { Numbers, Project, RatioRule } from '../project'
import type { Floor } from './floor'

/** The storeys that a rule of the floor area ratio counts; null where it names a level that the scheme does not have. */
type Counts = (floors: readonly Floor[], ground: number) => readonly Floor[] | null

/**
 * The floors that the project's rule counts in the floor area ratio, lowest first; null where they are not known. Ground is the level
 * terrain's height, or the datum.
 */
export function ratioFloors(
  project: Project,
  numbers: Numbers,
  floors: readonly Floor[],
  rule: RatioRule = project.ratioRule,
): readonly Floor[] | null {
  const { terrain } = project
  return countsBy(rule)(floors, terrain?.kind === 'level' ? numbers.length(terrain.height) : 0)
}

function countsBy(rule: RatioRule): Counts {
  switch (rule.kind) {
    case 'datum':
      return (floors) => floors.filter((f) => f.level.height > -TOLERANCE.point)
    case 'half':
      return (floors, ground) =>
        floors.filter((f, i) => (f.level.height + headOf(f, floors.slice(i + 1))) / 2 > ground - TOLERANCE.point)
    case 'level':
      return (floors) => {
        const from = floors.find((f) => f.level.name.toLowerCase() === rule.name.toLowerCase())?.level.height
        return from === undefined ? null : floors.filter((f) => f.level.height > from - TOLERANCE.point)
      }
  }
}

/** m above the datum: where a storey ends, at the next one or, over the topmost, a storey like the one below it. */
function headOf({ level }: Floor, above: readonly Floor[]): number {
  return above.find((f) => f.level.height > level.height + TOLERANCE.least)?.level.height ?? level.height + USUAL_STOREY
}
/** m, of the topmost storey, over which no level tells where it ends */
const USUAL_STOREY = 3

/** m2 of floor that the floor area ratio counts: that of the rule's storeys, without the uses that do not count. */
export function countedArea(
  project: Project,
  numbers: Numbers,
  floors: readonly Floor[],
  rule?: RatioRule,
): number | null {
  const counted = ratioFloors(project, numbers, floors, rule)
  return (
    counted &&
    counted.reduce(
      (sum, f) =>
        sum +
        Object.entries(f.uses).reduce((part, [use, a]) => part + (project.uses[use]?.counts === false ? 0 : a), 0),
      0,
    )
  )
}

/** Floor area over site area; null where either is not known. `site`: m2. */
export function ratioOf(
  project: Project,
  numbers: Numbers,
  floors: readonly Floor[],
  site: number | null,
  rule?: RatioRule,
): number | null {
  const area = site ? countedArea(project, numbers, floors, rule) : null
  return area === null || !site ? null : area / site
}

/** A rule in words: which storeys count. */
export function sayRatioRule(rule: RatioRule): string {
  switch (rule.kind) {
    case 'datum':
      return 'storeys at or above the datum'
    case 'half':
      return 'storeys with half of their height or more above ground'
    case 'level':
      return `storeys from ${rule.name} on`
  }
}

/** The ratio by the project's own rule and by the others that need no level, each in words. */
export function ratiosOf(project: Project, numbers: Numbers, floors: readonly Floor[], site: number | null): RatioBy[] {
  const others: RatioRule[] = [{ kind: 'datum' }, { kind: 'half' }]
  const rules = [project.ratioRule, ...others.filter((r) => r.kind !== project.ratioRule.kind)]
  return rules.map((rule) => ({
    kind: rule.kind,
    say: sayRatioRule(rule),
    ratio: ratioOf(project, numbers, floors, site, rule),
  }))
}

/** The floor area ratio by one rule. */
export interface RatioBy {
  kind: RatioRule['kind']
  say: string
  ratio: number | null
}

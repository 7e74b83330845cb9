import { batch, type Edit, type SingleEdit } from '../edits'
import {
  numbersOf,
  readTyped,
  Refusal,
  refsIn,
  refuse,
  type Id,
  type Num,
  type Project,
  type Scheme,
  type Unit,
} from '../project'
import { takeName, heightOf } from './commands'
import { levelHeights, standingOn } from './heights'
import { nextName } from './names'
import { addRuns, insertLevel } from './storeys'

/** What a line means that adds levels, before it is made. */
export interface LevelLine {
  kind: 'storey' | 'mark'
  count: number
  /** m; above the level that it stands on, or from the datum */
  by: Num
  fromDatum: boolean
  /** what was typed behind the height; '' where nothing was */
  name: string
}

/** Lines that add levels, in the project's unit: one storey, several, one under, a height from the datum, and one above another level. */
export function levelExamples(unit: Unit): Record<'one' | 'many' | 'under' | 'datum' | 'above', string> {
  return {
    m: { one: '2.85 First', many: '3 x 3.15', under: '-3.3 Cellar', datum: '36', above: '3.65' },
    mm: { one: '2850 First', many: '3 x 3150', under: '-3300 Cellar', datum: '36000', above: '3650' },
    ft: { one: `9' 6" First`, many: `3 x 10' 4"`, under: `-11' Cellar`, datum: `118'`, above: `12'` },
  }[unit]
}

/**
 * Reads a line that adds levels: `2.85 First` (so much above), `-3.3 Cellar` (under), `@36 Ridge` (from the datum), `3 x 3.15` (three),
 * with `mark` in front a mark. The height is the longest beginning that is one, so that sums, units and names of levels may stand in it.
 * Errors: 'formula'.
 */
export function readLevelLine(text: string, project: Project, scheme: Scheme): LevelLine {
  const [, mark, many, at, rest = ''] = /^\s*(mark\s+)?(?:(\d+)\s*[x×]\s*)?(@\s*)?(.*?)\s*$/iu.exec(text) ?? []
  const words = rest.split(/\s+/).filter(Boolean)
  let fault: Refusal | null = null
  for (let n = words.length; n > 0; n--) {
    try {
      const { num } = readTyped(words.slice(0, n).join(' '), 'length', project, scheme)
      return {
        kind: mark ? 'mark' : 'storey',
        count: many ? Number(many) : 1,
        by: num,
        // A height by the name of a level is one from the datum, as in the field of a level.
        fromDatum: at !== undefined || refsIn(num).some((id) => scheme.levels[id]),
        name: words.slice(n).join(' '),
      }
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
      fault = e
    }
  }
  return refuse(
    'formula',
    fault?.say ?? 'No height is typed.',
    `Type how much above, then a name: ${levelExamples(project.unit).one}. Or ${levelExamples(project.unit).many} for three, @${levelExamples(project.unit).datum} from the datum.`,
  )
}

/**
 * The edit that a line means. Levels stand on `on`, or, where that is null, on the topmost one; those that go down hang under the lowest;
 * what stands on a level that they are put over is carried. Names that are not typed go on from the one below. Errors: 'size', 'formula'.
 */
export function addByLine(
  project: Project,
  scheme: Scheme,
  mint: () => Id,
  line: LevelLine,
  on: Id | null,
): { edit: Edit; on: Id } {
  const by = numbersOf(project, scheme).length(line.by)
  const levels = levelHeights(project, scheme)
  const ranked = levels.filter((l) => l.kind === 'storey')
  const own = ranked.length ? ranked : levels
  const under = (by < 0 && !line.fromDatum ? own[0]?.id : (on ?? own.at(-1)?.id)) ?? ''
  const below = own.find((l) => l.id === under)
  const taken = new Set(Object.values(scheme.levels).map((l) => l.name.toLowerCase()))
  if (line.fromDatum || line.kind === 'mark') {
    if (line.count !== 1)
      refuse('size', 'Several levels cannot be at one height.', 'Leave the count out, or the @ and the word mark.')
    const name = takeName(line.name || (line.kind === 'mark' ? 'Mark' : `Level ${levels.length}`), taken)
    const tie = line.fromDatum
      ? ({ kind: 'fixed', height: line.by } as const)
      : ({ kind: 'stacked', on: under, above: line.by } as const)
    const thing = { id: mint(), name, kind: line.kind, tie, floorBuildUp: 0, slab: 0 }
    return { edit: { edit: 'level.add', scheme: scheme.id, thing }, on: under }
  }
  if (by === 0)
    refuse(
      'size',
      'A storey height of zero puts two levels at one height.',
      'Type the height of a storey, such as 3.15 m.',
    )
  const names = namesFor(line, by < 0, below?.name ?? '', levels.length)
  if (line.count === 1) {
    const stands = standingOn(scheme, under).some(
      (l) => Math.sign(heightOf(project, scheme, l.id) - (below?.height ?? 0)) === Math.sign(by),
    )
    const level = { on: under, above: line.by, kind: line.kind, name: names(0) }
    if (stands) return { edit: insertLevel(project, scheme, mint, level, 'carried', false), on: under }
  }
  const runs = [{ count: line.count, each: line.by }]
  const added = addRuns(project, scheme, mint, { on: under, runs, pattern: '{n}', first: 0 }, 'carried')
  // The names are of the line, not of the pattern.
  let n = 0
  const named = (added.edit === 'batch' ? added.edits : [added]).map((e): SingleEdit =>
    e.edit === 'level.add' ? { ...e, thing: { ...e.thing, name: takeName(names(n++), taken) } } : e,
  )
  return { edit: batch(named), on: under }
}

/** The names of the levels of a line: what was typed, counted on where there are several; else on from the level that they stand on. */
function namesFor(line: LevelLine, down: boolean, below: string, count: number): (n: number) => string {
  const next = (name: string, n: number): string => (n === 0 ? name : next(nextName(name) ?? `${name} 2`, n - 1))
  if (line.name) return (n) => (nextName(line.name) || line.count === 1 ? next(line.name, n) : `${line.name} ${n + 1}`)
  if (down) return (n) => `Basement ${n + 1}`
  const first = nextName(below) ?? `Storey ${count}`
  return (n) => next(first, n)
}

import { TOLERANCE } from '../solid'
import { batch, type Edit, type SingleEdit } from '../edits'
import { numbersOf, refuse, tidy, type Id, type Num, type Project, type Scheme } from '../project'
import { takeName, heightOf, levelOf, restack, setTie, type Above } from './commands'
import { levelHeights, standingOn } from './heights'
import { nameBy, nextName } from './names'

/** So many storeys of one height. */
export interface Run {
  count: number
  each: Num
}

/**
 * Runs as they are written, from the bottom up: `0.6, 5.1, 38 x 3.25` (a count, x, a height; a height alone is one storey). `numOf` reads a height.
 * Errors: 'formula', 'size'.
 */
export function readRuns(text: string, numOf: (text: string) => Num): Run[] {
  const runs = text
    .split(/[;,\n]/)
    .map((t) => t.trim())
    .filter(Boolean)
    .map((entry): Run => {
      const many = /^(\d+)\s*[x×]\s*(.+)$/i.exec(entry)
      return many ? { count: Number(many[1]), each: numOf(many[2] ?? '') } : { count: 1, each: numOf(entry) }
    })
  return runs.length
    ? runs
    : refuse(
        'formula',
        'No storey height is typed.',
        'Type heights from the lowest storey up, with commas between them, and "38 x" before one that comes 38 times.',
      )
}

/**
 * Storeys on top of `on` (or, with heights below zero, hanging under it), one gesture. Levels that stood on it stand on the new topmost
 * (carried) or keep their heights (held). Names by a pattern (see nameBy), counted from `first`, downwards where `first` is below zero.
 */
export function addRuns(
  project: Project,
  scheme: Scheme,
  mint: () => Id,
  storeys: { on: Id; runs: Run[]; pattern: string; first: number },
  above: Above,
): Edit {
  const count = storeys.runs.reduce((sum, r) => sum + r.count, 0)
  const numbers = numbersOf(project, scheme)
  for (const run of storeys.runs) {
    if (!Number.isInteger(run.count) || run.count < 1 || count > 500)
      refuse('size', `${run.count} storeys cannot be added.`, 'Type a whole number from 1 to 500.')
    if (numbers.length(run.each) === 0)
      refuse(
        'size',
        'A storey height of zero puts all levels at one height.',
        'Type the height of a storey, for example 3.15 m.',
      )
  }
  const rises = storeys.runs.flatMap((r) =>
    Array.from({ length: r.count }, () => ({ num: r.each, value: numbers.length(r.each) })),
  )
  const down = (rises[0]?.value ?? 0) < 0
  if (rises.some((r) => r.value < 0 !== down))
    refuse('size', 'Some of the storeys go up and others down.', 'Add those above and those below one after the other.')
  const taken = new Set(Object.values(scheme.levels).map((l) => l.name.toLowerCase()))
  const before = standingOn(scheme, storeys.on).filter((l) => {
    const rise = heightOf(project, scheme, l.id) - heightOf(project, scheme, storeys.on)
    return down ? rise < 0 : rise > 0
  })
  const edits: SingleEdit[] = []
  let on = storeys.on
  rises.forEach(({ num }, i) => {
    const id = mint()
    const n = storeys.first < 0 ? storeys.first - i : storeys.first + i
    edits.push({
      edit: 'level.add',
      scheme: scheme.id,
      thing: {
        id,
        name: takeName(nameBy(storeys.pattern, n), taken),
        kind: 'storey',
        tie: { kind: 'stacked', on, above: num },
        floorBuildUp: 0,
        slab: 0,
      },
    })
    on = id
  })
  const total = tidy(rises.reduce((sum, r) => sum + r.value, 0))
  for (const level of before) edits.push(restack(project, scheme, level, on, above === 'held' ? -total : 0))
  return batch(edits)
}

/** Several equal storeys at one go; see addRuns. */
export const addStoreys = (
  project: Project,
  scheme: Scheme,
  mint: () => Id,
  storeys: { on: Id; count: number; each: Num; pattern: string; first: number },
  above: Above,
): Edit =>
  addRuns(
    project,
    scheme,
    mint,
    {
      on: storeys.on,
      runs: [{ count: storeys.count, each: storeys.each }],
      pattern: storeys.pattern,
      first: storeys.first,
    },
    above,
  )

/** One storey put in over another level. With `renumber` the levels above that are named alike take the next name each, and the new one the first of them. */
export function insertLevel(
  project: Project,
  scheme: Scheme,
  mint: () => Id,
  level: { on: Id; above: Num; kind: 'storey' | 'mark'; name: string },
  how: Above,
  renumber: boolean,
): Edit {
  const base = heightOf(project, scheme, level.on)
  const rise = numbersOf(project, scheme).length(level.above)
  const over = standingOn(scheme, level.on).filter(
    (l) =>
      Math.sign(heightOf(project, scheme, l.id) - base) === Math.sign(rise || 1) && (level.kind === 'storey' || false),
  )
  const id = mint()
  const chain = renumber ? alike(project, scheme, level.on, level.kind) : []
  // From the top down, so that no two ever have one name.
  const renamed = chain.flatMap((l): SingleEdit[] => {
    const next = nextName(l.name)
    return next ? [{ edit: 'level.change', scheme: scheme.id, id: l.id, set: { name: next } }] : []
  })
  const taken = new Set(
    Object.values(scheme.levels)
      .filter((l) => !chain.some((c) => c.id === l.id))
      .map((l) => l.name.toLowerCase()),
  )
  const name = chain.at(-1)?.name ?? takeName(level.name, taken)
  return batch([
    ...renamed,
    {
      edit: 'level.add',
      scheme: scheme.id,
      thing: {
        id,
        name,
        kind: level.kind,
        tie: { kind: 'stacked', on: level.on, above: level.above },
        floorBuildUp: 0,
        slab: 0,
      },
    },
    ...over.map((l) => restack(project, scheme, l, id, how === 'held' ? -rise : 0)),
  ])
}

/** The storeys above a level that go on in one numbering, the topmost first. */
function alike(project: Project, scheme: Scheme, on: Id, kind: 'storey' | 'mark'): { id: Id; name: string }[] {
  const height = heightOf(project, scheme, on)
  const above = levelHeights(project, scheme).filter((l) => l.kind === kind && l.height > height + TOLERANCE.rounding)
  const chain: { id: Id; name: string }[] = []
  let expected: string | null = null
  for (const l of above) {
    if (expected !== null && l.name !== expected) break
    if (nextName(l.name) === null) break
    chain.push(l)
    expected = nextName(l.name)
  }
  return chain.reverse()
}

/**
 * Gives the storey between two levels, one stacked on the other or not, another height (m). `keep` says which of the two stays: 'lower' moves the
 * upper one and all it carries up, 'upper' moves the lower one and all that hangs under it down.
 */
export function setStoreyHeight(
  project: Project,
  scheme: Scheme,
  lower: Id,
  upper: Id,
  height: number,
  keep: 'lower' | 'upper',
  above: Above = 'carried',
): Edit {
  const [low, high] = [heightOf(project, scheme, lower), heightOf(project, scheme, upper)]
  if (!(height > 0)) refuse('size', `A storey of ${height} m has no height.`, 'Type a height above zero.')
  const by = tidy(height - (high - low))
  const [top, foot] = [levelOf(scheme, upper), levelOf(scheme, lower)]
  const numbers = numbersOf(project, scheme)
  const moved = (level: typeof top, delta: number): SingleEdit[] => [
    setTie(
      scheme,
      level.id,
      level.tie.kind === 'fixed'
        ? { kind: 'fixed', height: tidy(numbers.length(level.tie.height) + delta) }
        : { ...level.tie, above: tidy(numbers.length(level.tie.above) + delta) },
    ),
  ]
  if (keep === 'lower') {
    // Where the lower one hangs under the upper one, the upper one moves and the lower one's tie gets longer by as much.
    const hangs = foot.tie.kind === 'stacked' && foot.tie.on === upper
    const held =
      above === 'held'
        ? standingOn(scheme, upper)
            .filter((l) => l.id !== lower)
            .map((l) => restack(project, scheme, l, upper, -by))
        : []
    return batch([
      ...moved(top, by),
      ...(hangs ? [setTie(scheme, lower, { kind: 'stacked', on: upper, above: tidy(-height) })] : []),
      ...held,
    ])
  }
  const stands = top.tie.kind === 'stacked' && top.tie.on === lower
  const others = standingOn(scheme, lower)
    .filter((l) => l.id !== upper && heightOf(project, scheme, l.id) > low)
    .map((l) => restack(project, scheme, l, lower, by))
  return batch([
    ...moved(foot, -by),
    ...(stands ? [setTie(scheme, upper, { kind: 'stacked', on: lower, above: tidy(height) })] : []),
    ...others,
  ])
}

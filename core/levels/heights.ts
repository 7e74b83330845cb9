import { recipeTies } from '../moves'
import { heightsOf, inOrder, numbersOf, type Level, type Numbers, type Project, type Scheme } from '../project'

/** A level with its height above the datum, m. */
export interface LevelHeight {
  id: string
  name: string
  kind: Level['kind']
  height: number
  floorBuildUp: number
  slab: number
}

/**
 * All levels of a scheme, lowest first; equal heights by name. Heights by their ties: stacked ones follow what they stand on. The same
 * list for the same numbers: not to be changed in place.
 */
export function levelHeights(
  project: Project,
  scheme: Scheme,
  numbers: Numbers = numbersOf(project, scheme),
): LevelHeight[] {
  const known = listed.get(numbers)
  if (known?.scheme === scheme) return known.levels
  const levels = listLevels(scheme, numbers)
  listed.set(numbers, { scheme, levels })
  return levels
}
const listed = new WeakMap<Numbers, { scheme: Scheme; levels: LevelHeight[] }>()

function listLevels(scheme: Scheme, numbers: Numbers): LevelHeight[] {
  const heights = heightsOf(scheme, numbers)
  return Object.values(scheme.levels)
    .map((l) => ({
      id: l.id,
      name: l.name,
      kind: l.kind,
      height: heights.get(l.id) ?? 0,
      floorBuildUp: numbers.length(l.floorBuildUp),
      slab: numbers.length(l.slab),
    }))
    .sort((a, b) => a.height - b.height || byName(a.name, b.name))
}

const { compare: byName } = new Intl.Collator('en', { numeric: true })

/** The storeys only, lowest first. */
export const storeysOf = (levels: LevelHeight[]): LevelHeight[] => levels.filter((l) => l.kind === 'storey')

/** The levels that stand directly on the given one. */
export function standingOn(scheme: Scheme, id: string): Level[] {
  return Object.values(scheme.levels).filter((l) => l.tie.kind === 'stacked' && l.tie.on === id)
}

/** What goes along when a level is moved: the levels stacked on it, directly or over others, and what stands on any of them. */
export function carriedBy(scheme: Scheme, id: string): { levels: Level[]; masses: number; parts: number } {
  const stacked = new Map<string, string[]>()
  for (const { id, tie } of Object.values(scheme.levels))
    if (tie.kind === 'stacked') stacked.set(tie.on, [...(stacked.get(tie.on) ?? []), id])
  const along = new Set([id])
  for (const on of along) for (const level of stacked.get(on) ?? []) along.add(level)
  const tied = (tie: { level: string } | null) => tie !== null && along.has(tie.level)
  return {
    levels: [...along].slice(1).flatMap((l) => scheme.levels[l] ?? []),
    masses: Object.values(scheme.masses).filter((m) => tied(m.base) || recipeTies(m.recipe).some(tied)).length,
    parts: Object.values(scheme.parts).filter((p) => tied(p.base) || tied(p.top)).length,
  }
}

/** What refers to a level: levels that stand on it, masses that stand on it or are raised up to it, parts. */
export function dependentsOf(scheme: Scheme, id: string) {
  return {
    levels: standingOn(scheme, id),
    masses: inOrder(scheme.masses).filter(
      (m) => m.base.level === id || recipeTies(m.recipe).some((t) => t.level === id),
    ),
    parts: inOrder(scheme.parts).filter(
      (p) =>
        p.base?.level === id ||
        p.top?.level === id ||
        (p.print.kind === 'face' && (p.print.zFrom === id || p.print.zTo === id)),
    ),
  }
}

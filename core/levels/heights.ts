import { inOrder, numbersOf, refuse, tidy, type Level, type Numbers, type Project, type Scheme } from '../project'

/** A level with its height above the datum, m. */
export interface LevelHeight { id: string; name: string; kind: Level['kind']; height: number; floorBuildUp: number }

/** All levels of a scheme, lowest first; equal heights by name. Heights by their ties: stacked ones follow what they stand on. */
export function levelHeights(project: Project, scheme: Scheme, numbers: Numbers = numbersOf(project, scheme)): LevelHeight[] {
  const known = new Map<string, number>()
  const heightOf = (id: string, depth: number): number => {
    const ready = known.get(id)
    if (ready !== undefined) return ready
    const level = scheme.levels[id] ?? refuse('unknown-id', 'A level stands on one that is not there.', 'Choose another level for it to stand on.')
    if (depth > 5000) refuse('level-circle', 'The levels stand on each other in a circle.', 'Let one of them be fixed.')
    const height = tidy(level.tie.kind === 'fixed' ? numbers.length(level.tie.height) : heightOf(level.tie.on, depth + 1) + numbers.length(level.tie.above))
    known.set(id, height)
    return height
  }
  return Object.values(scheme.levels)
    .map((l) => ({ id: l.id, name: l.name, kind: l.kind, height: heightOf(l.id, 0), floorBuildUp: numbers.length(l.floorBuildUp) }))
    .sort((a, b) => a.height - b.height || a.name.localeCompare(b.name, 'en', { numeric: true }))
}

/** The storeys only, lowest first. */
export const storeysOf = (levels: LevelHeight[]): LevelHeight[] => levels.filter((l) => l.kind === 'storey')

/** The levels that stand directly on the given one. */
export function standingOn(scheme: Scheme, id: string): Level[] {
  return Object.values(scheme.levels).filter((l) => l.tie.kind === 'stacked' && l.tie.on === id)
}

/** What goes along when a level is moved: the levels stacked on it, directly or over others, and what stands on any of them. */
export function carriedBy(scheme: Scheme, id: string): { levels: Level[]; masses: number; parts: number } {
  const along = new Set([id])
  for (const on of along) for (const level of standingOn(scheme, on)) along.add(level.id)
  const tied = (tie: { level: string } | null) => tie !== null && along.has(tie.level)
  return {
    levels: [...along].slice(1).flatMap((l) => scheme.levels[l] ?? []),
    masses: Object.values(scheme.masses).filter((m) => tied(m.base)).length,
    parts: Object.values(scheme.parts).filter((p) => tied(p.base) || tied(p.top)).length,
  }
}

/** What refers to a level: levels that stand on it, masses, parts. */
export function dependentsOf(scheme: Scheme, id: string) {
  return {
    levels: standingOn(scheme, id),
    masses: inOrder(scheme.masses).filter((m) => m.base.level === id),
    parts: inOrder(scheme.parts).filter((p) => p.base?.level === id || p.top?.level === id || (p.print.kind === 'face' && p.print.zFrom === id)),
  }
}

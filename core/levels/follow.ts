import { TOLERANCE } from '../solid'
import { applyEdit, type Edit } from '../edits'
import { recipeTies } from '../moves'
import { inOrder, type Id, type Project, type Scheme } from '../project'
import { levelHeights } from './heights'

/**
 * What an edit of levels brings about: levels that move, that come and go; masses and parts that follow; and what stays although its
 * levels move.
 */
export interface Consequences {
  moved: { id: Id; name: string; from: number; to: number }[]
  added: { name: string; height: number }[]
  removed: { name: string; height: number }[]
  renamed: { from: string; to: string }[]
  /** levels above what moves that keep their heights */
  held: string[]
  masses: { name: string; how: 'moves' | 'grows' | 'shrinks' }[]
  /** masses that reach over a moved level without being tied to it: they are cut elsewhere */
  cut: string[]
  /** parts tied to levels that move; parts that are let go, and stay */
  parts: number
  loose: string[]
  topmost: { name: string; height: number } | null
}

/** What follows an edit of levels: which of them move, are added or go, and which masses and parts they take along. */
export function consequencesOf(project: Project, scheme: Scheme, edit: Edit): Consequences {
  const after = applyEdit(project, edit).project
  const next = after.schemes[scheme.id] ?? scheme
  const [old, now] = [levelHeights(project, scheme), levelHeights(after, next)]
  const was = new Map(old.map((l) => [l.id, l])),
    is = new Map(now.map((l) => [l.id, l]))
  const moved = old.flatMap((l) => {
    const to = is.get(l.id)
    return to && Math.abs(to.height - l.height) > TOLERANCE.rounding
      ? [{ id: l.id, name: to.name, from: l.height, to: to.height }]
      : []
  })
  const along = new Set(moved.map((m) => m.id))
  const lowest = Math.min(...moved.map((m) => m.from), ...now.filter((l) => !was.has(l.id)).map((l) => l.height))
  const by = (level: Id) => (is.get(level)?.height ?? 0) - (was.get(level)?.height ?? is.get(level)?.height ?? 0)
  const masses: Consequences['masses'] = []
  const cut: string[] = []
  for (const mass of inOrder(scheme.masses)) {
    const base = by(mass.base.level)
    const tops = recipeTies(mass.recipe).map((t) => by(t.level))
    const grows = Math.max(0, ...tops.map((t) => t - base)) + Math.min(0, ...tops.map((t) => t - base))
    if (tops.length && Math.abs(grows) > TOLERANCE.rounding)
      masses.push({ name: mass.name, how: grows > 0 ? 'grows' : 'shrinks' })
    else if (Math.abs(base) > TOLERANCE.rounding) masses.push({ name: mass.name, how: 'moves' })
    else if (moved.some((m) => m.from > (was.get(mass.base.level)?.height ?? 0) + TOLERANCE.rounding))
      cut.push(mass.name)
  }
  const parts = Object.values(scheme.parts)
  // Walls that reach through, roofs and parapets have no tie of their own to a level that moves: they follow their mass.
  const going = new Set(
    inOrder(scheme.masses)
      .filter((m) => [m.base, ...recipeTies(m.recipe)].some((t) => along.has(t.level)))
      .map((m) => m.id),
  )
  const tied = parts.filter(
    (p) =>
      [p.base, p.top].some((t) => t && along.has(t.level)) ||
      (p.kind !== 'slab' && p.top === null && going.has(p.host.mass)) ||
      (p.print.kind === 'face' && [p.print.zFrom, p.print.zTo].some((l) => l !== null && along.has(l))),
  )
  return {
    moved,
    added: now.filter((l) => !was.has(l.id)),
    removed: old.filter((l) => !is.has(l.id)),
    renamed: old.flatMap((l) => {
      const to = is.get(l.id)
      return to && to.name !== l.name ? [{ from: l.name, to: to.name }] : []
    }),
    held: old
      .filter((l) => l.height > lowest + TOLERANCE.rounding && is.has(l.id) && !along.has(l.id))
      .map((l) => l.name),
    masses,
    cut,
    parts: tied.filter((p) => !p.letGo).length,
    loose: tied.filter((p) => p.letGo).map((p) => p.name),
    topmost: now.at(-1) ?? null,
  }
}

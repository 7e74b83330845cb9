import { batch, type Edit, type SingleEdit } from '../edits'
import { levelHeights, moveLevel } from '../levels'
import { singles } from '../edits'
import { readsOf } from '../moves'
import {
  freeName,
  namesOf,
  nextOrder,
  refuse,
  tidy,
  type Id,
  type Mass,
  type Part,
  type Project,
  type Scheme,
} from '../project'

/** What is brought over from one scheme to another: masses, levels by their ids in the first one, and whether the masses' parts come along. */
export interface Brought {
  masses: readonly Id[]
  levels: readonly Id[]
  parts: boolean
}

/**
 * Brings masses, levels and parts over from one scheme to another of the same project, with their ids, so that the two can be compared further. What
 * is there already under the same id becomes like it. Levels are the same by id or name; those that are missing come along at
 * their heights, and so do dials that are named, and masses that are read. Errors: 'unknown-id', 'edit' for a scheme and itself.
 */
export function bringOver(project: Project, from: Scheme, to: Scheme, what: Brought): Edit {
  if (from.id === to.id)
    refuse('edit', `"${from.name}" is both where it comes from and where it goes.`, 'Choose another scheme.')
  const masses = withRead(from, what.masses)
  const parts = what.parts ? Object.values(from.parts).filter((p) => masses.some((m) => m.id === p.host.mass)) : []
  const heights = new Map(levelHeights(project, from).map((l) => [l.id, l.height]))
  const edits: SingleEdit[] = []
  const ids = new Map<Id, Id>()
  const names = namesOf(to.levels)
  const said = JSON.stringify([masses, parts])
  for (const level of Object.values(from.levels)) {
    const wanted = what.levels.includes(level.id)
    if (!wanted && !said.includes(level.id)) continue
    const there =
      to.levels[level.id] ?? Object.values(to.levels).find((l) => l.name.toLowerCase() === level.name.toLowerCase())
    if (there) {
      ids.set(level.id, there.id)
      if (wanted) edits.push(...singles(moveLevel(project, to, there.id, heights.get(level.id) ?? 0, 'held')))
      continue
    }
    const name = freeName(level.name, names)
    names.push(name)
    const height = tidy(heights.get(level.id) ?? 0)
    const thing = { ...level, name, tie: { kind: 'fixed' as const, height } }
    edits.push({ edit: 'level.add', scheme: to.id, thing })
  }
  for (const dial of Object.values(from.dials)) {
    if (!said.includes(`{${dial.id}}`) || to.dials[dial.id]) continue
    const all = [...Object.values(project.dials), ...Object.values(project.measures), ...Object.values(to.dials)]
    const name = freeName(
      dial.name,
      all.map((d) => d.name),
      (_, n) => `${dial.name}_${n}`,
    )
    edits.push({ edit: 'dial.add', scheme: to.id, thing: { ...dial, name, order: nextOrder(to.dials) } })
  }
  for (const mass of masses) {
    const thing: Mass = { ...renamed(mass, ids), wing: mass.wing && to.wings[mass.wing] ? mass.wing : null }
    const { id: _id, ...set } = thing
    edits.push(
      to.masses[mass.id]
        ? { edit: 'mass.change', scheme: to.id, id: mass.id, set }
        : { edit: 'mass.add', scheme: to.id, thing },
    )
  }
  for (const part of parts) {
    const thing: Part = renamed(part, ids)
    const { id: _id, ...set } = thing
    edits.push(
      to.parts[part.id]
        ? { edit: 'part.change', scheme: to.id, id: part.id, set }
        : { edit: 'part.add', scheme: to.id, thing },
    )
  }
  if (edits.length === 0)
    refuse('edit', `Nothing of "${from.name}" is chosen.`, 'Choose masses or levels that are to come over.')
  return batch(edits)
}

/** The masses, and those that they read. */
function withRead(from: Scheme, ids: readonly Id[]): Mass[] {
  const all = new Map<Id, Mass>()
  const take = (id: Id) => {
    if (all.has(id)) return
    const mass =
      from.masses[id] ??
      refuse('unknown-id', `"${from.name}" has no such mass.`, 'Choose one of the masses drawn there.')
    all.set(id, mass)
    for (const read of readsOf(mass.recipe)) if (from.masses[read]) take(read)
  }
  ids.forEach(take)
  return [...all.values()]
}

/** A thing with ids in it, and in its formulas, given as others. */
function renamed<T>(thing: T, ids: ReadonlyMap<Id, Id>): T {
  if (typeof thing === 'string') {
    const other = ids.get(thing)
    return (other ?? thing.replace(/\{([0-9a-zA-Z-]+)\}/g, (all, id: string) => `{${ids.get(id) ?? id}}`)) as T
  }
  if (Array.isArray(thing)) return thing.map((t) => renamed(t as unknown, ids)) as T
  if (thing === null || typeof thing !== 'object') return thing
  return Object.fromEntries(Object.entries(thing).map(([k, v]) => [ids.get(k) ?? k, renamed(v as unknown, ids)])) as T
}

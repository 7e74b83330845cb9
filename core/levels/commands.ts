import { batch, type Edit, type SingleEdit } from '../edits'
import { recipeTies, withTies } from '../moves'
import {
  numbersOf,
  Refusal,
  refuse,
  tidy,
  type Id,
  type Level,
  type Mass,
  type Num,
  type Part,
  type Project,
  type Scheme,
  type StoreyUse,
  freeName,
} from '../project'
import { ruleRetied } from '../rules'
import { dependentsOf, levelHeights, standingOn, storeysOf } from './heights'

/** Whether the levels that stand on a moved one go with it, or keep their heights. */
export type Above = 'carried' | 'held'

/** Moves a level to a height (m). Those stacked on it are carried along or held; a fixed level never follows. */
export function moveLevel(project: Project, scheme: Scheme, id: Id, height: number, above: Above): Edit {
  const level = levelOf(scheme, id)
  const by = tidy(height - heightOf(project, scheme, id))
  const numbers = numbersOf(project, scheme)
  const edits = [
    setTie(
      scheme,
      id,
      level.tie.kind === 'fixed'
        ? { kind: 'fixed', height: tidy(height) }
        : { ...level.tie, above: tidy(numbers.length(level.tie.above) + by) },
    ),
  ]
  if (above === 'held') for (const on of standingOn(scheme, id)) edits.push(restack(project, scheme, on, id, -by))
  return batch(edits)
}

/** Gives a level another tie. Those stacked on it are carried or held. */
export function retieLevel(project: Project, scheme: Scheme, id: Id, tie: Level['tie'], above: Above): Edit {
  const trial = { ...scheme, levels: { ...scheme.levels, [id]: { ...levelOf(scheme, id), tie } } }
  const by = tidy(heightOf(project, trial, id) - heightOf(project, scheme, id))
  const edits = [setTie(scheme, id, tie)]
  if (above === 'held') for (const on of standingOn(scheme, id)) edits.push(restack(project, scheme, on, id, -by))
  return batch(edits)
}

/** The same tie said the other way, at the same height: stacked on the next level below (or above, under the datum), or fixed. */
export function tieAs(project: Project, scheme: Scheme, id: Id, kind: Level['tie']['kind']): Level['tie'] {
  const levels = levelHeights(project, scheme)
  const height = heightOf(project, scheme, id)
  if (kind === 'fixed') return { kind, height }
  const free = levels.filter((l) => l.id !== id && !standsOn(scheme, l.id, id))
  const below = free.filter((l) => l.height <= height).at(-1)
  const above = free.find((l) => l.height > height)
  const on =
    (height < 0 ? (above ?? below) : (below ?? above)) ??
    refuse('in-use', 'There is no other level to stand on.', 'Add a level first, or leave this one fixed.')
  return { kind, on: on.id, above: tidy(height - on.height) }
}

/** A new level so much above (or below) another one. `mint` gives its id. */
export function addLevel(
  scheme: Scheme,
  mint: () => Id,
  level: { name: string; kind: Level['kind']; on: Id; above: Num },
): Edit {
  return {
    edit: 'level.add',
    scheme: scheme.id,
    thing: {
      id: mint(),
      name: level.name,
      kind: level.kind,
      tie: { kind: 'stacked', on: level.on, above: level.above },
      floorBuildUp: 0,
      slab: 0,
    },
  }
}

/**
 * Removes a level and ties what hung on it anew, at unchanged heights: levels on what it stood on, masses on the nearest
 * storey; walls and slabs that stand on it go, walls that reached up to it reach to the next storey.
 */
export function removeLevel(project: Project, scheme: Scheme, id: Id): Edit {
  const level = levelOf(scheme, id)
  const levels = levelHeights(project, scheme)
  const height = heightOf(project, scheme, id)
  const rest = levels.filter((l) => l.id !== id)
  if (rest.length === 0) refuse('in-use', 'The last level cannot be removed.', 'Add another level first.')
  const numbers = numbersOf(project, scheme)
  const hanging = dependentsOf(scheme, id)
  const { edits: unnamed, named, plain, said } = withoutName(project, scheme, id)
  const edits: SingleEdit[] = []
  for (const on of hanging.levels) {
    const above = on.tie.kind === 'stacked' ? numbers.length(on.tie.above) : 0
    edits.push(
      setTie(
        scheme,
        on.id,
        level.tie.kind === 'fixed'
          ? { kind: 'fixed', height: tidy(height + above) }
          : { kind: 'stacked', on: level.tie.on, above: tidy(numbers.length(level.tie.above) + above) },
      ),
    )
  }
  const nearest = [...(storeysOf(rest).length ? storeysOf(rest) : rest)].sort(
    (a, b) => Math.abs(a.height - height) - Math.abs(b.height - height),
  )[0]
  for (const mass of Object.values(scheme.masses)) {
    const set: Partial<Pick<Mass, 'base' | 'takes' | 'recipe' | 'place' | 'storeyUses'>> = named([
      mass.place,
      mass.recipe,
    ])
      ? { place: plain(mass.place), recipe: plain(mass.recipe) }
      : {}
    if (mass.base.level === id && nearest)
      set.base = { level: nearest.id, above: tidy(numbers.length(mass.base.above) + height - nearest.height) }
    if (mass.takes.levels.includes(id)) set.takes = { ...mass.takes, levels: mass.takes.levels.filter((l) => l !== id) }
    const uses = mass.storeyUses?.flatMap((u) => storeysLeft(u, id, levels))
    if (mass.storeyUses?.some((u) => u.from === id || u.to === id)) set.storeyUses = uses
    const retie = (above: Num) => ({
      level: nearest?.id ?? id,
      above: tidy(numbers.length(above) + height - (nearest?.height ?? height)),
    })
    if (nearest && recipeTies(mass.recipe).some((t) => t.level === id))
      set.recipe = withTies(set.recipe ?? mass.recipe, (t) => (t.level === id ? retie(t.above) : t))
    if (Object.keys(set).length) edits.push({ edit: 'mass.change', scheme: scheme.id, id: mass.id, set })
  }
  if (nearest)
    for (const rule of Object.values(scheme.rules)) {
      const { place, base, steps } = said(rule)
      const tied = ruleRetied({ ...rule, base, steps }, (t) =>
        t.level === id ? { level: nearest.id, above: tidy(numbers.length(t.above) + height - nearest.height) } : t,
      )
      const set = { ...(named([rule.place, rule.base, rule.steps]) ? { place, base, steps } : {}), ...tied }
      if (Object.keys(set).length) edits.push({ edit: 'rule.change', scheme: scheme.id, id: rule.id, set })
    }
  for (const change of Object.values(scheme.plateEdits)) {
    if (!change.levels.includes(id)) continue
    const left = change.levels.filter((l) => l !== id)
    edits.push(
      left.length
        ? { edit: 'plate-edit.change', scheme: scheme.id, id: change.id, set: { levels: left } }
        : { edit: 'plate-edit.remove', scheme: scheme.id, id: change.id },
    )
  }
  const next = storeysOf(rest).find((l) => l.height > height)
  for (const part of hanging.parts) {
    if (part.letGo && nearest) {
      // What was let go keeps its heights: it hangs on another level now, at the height that this one has for it.
      const [was, is] = [part.stays?.[id] ?? height, part.stays?.[nearest.id] ?? nearest.height]
      const tied = (tie: Part['base']) =>
        tie?.level === id ? { level: nearest.id, above: tidy(numbers.length(tie.above) + was - is) } : tie
      edits.push({
        edit: 'part.change',
        scheme: scheme.id,
        id: part.id,
        set: {
          base: tied(part.base),
          top: tied(part.top),
          stays: { ...part.stays, [nearest.id]: is },
          ...(part.print.kind === 'face' ? { print: withoutLevel(part.print, id, nearest.id, was - is) } : {}),
        },
      })
      continue
    }
    if (part.base?.level === id) {
      edits.push({ edit: 'part.remove', scheme: scheme.id, id: part.id })
      continue
    }
    const set: { top?: typeof part.top; print?: typeof part.print } = {}
    if (part.top?.level === id) set.top = next ? { level: next.id, above: 0 } : null
    if (part.print.kind === 'face' && nearest)
      set.print = withoutLevel(part.print, id, nearest.id, height - nearest.height)
    edits.push({ edit: 'part.change', scheme: scheme.id, id: part.id, set })
  }
  return batch([...unnamed, ...edits, { edit: 'level.remove', scheme: scheme.id, id }])
}

/** Another use from storey to storey without a level that goes: it ends at the next one within, and is gone where there is none. */
function storeysLeft(use: StoreyUse, gone: Id, levels: readonly { id: Id; height: number }[]): StoreyUse[] {
  const heightOf = (id: Id) => levels.find((l) => l.id === id)?.height ?? 0
  const [low, high] = [heightOf(use.from), heightOf(use.to)].sort((a, b) => a - b) as [number, number]
  const left = levels.filter((l) => l.id !== gone && l.height >= low && l.height <= high)
  const [first, last] = [left[0], left.at(-1)]
  if (!first || !last) return []
  const up = heightOf(use.from) <= heightOf(use.to)
  const ends = up ? [first.id, last.id] : [last.id, first.id]
  return [
    { ...use, from: use.from === gone ? (ends[0] as Id) : use.from, to: use.to === gone ? (ends[1] as Id) : use.to },
  ]
}

/**
 * Formulas that name a level, as the plain numbers that they give: the level can go, and nothing moves. `edits` of levels and dials; `plain` does so in
 * anything, `said` puts the number in place of the name alone.
 */
function withoutName(project: Project, scheme: Scheme, id: Id) {
  const numbers = numbersOf(project, scheme)
  const named = (thing: unknown) => JSON.stringify(thing).includes(`{${id}}`)
  const plain = <T>(thing: T): T => {
    if (Array.isArray(thing)) return thing.map(plain) as T
    if (thing === null || typeof thing !== 'object') return thing
    if ('formula' in thing && typeof thing.formula === 'string')
      return (thing.formula.includes(`{${id}}`) ? valueOf({ formula: thing.formula }) : thing) as T
    return Object.fromEntries(Object.entries(thing).map(([k, x]) => [k, plain(x)])) as T
  }
  /** whatever the formula measures: only one of these fits */
  const valueOf = (num: Num): number => {
    for (const quantity of ['length', 'angle', 'area', 'number'] as const)
      try {
        return numbers.value(num, quantity)
      } catch (e) {
        if (!(e instanceof Refusal)) throw e
      }
    return 0
  }
  // A level that stands on the one that goes has been tied anew already, by numbers.
  const levels = Object.values(scheme.levels)
    .filter((l) => l.id !== id && named(l.tie) && !(l.tie.kind === 'stacked' && l.tie.on === id))
    .map((l) => setTie(scheme, l.id, plain(l.tie)))
  const dials = Object.values(scheme.dials)
    .filter((d) => named(d.value))
    .map((d): SingleEdit => ({ edit: 'dial.change', scheme: scheme.id, id: d.id, set: { value: plain(d.value) } }))
  // What a rule's steps give is known to its cells only: of their formulas the level alone becomes a number.
  const height = `(${heightOf(project, scheme, id)} m)`
  const said = <T>(thing: T): T => JSON.parse(JSON.stringify(thing).replaceAll(`{${id}}`, height)) as T
  return { edits: [...levels, ...dials], named, plain, said }
}

/** What a part saw of its face, its heights measured from another level; `by` is how far (m) the level that goes lies above it. */
function withoutLevel(print: Extract<Part['print'], { kind: 'face' }>, id: Id, other: Id, by: number): Part['print'] {
  const moved = (tied: boolean) => (tied ? print.zTo === id : print.zFrom === id)
  const loops = print.loops.map((l) =>
    l.map(([x = 0, y = 0, z = 0, tied]) =>
      moved(tied === 1) ? [x, y, tidy(z + by), ...(tied ? [1] : [])] : [x, y, z, ...(tied ? [1] : [])],
    ),
  )
  return {
    ...print,
    loops,
    zFrom: print.zFrom === id ? other : print.zFrom,
    zTo: print.zTo === id ? other : print.zTo,
    distance: print.zFrom === id ? print.distance + print.normal[2] * by : print.distance,
  }
}

/** The level with that id. Errors: 'unknown-id'. */
export const levelOf = (scheme: Scheme, id: Id): Level =>
  scheme.levels[id] ??
  refuse('unknown-id', 'That level is not there any more.', 'Choose one of the levels in the spine.')

/** m above the datum. */
export const heightOf = (project: Project, scheme: Scheme, id: Id): number =>
  levelHeights(project, scheme).find((l) => l.id === id)?.height ??
  refuse('unknown-id', 'That level is not there any more.', 'Choose one of the levels in the spine.')

/** The edit that gives a level another tie. */
export const setTie = (scheme: Scheme, id: Id, tie: Level['tie']): SingleEdit => ({
  edit: 'level.change',
  scheme: scheme.id,
  id,
  set: { tie },
})

/** The edit that stacks a level on another one, `by` m higher above it than it was above its own; a fixed one stays as it is. */
export function restack(project: Project, scheme: Scheme, level: Level, on: Id, by: number): SingleEdit {
  if (level.tie.kind === 'fixed') return setTie(scheme, level.id, level.tie)
  const above = by === 0 ? level.tie.above : tidy(numbersOf(project, scheme).length(level.tie.above) + by)
  return setTie(scheme, level.id, { kind: 'stacked', on, above })
}

function standsOn(scheme: Scheme, id: Id, on: Id): boolean {
  let level = scheme.levels[id]
  for (let n = 0; level && n < 5000; n++) {
    if (level.id === on) return true
    level = level.tie.kind === 'stacked' ? scheme.levels[level.tie.on] : undefined
  }
  return false
}

/** A name that no other level has: the wish itself, or with a number behind it; taken from now on. */
export function takeName(wish: string, taken: Set<string>): string {
  const name = freeName(wish, taken, (w, n) => `${w} (${n})`)
  taken.add(name.toLowerCase())
  return name
}

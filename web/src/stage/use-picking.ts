import { useRef, useState } from 'react'
import { gapOf, inside, rawName, type Vec2 } from '@geotome/core/solid'
import { withGroups } from '@geotome/core/form'
import { selectPresent } from '../app/project-slice'
import { store, useAppDispatch } from '../app/store'
import { picked, spotsPicked, type Picked } from '../app/view-slice'
import { atHeight, type View } from './camera'
import { stageGeometry } from './geometry-store'
import { hitsAt, pickAll } from './picking'
import { calledFace, sameSpot, type Spot } from './spot'
import { jointAt } from './spots'
import { isUpright, type PaneName } from './views'

/** A pane, as the pointer picks in it. */
export interface PickedIn {
  name: PaneName
  view: View
  size: Vec2
  /** m: the height of the plane that is looked at; what is cut away above */
  ground: number
  cut: number | null
  buried: boolean
  /** whether faces, edges and corners can be picked */
  spots: boolean
}

/** A thing under the pointer that can be picked: mass, part, or a spot of a mass. */
type Target = { id: string } | Spot

const isSpot = (t: Target): t is Spot => 'kind' in t

/** Picking in a pane: a click takes what lies under it, repeated clicks on one spot go to the next thing behind, which are listed. */
export function usePicking(pane: PickedIn) {
  const dispatch = useAppDispatch()
  const lastClick = useRef<{ at: Vec2; index: number; alone: boolean } | null>(null)
  const [behind, setBehind] = useState<{ at: Vec2; targets: Target[] } | null>(null)

  const choose = (target: Target | undefined, more: boolean, alone = false) => {
    const { study, picked: old, spots } = store.getState().view
    if (!target) dispatch(picked({ kind: 'nothing' }))
    else if (grownAt(target)) dispatch(picked(grownAt(target) as Picked))
    else if (isSpot(target)) {
      const kept = spots.filter((s) => s.kind === target.kind)
      dispatch(
        spotsPicked(
          !more
            ? [target]
            : kept.some((s) => sameSpot(s, target))
              ? kept.filter((s) => !sameSpot(s, target))
              : [...kept, target],
        ),
      )
    } else {
      const kind = study?.parts.some((part) => part.id === target.id) ? 'part' : 'mass'
      dispatch(picked(alone ? withOne(old, kind, [target.id], more) : withOne(old, kind, groupOf(target.id), more)))
    }
    setBehind(null)
  }
  return {
    behind,
    choose,
    /** What is listed is put away. */
    forget: () => setBehind(null),
    pick: (p: Vec2, more: boolean, face: boolean) => {
      const kind = spotKind(pane, face)
      const targets: Target[] = kind ? spotsUnder(pane, p, kind) : thingsUnder(pane, p).map((id) => ({ id }))
      const had = lastClick.current
      // Once something else was picked in between, a click is a first one again.
      const was = had ? targets[had.index] : undefined
      const again = had !== null && gapOf(had.at, p) < 5 && was !== undefined && isPicked(was)
      const first = targets[0]
      const isGroup = first !== undefined && !isSpot(first) && groupOf(first.id).length > 1
      // Of a group: all of it, then the one alone, then what lies behind.
      const alone = Boolean(again && isGroup && had?.index === 0 && !had.alone)
      const index = again && targets.length && !alone ? ((had?.index ?? 0) + 1) % targets.length : 0
      lastClick.current = { at: p, index, alone }
      choose(targets[index], more, alone)
      setBehind(again && targets.length > 1 ? { at: p, targets } : null)
    },
    nameOf: (t: Target): string => {
      const { study } = store.getState().view
      const massAt = (id: string) => study?.masses.find((m) => m.id === id)
      const massName = (id: string) => massAt(id)?.name ?? ''
      return isSpot(t)
        ? `${t.faces.map((face) => calledFace(massAt(t.mass), face)).join(', ')} of ${massName(t.mass)}`
        : massName(t.id) || (study?.parts.find((q) => q.id === t.id)?.name ?? '')
    },
    keyOf: (t: Target): string => (isSpot(t) ? `${t.mass} ${t.faces.join()}` : t.id),
  }
}

/** The repeat or rule that a body, or a spot of it, is one of; null for what is drawn. */
function grownAt(target: Target): Picked | null {
  const id = isSpot(target) ? target.mass : target.id
  const grown = store.getState().view.study?.masses.find((m) => m.id === id)?.grown
  return grown ? { kind: grown.by, ids: [grown.id], one: grown.key } : null
}

/** A mass, and those that it is in a group with. */
function groupOf(id: string): string[] {
  const scheme = selectPresent(store.getState())?.scheme
  return scheme?.masses[id]?.group ? withGroups(scheme, [id]) : [id]
}

/** Whether a target is what is picked now, or part of it. */
function isPicked(t: Target): boolean {
  const { picked: now, spots, study } = store.getState().view
  const grown = study?.masses.find((m) => m.id === (isSpot(t) ? t.mass : t.id))?.grown
  if (grown) return now.kind === grown.by && now.ids.includes(grown.id) && now.one === grown.key
  return isSpot(t) ? spots.some((s) => sameSpot(s, t)) : now.kind !== 'nothing' && now.ids.includes(t.id)
}

const withOne = (old: Picked, kind: 'mass' | 'part', some: string[], more: boolean): Picked => {
  const had = old.kind === kind && more ? old.ids : []
  const ids = some.every((id) => had.includes(id))
    ? had.filter((id) => !some.includes(id))
    : [...had, ...some.filter((id) => !had.includes(id))]
  return ids.length ? { kind, ids } : { kind: 'nothing' }
}

/** What a click picks: faces, edges or corners where they are chosen, faces with Alt; null: masses. */
export function spotKind({ spots }: PickedIn, face: boolean): Spot['kind'] | null {
  const { picks } = store.getState().view
  return !spots ? null : picks !== 'mass' ? picks : face ? 'face' : null
}

const rangeOf = ({ name, cut, buried }: PickedIn) => ({ from: buried || name !== '3d' ? -1e9 : -0.01, to: cut ?? 1e9 })

/** Masses and parts under a pixel, by id, nearest first. */
export function thingsUnder(pane: PickedIn, p: Vec2): string[] {
  const { view, size, name, cut, ground } = pane
  const { study, level, locked } = store.getState().view
  const isFree = (id: string) => !locked.includes(id)
  const hits = pickAll(view, size, p, rangeOf(pane))
    .map((h) => h.id)
    .filter(isFree)
  if (cut === null || !study || isUpright(name)) return hits
  const plane = atHeight(view, size, p, ground)
  const plates = study.floors.find((f) => f.level === level)?.plates ?? []
  const onPlate = plates
    .filter((pl) => pl.region.reduce((odd, l) => odd !== inside(l, plane), false))
    .map((pl) => pl.mass)
    .filter(isFree)
  return [...new Set([...onPlate.filter((id) => name === 'plan' || hits.length === 0 || !hits.includes(id)), ...hits])]
}

/** Faces, edges or corners of masses under a pixel, nearest first. */
export function spotsUnder(pane: PickedIn, p: Vec2, kind: Spot['kind']): Spot[] {
  const { study, hidden, locked } = store.getState().view
  if (!study) return []
  if (kind !== 'face') {
    const shown = study.masses.filter((m) => !m.context && !hidden.includes(m.id) && !locked.includes(m.id))
    const joint = jointAt(pane.view, pane.size, p, kind, shown)
    return joint ? [joint] : []
  }
  const spots = hitsAt(pane.view, pane.size, p, rangeOf(pane)).flatMap((h): Spot[] => {
    const mass = study.masses.find((m) => m.id === h.id)
    const number = mass && stageGeometry.get(mass.body)?.faceOf[h.bit]
    const face = number === undefined ? undefined : mass?.faces[number]?.name
    return face === undefined || !mass || locked.includes(mass.id)
      ? []
      : [{ kind, mass: mass.id, faces: [rawName(face)] }]
  })
  return spots.filter((s, i) => spots.findIndex((o) => sameSpot(o, s)) === i)
}

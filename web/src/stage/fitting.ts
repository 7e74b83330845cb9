import type { Vec3 } from '@geotome/core/solid'
import { fitted, inSight, panned, type Room, type View } from './camera'
import { type PaneName, isUpright, viewOf, setView } from './views'
import { useEffect, useLayoutEffect, useRef, useState } from 'react'
import { useAppSelector } from '../app/store'
import type { StoredView } from './geometry-store'

export function pointsOf(study: StudyLike): Vec3[] {
  const masses = (study?.masses ?? []).flatMap((m) =>
    m.outline.flatMap(([x, y]): Vec3[] => [
      [x, y, Math.max(0, m.base)],
      [x, y, m.top],
    ]),
  )
  return [...masses, ...(study?.ground.site?.ring ?? []).map(([x, y]): Vec3 => [x, y, 0])]
}

export function fitPane(name: PaneName, study: StudyLike, box: HTMLDivElement | undefined): void {
  if (!box) return
  const [w, h] = [box.clientWidth, box.clientHeight]
  // Upright panes leave room for the labels of the levels at their right.
  const room = isUpright(name) ? Math.min(160, w * 0.4) : 0
  const view = fitted(viewOf(name), [w - room, h], pointsOf(study), 0.82)
  setView(name, room ? panned(view, -room / 2, 0) : view)
}

/** Shows everything when a scheme is opened, when a site is there, and when its first mass is. True once that is done. */
export function useFitOnce(study: StudyLike, boxes: { current: Map<PaneName, HTMLDivElement> }): boolean {
  const [done, setDone] = useState('')
  const panes = useAppSelector((s) => s.view.panes)
  const holds = study ? (study.masses.length > 0 ? 'some' : study.ground.site ? 'site' : 'none') : ''
  const wanted = study ? `${holds}/${panes}` : ''
  useEffect(() => {
    if (!study || done === wanted) return
    const frame = requestAnimationFrame(() => {
      for (const name of boxes.current.keys()) fitPane(name, study, boxes.current.get(name))
      setDone(wanted)
    })
    return () => cancelAnimationFrame(frame)
  }, [study, wanted, done, boxes])
  return wanted !== '' && done === wanted
}

/** px at the head of a pane that its buttons cover, and at the foot of flat ones that their scale and bar do */
const [HEAD, BAR] = [50, 46]

const roomOf = (name: PaneName, box: HTMLElement): Room => {
  const verbs = parseFloat(getComputedStyle(box).getPropertyValue('--foot')) || 0
  const foot = verbs + (name === '3d' ? 0 : BAR)
  const half = box.clientHeight / 2
  return { top: half - HEAD, bottom: Math.min(half - HEAD - 40, foot - half) }
}
const high = ({ top, bottom }: Room) => top - bottom

/** When a sheet opens under the stage, what was seen stays seen; when it closes, and nobody has looked elsewhere since, all is as before. */
export function useKeptInSight(study: StudyLike, boxes: { current: Map<PaneName, HTMLDivElement> }): void {
  const latest = useRef(study)
  useLayoutEffect(() => {
    latest.current = study
  })
  const panes = useAppSelector((s) => s.view.panes)
  useEffect(() => {
    const known = new Map<Element, { room: Room; before: { view: View; room: Room } | null; given: View | null }>()
    const look = (name: PaneName, box: HTMLDivElement) => {
      const at = known.get(box)
      const room = roomOf(name, box)
      if (!at) return known.set(box, { room, before: null, given: null })
      if (Math.abs(high(room) - high(at.room)) < 1) return undefined
      const base = at.before && viewOf(name) === at.given ? at.before : { view: viewOf(name), room: at.room }
      const isBack = high(room) >= high(base.room) - 1
      const given = isBack ? base.view : inSight(base.view, pointsOf(latest.current), base.room, room)
      if (given !== viewOf(name)) setView(name, given)
      return known.set(box, { room, before: isBack ? null : base, given: isBack ? null : given })
    }
    const observer = new ResizeObserver(() => {
      for (const [name, box] of boxes.current) if (box.clientHeight > 0) look(name, box)
    })
    for (const box of boxes.current.values()) observer.observe(box)
    return () => observer.disconnect()
  }, [boxes, panes])
}

export type StudyLike = StoredView | null

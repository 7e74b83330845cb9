import type { Vec3 } from '@geotome/core/solid'
import { fitted, panned } from './camera'
import { type PaneName, isUpright, viewOf, setView } from './views'
import { useEffect, useState } from 'react'
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

export type StudyLike = StoredView | null

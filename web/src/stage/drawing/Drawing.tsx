import { useEffect, useLayoutEffect, useMemo, useRef, type RefObject } from 'react'
import { useDress, useShades, useStudy, useViewState } from '../../app/hooks'
import { useAppSelector } from '../../app/store'
import { useRunning } from '../../tools/at-work'
import { coloursOf } from '../colours'
import { pickAmong } from '../picking'
import { solids, without } from '../scene-items'
import type { StageShows } from '../shows'
import { partsOf } from '../sights'
import type { Palette } from '../theme'
import { allViews, onViews, type PaneName } from '../views'
import { hangDrawing, tellDrawing } from './client'

/** The picture of the stage: tells the drawing worker what to draw, and the pointer what there is to pick. It draws nothing itself. */
export function Drawing({
  at,
  palette,
  boxes,
}: {
  at: StageShows
  palette: Palette
  boxes: RefObject<Map<PaneName, HTMLDivElement>>
}) {
  const holder = useRef<HTMLDivElement>(null)
  const study = useStudy()
  const { shows, hidden, level, panes, section } = useViewState('shows', 'hidden', 'level', 'panes', 'section')
  const marked = useViewState('picked', 'hover', 'spots', 'hoverSpot', 'lit', 'behind')
  const tried = useAppSelector((s) => s.project.preview !== null)
  // Site and neighbours are drawn on the ground, whatever level is looked at.
  const plane = useRunning((r) => (r?.tool.aims === 'plane' && !r.taken.on ? r.plane.origin[2] : null))
  const cutBy = useMemo(() => ({ section, plane }), [section, plane])
  const dress = useDress(shows.materials)
  const pictures = useShades()
  const on = study !== null

  useLayoutEffect(() => {
    tellDrawing({ on, at, palette, shows, hidden, level, marked, dress, pictures, panes, cutBy, tried })
  }, [on, at, palette, shows, hidden, level, marked, dress, pictures, panes, cutBy, tried])
  useEffect(() => onViews(() => tellDrawing({ views: allViews() })), [])
  useLayoutEffect(() => (holder.current ? hangDrawing(holder.current) : undefined), [])
  // After all layout: by then every pane has told where it is.
  useEffect(() => {
    const element = holder.current
    if (!element) return
    const measure = () =>
      tellDrawing({
        views: allViews(),
        parts: partsOf(boxes.current, element),
        size: [element.clientWidth, element.clientHeight],
        dpr: Math.max(1, Math.min(2, devicePixelRatio)),
      })
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(element)
    for (const box of boxes.current.values()) observer.observe(box)
    return () => observer.disconnect()
  }, [boxes, panes])
  useEffect(() => {
    if (study)
      pickAmong(() => {
        const view = without(study, hidden, shows)
        const colours = dress ? coloursOf(dress, view.masses) : null
        return solids(view, at.fabric, palette, shows, colours).solid
      })
  }, [study, at, palette, shows, hidden, dress])
  return <div ref={holder} className="absolute inset-0" />
}

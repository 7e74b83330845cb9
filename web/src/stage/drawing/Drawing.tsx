import { useEffect, useLayoutEffect, useMemo, useRef, useSyncExternalStore, type RefObject } from 'react'
import { useDress, useShades, useViewState } from '../../app/hooks'
import { store, useAppSelector } from '../../app/store'
import { useRunning } from '../../tools/at-work'
import { coloursOf } from '../colours'
import type { StoredView } from '../geometry-store'
import { pickAmong } from '../picking'
import { solids, without } from '../scene-items'
import type { StageShows } from '../shows'
import { partsOf } from '../sights'
import type { Palette } from '../theme'
import { allViews, onViews, type PaneName } from '../views'
import { hangDrawing, isDrawable, onCannotDraw, tellDrawing } from './client'

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
  const on = useAppSelector((s) => s.view.study !== null)
  const { shows, hidden, level, panes, section } = useViewState('shows', 'hidden', 'level', 'panes', 'section')
  const marked = useViewState('picked', 'hover', 'spots', 'hoverSpot', 'lit', 'behind')
  const tried = useAppSelector((s) => s.project.preview !== null)
  // Site and neighbours are drawn on the ground, whatever level is looked at.
  const plane = useRunning((r) => (r?.tool.aims === 'plane' && !r.taken.on ? r.plane.origin[2] : null))
  const cutBy = useMemo(() => ({ section, plane }), [section, plane])
  const dress = useDress(shows.materials)
  const pictures = useShades()

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
    // Another screen, or zoom: the size stays, the pixels do not.
    addEventListener('resize', measure)
    return () => {
      observer.disconnect()
      removeEventListener('resize', measure)
    }
  }, [boxes, panes])
  // What there is to pick is asked for when the pointer first does: a new result only says that it is another.
  useEffect(() => {
    let among: StoredView | null = null
    const look = () => {
      const { study } = store.getState().view
      if (!study || study === among) return
      among = study
      pickAmong(() => {
        const view = without(study, hidden, shows)
        const colours = dress ? coloursOf(dress, view.masses) : null
        return solids(view, at.fabric, palette, shows, colours).solid
      })
    }
    look()
    return store.subscribe(look)
  }, [at, palette, shows, hidden, dress])
  const drawable = useSyncExternalStore(onCannotDraw, isDrawable)
  return (
    <div ref={holder} className="absolute inset-0">
      {!drawable && (
        <p
          className="absolute inset-0 z-20 m-auto h-fit w-fit max-w-md text-balance rounded border border-line bg-panel px-4 py-3 text-center text-ink2"
          role="status"
        >
          This browser cannot draw the views: reload the page, or use a current one with WebGL. Figures, lists and
          fields work all the same.
        </p>
      )}
    </div>
  )
}

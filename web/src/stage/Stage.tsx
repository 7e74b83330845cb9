import { lazy, memo, Suspense, useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { Vec2 } from '@geotome/core/solid'
import { usePickedMasses, useStudy, useViewState } from '../app/hooks'
import { store, useAppDispatch, useAppSelector } from '../app/store'
import { sectionAt } from '../app/view-slice'
import { useRunning } from '../tools/at-work'
import { sees } from './camera'
import { cutsOf, PANES } from './cuts'
import { Drawing as DrawingNow } from './drawing/Drawing'
import { Pane } from './Pane'
import { PlanBar } from './PlanBar'
import type { StageShows } from './shows'
import { paletteOf, useTheme } from './theme'
import { through, UprightBar } from './UprightBar'
import { ViewButtons } from './ViewButtons'
import { isUpright, setView, viewOf, type PaneName } from './views'
import { fitPane, useFitOnce, useKeptInSight, type StudyLike } from './fitting'
import { PaneOverlay, type Middle } from './PaneOverlay'

export const NOWHERE: Vec2 = [0, 0]
/** A new result is drawn elsewhere: nothing of it is rendered here. */
const Drawing = memo(DrawingNow)
const SchemePanes = lazy(() => import('./SchemePanes'))
const NAMES: Record<PaneName, string> = { '3d': 'View', plan: 'Plan', elevation: 'Elevation', section: 'Section' }

/** The stage: one scene in one, or two, panes in step; over it labels, handles and what is being drawn. */
export function Stage({ at }: { at: StageShows }) {
  const dispatch = useAppDispatch()
  const study = useStudy()
  const panes = useAppSelector((s) => s.view.panes)
  const levelId = useAppSelector((s) => s.view.level)
  const { shows } = useViewState('shows')
  const masses = usePickedMasses()
  const theme = useTheme()
  const palette = useMemo(() => paletteOf(theme), [theme])
  const boxes = useRef(new Map<PaneName, HTMLDivElement>())
  const [pointer, setPointer] = useState<{ pane: PaneName; at: Vec2 }>({ pane: 'plan', at: [60, 60] })
  const register = useCallback((name: PaneName, box: HTMLDivElement | null) => {
    if (box) boxes.current.set(name, box)
    else boxes.current.delete(name)
  }, [])
  const onPointer = useCallback((pane: PaneName, at: Vec2) => setPointer({ pane, at }), [])

  const level = study?.levels.find((l) => l.id === levelId)
  // Where site or neighbours are drawn, the plan is of the ground.
  const isFlat = useRunning((r) => r?.tool.aims === 'plane' && !r.taken.on)
  const isDrawing = useRunning((r) => r !== null)
  // Live fields stand beside the pointer, or where the plane that is drawn on can be seen at all.
  const livePane = useRunning((r) =>
    !r || r.tool.aims === 'space' || sees(viewOf(pointer.pane), r.plane)
      ? pointer.pane
      : (PANES[panes].find((name) => sees(viewOf(name), r.plane)) ?? pointer.pane),
  )
  // Site and neighbours are drawn on the ground, whatever level is looked at.
  const plane = useRunning((r) => (r?.tool.aims === 'plane' && !r.taken.on ? r.plane.origin[2] : null))
  const floor = study?.floors.find((f) => f.level === levelId)
  const shown = PANES[panes]
  const { elevation, section } = useViewState('elevation', 'section')
  const { cuts, z, buried } = cutsOf(shown, at, study, levelId, { section, plane })
  const middle = useMemo(() => middleOf(study), [study])
  useEffect(() => {
    setView('elevation', { ...viewOf('elevation'), azimuth: elevation })
  }, [elevation])
  useEffect(() => {
    if (section) setView('section', { ...viewOf('section'), azimuth: section.azimuth })
  }, [section?.azimuth]) // eslint-disable-line react-hooks/exhaustive-deps
  // A section that nobody has placed yet cuts through the middle of all forms.
  useEffect(() => {
    if (!section && study && shown.includes('section'))
      dispatch(sectionAt(through(-90, [middle.at[0] + study.origin[0], middle.at[1] + study.origin[1]])))
  }, [section, study, shown, middle, dispatch])
  const isFitted = useFitOnce(study, boxes)
  useKeptInSight(study, boxes)
  const beside = useAppSelector((s) => s.view.beside)

  const fitsBeside = useRef<(() => void) | null>(null)
  const fit = useCallback(() => {
    if (fitsBeside.current) return fitsBeside.current()
    for (const [name, box] of boxes.current) fitPane(name, store.getState().view.study, box)
  }, [])
  return (
    <div className="relative h-full min-h-0 flex-1 overflow-hidden bg-paper" data-fitted={isFitted}>
      {beside && (
        <Suspense>
          <SchemePanes at={at} how={beside} palette={palette} fits={fitsBeside} />
        </Suspense>
      )}
      <div className={beside ? 'hidden' : 'absolute inset-0'}>
        <Drawing at={at} palette={palette} boxes={boxes} />
      </div>
      <div
        hidden={beside !== null}
        className={
          beside
            ? ''
            : panes === 'four'
              ? 'absolute inset-x-0 top-[42px] bottom-[max(0px,calc(var(--foot)-22px))] grid grid-cols-2 grid-rows-2 border-y border-line [&>div]:border-line [&>div:nth-child(odd)]:border-r [&>div:nth-child(-n+2)]:border-b'
              : 'absolute inset-0 flex'
        }
      >
        {shown.map((name, i) => (
          <div
            key={name}
            className={
              panes === 'four'
                ? 'relative flex min-h-0 min-w-0'
                : `relative flex min-w-0 ${i ? 'flex-[2] border-l border-line' : 'flex-[3]'}`
            }
          >
            <Pane
              name={name}
              label={`${NAMES[name]} of the form${level && !isUpright(name) ? ` at ${level.name}` : ''}; everything in it is also in the lists`}
              register={register}
              ground={z}
              cut={cuts.find((c) => c.name === name)?.cut ?? null}
              buried={buried}
              movable={at.handles && !isUpright(name)}
              spots={at.handles}
              onPointer={onPointer}
            >
              {(size) => (
                <PaneOverlay
                  name={name}
                  middle={middle}
                  at={at}
                  narrow={panes === 'four'}
                  size={size}
                  z={z}
                  study={study}
                  pointer={livePane === pointer.pane ? pointer : { pane: livePane, at: [60, 60] }}
                  labels={at.plates && floor && shows.labels ? floor : null}
                  mass={at.handles && masses.length === 1 && !isDrawing ? (masses[0] ?? null) : null}
                />
              )}
            </Pane>
            {name === 'plan' && !isFlat && <PlanBar narrow={panes === 'four'} />}
            {isUpright(name) && (
              <UprightBar
                pane={name as 'elevation' | 'section'}
                narrow={panes === 'four'}
                middle={[middle.at[0] + (study?.origin[0] ?? 0), middle.at[1] + (study?.origin[1] ?? 0)]}
              />
            )}
          </div>
        ))}
      </div>
      <ViewButtons picks={at.handles} fit={fit} />
    </div>
  )
}

/** The middle and the extent of all that stands, from the view's origin. */
function middleOf(study: StudyLike): Middle {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity]
  for (const { outline } of study?.masses ?? [])
    for (const p of outline) {
      x0 = Math.min(x0, p[0])
      y0 = Math.min(y0, p[1])
      x1 = Math.max(x1, p[0])
      y1 = Math.max(y1, p[1])
    }
  if (x0 > x1) return { at: [0, 0], rect: null, reach: 20 }
  return {
    at: [(x0 + x1) / 2, (y0 + y1) / 2],
    rect: [
      [x0, y0],
      [x1, y1],
    ],
    reach: Math.hypot(x1 - x0, y1 - y0) / 2 + 4,
  }
}

import { Canvas } from '@react-three/fiber'
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react'
import type { Vec3 } from '@geotome/core/solid'
import { inOrder, showQuantity, type Scheme } from '@geotome/core/project'
import { useDress, useProject, useShades, useStudy, useViewState } from '../app/hooks'
import { useAppDispatch } from '../app/store'
import { workerReady } from '../app/study-loop'
import { schemeShown, type Beside } from '../app/view-slice'
import { studyWorker } from '../worker/client'
import { axesOf, fitted, orbited, panned, zoomed } from './camera'
import { pointsOf } from './fitting'
import { stageGeometry, type StoredView } from './geometry-store'
import { makeMaterials } from './materials'
import { PaneRenderer } from './PaneRenderer'
import { Scene } from './Scene'
import { UNMARKED } from './scene-items'
import { sightsOnPage } from './sights'
import type { StageShows } from './shows'
import type { Palette } from './theme'
import { setView, viewOf, type PaneName } from './views'

/** as many schemes can be told apart at once */
const MOST = 4
const NOTHING_HIDDEN: readonly string[] = []

/** Two to four schemes side by side: one view, one blade, one scale; what moves one moves all. */
export default function SchemePanes({
  at,
  how,
  palette,
  fits,
}: {
  at: StageShows
  how: Beside
  palette: Palette
  /** is given what shows everything */ fits: RefObject<(() => void) | null>
}) {
  const { project, scheme } = useProject()
  const study = useStudy()
  const schemes = useMemo(() => {
    const others = inOrder(project.schemes).filter((s) => s.id !== scheme.id && !s.aside)
    return [scheme, ...others].slice(0, MOST)
  }, [project.schemes, scheme])
  const others = schemes
    .slice(1)
    .map((s) => s.id)
    .join()
  const [views, setViews] = useState<readonly StoredView[]>([])
  useEffect(() => {
    let mine = true
    void workerReady()
      .then(() => studyWorker.beside(others.split(',').filter(Boolean)))
      .then((found) => mine && setViews(stageGeometry.keepBeside(found)))
      .catch(() => undefined)
    return () => {
      mine = false
    }
    // What is changed in another scheme comes with the project.
  }, [others, project.schemes])
  useEffect(() => () => void stageGeometry.keepBeside([]), [])
  const all = study ? [study, ...views.filter((v) => v.scheme !== study.scheme)] : []
  const box = useRef<HTMLDivElement>(null)
  const fit = () => {
    const pane = box.current?.firstElementChild
    const [ox, oy] = study?.origin ?? [0, 0]
    const points = all.flatMap((v) =>
      pointsOf(v).map(([x, y, z]): Vec3 => [x + v.origin[0] - ox, y + v.origin[1] - oy, z]),
    )
    // The foot of these panes is free of verbs, their head is not of names.
    if (pane) setView(how, panned(fitted(viewOf(how), [pane.clientWidth, pane.clientHeight + 70], points, 0.86), 0, 34))
  }
  fits.current = fit
  useEffect(() => () => void (fits.current = null), [fits])
  const isWhole = all.length === schemes.length
  useEffect(() => {
    if (isWhole) fits.current?.()
  }, [isWhole, how, fits])
  return (
    <div
      ref={box}
      className={`absolute inset-x-0 top-[42px] bottom-[max(0px,calc(var(--foot)-22px))] grid border-y border-line ${schemes.length > 2 ? 'grid-cols-2 grid-rows-2' : 'grid-cols-2'}`}
      data-beside={all.length}
    >
      {schemes.map((s) => (
        <SchemePane
          key={s.id}
          scheme={s}
          view={all.find((v) => v.scheme === s.id)}
          mine={study}
          at={at}
          how={how}
          palette={palette}
        />
      ))}
    </div>
  )
}

/** The level of a scheme that is the one looked at: by id, else by name, else the nearest storey at or below its height. */
function levelIn(view: StoredView, mine: StoredView | null, level: string | null): string | null {
  const own = mine?.levels.find((l) => l.id === level)
  if (!own) return null
  const storeys = view.levels.filter((l) => l.kind === 'storey')
  const found =
    view.levels.find((l) => l.id === own.id) ??
    view.levels.find((l) => l.name === own.name) ??
    [...storeys].reverse().find((l) => l.height <= own.height + 1e-5) ??
    storeys[0]
  return found?.id ?? null
}

function SchemePane({
  scheme,
  view,
  mine,
  at,
  how,
  palette,
}: {
  scheme: Scheme
  view: StoredView | undefined
  mine: StoredView | null
  at: StageShows
  how: Beside
  palette: Palette
}) {
  const dispatch = useAppDispatch()
  const { project } = useProject()
  const { shows, level } = useViewState('shows', 'level')
  const materials = useMemo(() => makeMaterials(palette), [palette])
  const dress = useDress(shows.materials)
  const pictures = useShades()
  const boxes = useRef(new Map<PaneName, HTMLDivElement>())
  const held = useRef<{ x: number; y: number; turns: boolean } | null>(null)
  const blade = view ? levelIn(view, mine, level) : null
  const z = view?.levels.find((l) => l.id === blade)?.height ?? null
  const panes = useMemo(
    () => [
      {
        name: how,
        buried: (z ?? 0) < -1e-6,
        cut: z === null ? null : how === 'plan' ? z + at.planCut : at.blade ? z : null,
      },
    ],
    [how, z, at],
  )
  // The origin of each view is its own: all are looked at from the same place in the world.
  const [dx, dy] = [(view?.origin[0] ?? 0) - (mine?.origin[0] ?? 0), (view?.origin[1] ?? 0) - (mine?.origin[1] ?? 0)]
  const sights = useMemo(
    () =>
      sightsOnPage(
        () => boxes.current.get(how) ?? null,
        boxes.current,
        (name) => {
          const own = viewOf(name)
          const [x, y, up] = own.target
          return { ...own, target: [x - dx, y - dy, up] as typeof own.target }
        },
      ),
    [how, dx, dy],
  )
  const total = view?.ledger.totals.area ?? null
  const by = total === null || !mine || view === mine ? null : total - mine.ledger.totals.area
  const missed = view?.brief.filter((b) => b.state !== 'met') ?? []
  return (
    <div
      className="relative min-h-0 min-w-0 border-line [&:nth-child(-n+2)]:border-b [&:nth-child(odd)]:border-r"
      data-scheme-pane={scheme.name}
      ref={(element) => {
        if (element) boxes.current.set(how, element)
      }}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId)
        held.current = { x: e.clientX, y: e.clientY, turns: how === '3d' && e.button === 0 && !e.shiftKey }
      }}
      onPointerMove={(e) => {
        const from = held.current
        if (!from) return
        const [mx, my] = [e.clientX - from.x, e.clientY - from.y]
        held.current = { ...from, x: e.clientX, y: e.clientY }
        setView(how, from.turns ? orbited(viewOf(how), mx, my) : panned(viewOf(how), mx, my))
      }}
      onPointerUp={() => (held.current = null)}
      onPointerCancel={() => (held.current = null)}
      onContextMenu={(e) => e.preventDefault()}
      onWheel={(e) => {
        const r = e.currentTarget.getBoundingClientRect()
        setView(
          how,
          zoomed(
            viewOf(how),
            [r.width, r.height],
            [e.clientX - r.left, e.clientY - r.top],
            Math.exp(-e.deltaY * 0.0016),
          ),
        )
      }}
    >
      {view && (
        <Canvas
          linear
          flat
          legacy
          frameloop="demand"
          dpr={[1, 2]}
          gl={{ antialias: false, localClippingEnabled: true } as never}
        >
          <Scene
            view={view}
            at={at}
            materials={materials}
            palette={palette}
            shows={shows}
            hidden={NOTHING_HIDDEN}
            level={blade}
            marked={UNMARKED}
            dress={dress}
            pictures={pictures}
            direction={() => axesOf(viewOf('3d')).toward}
          />
          <PaneRenderer panes={panes} sights={sights} materials={materials} paper={palette.paper} />
        </Canvas>
      )}
      <div className="pointer-events-none absolute top-1.5 left-1.5 rounded bg-paper/85 px-1.5 py-1 text-[12.5px] leading-4">
        <button
          className="pointer-events-auto cursor-pointer font-semibold hover:underline"
          title="Work on this scheme"
          onPointerDown={(e) => e.stopPropagation()}
          onClick={() => dispatch(schemeShown(scheme.id))}
        >
          {scheme.name}
        </button>
        {total !== null && (
          <span className="block">
            <b data-pane-total>{showQuantity(total, 'area', project)}</b>
            {by !== null && Math.abs(by) > 0.005 && (
              <span className="text-ink2">
                {' '}
                {by > 0 ? '+' : ''}
                {showQuantity(by, 'area', project)}
              </span>
            )}
          </span>
        )}
        {view && view.brief.length > 0 && (
          <span className={`block text-[11.5px] ${missed.length ? 'text-warn' : 'text-ink2'}`}>
            {missed.length ? `misses ${missed.map((b) => b.line.name).join(', ')}` : 'meets the brief'}
          </span>
        )}
      </div>
    </div>
  )
}

import { Canvas } from '@react-three/fiber'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { Vec2, Vec3 } from '@geotome/core/solid'
import { usePickedMasses, useProject, useStudy, useUnit } from '../app/hooks'
import { useAppDispatch, useAppSelector } from '../app/store'
import { panesChosen, viewsToggled, type Panes } from '../app/view-slice'
import { DrawOverlay } from '../form/DrawOverlay'
import { Handles } from '../form/Handles'
import type { Drawing } from '../form/use-draw'
import { axesOf, fitted } from './camera'
import type { StoredView } from './geometry-store'
import { PlateLabels } from './Labels'
import { makeMaterials } from './materials'
import { Pane } from './Pane'
import { North, ScaleBar, ZeroMark } from './PaneMarks'
import { PaneRenderer, type PaneCut } from './PaneRenderer'
import { Scene } from './Scene'
import { paletteOf, useTheme } from './theme'
import { setView, useView, viewOf, type PaneName } from './views'

const NOWHERE: Vec2 = [0, 0]
const towardViewer = () => axesOf(viewOf('3d')).toward
const CHOICES: { id: Panes; label: string }[] = [{ id: '3d', label: '3D' }, { id: 'plan', label: 'Plan' }, { id: 'both', label: 'Side by side' }]

/** The stage: one scene in one, or two, panes in step; over it labels, handles and what is being drawn. */
export function Stage({ desk, drawing }: { desk: string; drawing: Drawing | null }) {
  const dispatch = useAppDispatch()
  const study = useStudy()
  const panes = useAppSelector((s) => s.view.panes)
  const levelId = useAppSelector((s) => s.view.level)
  const { shows, hidden, viewsOpen, kept: keptId } = useAppSelector((s) => s.view)
  const { scheme } = useProject()
  const kept = keptId ? scheme.views[keptId] : undefined
  const masses = usePickedMasses()
  const theme = useTheme()
  const palette = useMemo(() => paletteOf(theme), [theme])
  const materials = useMemo(() => makeMaterials(palette), [palette])
  const boxes = useRef(new Map<PaneName, HTMLDivElement>())
  const [pointer, setPointer] = useState<{ pane: PaneName; at: Vec2 }>({ pane: 'plan', at: [60, 60] })
  const register = useCallback((name: PaneName, box: HTMLDivElement | null) => { if (box) boxes.current.set(name, box); else boxes.current.delete(name) }, [])
  const onPointer = useCallback((pane: PaneName, at: Vec2) => setPointer({ pane, at }), [])

  const level = study?.levels.find((l) => l.id === levelId)
  const z = level?.height ?? 0
  const floor = study?.floors.find((f) => f.level === levelId)
  const buried = z < -1e-6
  const shown: PaneName[] = panes === 'both' ? ['3d', 'plan'] : [panes]
  const cuts = useMemo(() => shownCuts(shown.join(), desk, level ? z : null, buried), [shown.join(), desk, level, z, buried]) // eslint-disable-line react-hooks/exhaustive-deps
  useFitOnce(study, boxes)

  const fit = () => { for (const name of shown) fitPane(name, study, boxes.current.get(name)) }
  return (
    <div className="relative h-full min-h-0 flex-1 overflow-hidden bg-paper">
      <div className="absolute inset-0" aria-hidden>
        <Canvas linear flat legacy frameloop="demand" dpr={[1, 2]} gl={{ antialias: true, localClippingEnabled: true } as never} onCreated={({ gl }) => { gl.debug.checkShaderErrors = import.meta.env.DEV }}>
          {study && <Scene view={study} desk={desk} materials={materials} palette={palette} shows={shows} hidden={hidden} direction={towardViewer} picking />}
          <PaneRenderer panes={cuts} boxes={boxes} materials={materials} paper={palette.paper} />
        </Canvas>
      </div>
      <div className="absolute inset-0 flex">
        {shown.map((name, i) => (
          <div key={name} className={`relative flex min-w-0 ${i ? 'flex-[2] border-l border-line' : 'flex-[3]'}`}>
            <Pane name={name} label={`${name === '3d' ? 'View' : 'Plan'} of the form${level ? ` at ${level.name}` : ''}; everything in it is also in the lists`} register={register} ground={z} cut={cuts.find((c) => c.name === name)?.cut ?? null} buried={buried} movable={desk === 'form'} onPointer={onPointer}
              draw={drawing ? { move: drawing.move, accept: () => drawing.accept(false), rising: drawing.state.stage === 'height' } : null}>
              {(size) => <PaneOverlay name={name} size={size} z={z} study={study} drawing={drawing} pointer={pointer} labels={desk === 'slice' && floor && shows.labels ? floor : null} mass={desk === 'form' && masses.length === 1 && !drawing ? masses[0] ?? null : null} />}
            </Pane>
            {name === 'plan' && <PlanCaption text={level ? `${level.name}  ${level.height > 0 ? '+' : ''}${level.height.toFixed(2)}` : ''} />}
          </div>
        ))}
      </div>
      <div className="absolute left-3 top-3 flex gap-1.5" role="group" aria-label="Views">
        {CHOICES.map((c) => <button key={c.id} className="pill" aria-pressed={panes === c.id} onClick={() => dispatch(panesChosen(c.id))}>{c.label}</button>)}
        <button className="pill" onClick={fit} title="Show everything (F)" data-fit>Show all</button>
        <button className="pill max-w-44 truncate" aria-pressed={viewsOpen} title="Kept views, and what is shown (V)" onClick={() => dispatch(viewsToggled(!viewsOpen))}>Views{kept ? `: ${kept.name}` : ''}</button>
      </div>
    </div>
  )
}

function PaneOverlay({ name, size, z, study, drawing, pointer, labels, mass }: { name: PaneName; size: Vec2; z: number; study: StudyLike; drawing: Drawing | null; pointer: { pane: PaneName; at: Vec2 }; labels: NonNullable<StudyLike>['floors'][number] | null; mass: ReturnType<typeof usePickedMasses>[number] | null }) {
  const view = useView(name)
  const unit = useUnit()
  return (
    <>
      <ZeroMark view={view} size={size} origin={study?.origin ?? NOWHERE} />
      {labels && <PlateLabels floor={labels} z={z} view={view} size={size} />}
      {mass && <Handles mass={mass} view={view} size={size} />}
      {drawing && <DrawOverlay drawing={drawing} view={view} size={size} z={z} origin={study?.origin ?? [0, 0]} live={pointer.pane === name} pointer={pointer.at} />}
      <North azimuth={view.elevation === 90 ? 0 : -90 - view.azimuth} />
      {name === 'plan' && <ScaleBar view={view} unit={unit} />}
    </>
  )
}

type StudyLike = StoredView | null

const PlanCaption = ({ text }: { text: string }) => <p className="pointer-events-none absolute bottom-[88px] left-4 text-[11px] italic text-ink2">{text && `plan at ${text}`}</p>

function shownCuts(names: string, desk: string, z: number | null, buried: boolean): PaneCut[] {
  return names.split(',').map((name) => ({
    name: name as PaneName, buried,
    cut: z === null ? null : name === 'plan' ? z + (desk === 'fabric' ? 1.2 : 0) : desk === 'slice' ? z : null,
  }))
}

function pointsOf(study: StudyLike): Vec3[] {
  return (study?.masses ?? []).flatMap((m) => m.outline.flatMap(([x, y]): Vec3[] => [[x, y, Math.max(0, m.base)], [x, y, m.top]]))
}

function fitPane(name: PaneName, study: StudyLike, box: HTMLDivElement | undefined): void {
  if (box) setView(name, fitted(viewOf(name), [box.clientWidth, box.clientHeight], pointsOf(study), 0.82))
}

/** Shows everything when a scheme is opened, and when its first mass is there. */
function useFitOnce(study: StudyLike, boxes: { current: Map<PaneName, HTMLDivElement> }): void {
  const done = useRef('')
  const panes = useAppSelector((s) => s.view.panes)
  useEffect(() => {
    if (!study) return
    const key = `${study.scheme}/${study.masses.length > 0 ? 'some' : 'none'}/${panes}`
    if (done.current === key) return
    const first = done.current === '' || done.current.split('/')[1] !== key.split('/')[1] ? true : done.current.split('/')[2] !== panes
    done.current = key
    if (first) requestAnimationFrame(() => { for (const name of boxes.current.keys()) fitPane(name, study, boxes.current.get(name)) })
  }, [study, panes, boxes])
}

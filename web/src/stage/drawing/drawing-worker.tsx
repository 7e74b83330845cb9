import { createRoot, extend, type ReconcilerRoot, type RenderProps } from '@react-three/fiber'
import { useMemo, useSyncExternalStore } from 'react'
import { LineSegments, Mesh } from 'three'
import { holdLife } from '../../worker/life'
import type { FromStudy } from '../../worker/protocol'
import { axesOf } from '../camera'
import { cutsOf, PANES } from '../cuts'
import { stageGeometry, type StoredView } from '../geometry-store'
import { makeMaterials } from '../materials'
import { PaneRenderer } from '../PaneRenderer'
import { Scene } from '../Scene'
import type { Sights } from '../sights'
import type { FromDrawing, Told, ToDrawing } from './told'

/**
 * Draws the stage away from the page. What is shown comes by two doors: the results of the study from the study's worker, all else from the
 * page. What only says where a pane lies and how it looks draws anew; the rest is rendered.
 */
extend({ Mesh, LineSegments })

interface Shown {
  told: Told
  view: StoredView | null
}
let shown: Shown | null = null
let root: ReconcilerRoot<OffscreenCanvas> | null = null
let early: StoredView | null = null
const renders = new Set<() => void>()
const draws = new Set<() => void>()

/** What is read when a frame is drawn, and not when it is rendered. */
const ON_FRAME = ['views', 'parts', 'size', 'dpr', 'tried'] as const satisfies readonly (keyof Told)[]

const sights: Sights = {
  size: () => shown?.told.size ?? [0, 0],
  partOf: (name) => shown?.told.parts[name] ?? null,
  viewOf: (name) => (shown as Shown).told.views[name],
  isTried: () => shown?.told.tried ?? false,
  onMoved(listen) {
    draws.add(listen)
    return () => draws.delete(listen)
  },
}
void holdLife().then(() => self.postMessage('alive' satisfies FromDrawing))

const toward = () => axesOf(sights.viewOf('3d')).toward

self.onmessage = ({ data }: MessageEvent<ToDrawing>) => {
  if ('results' in data) data.results.onmessage = (message: MessageEvent<FromStudy>) => heard(message.data)
  else if ('canvas' in data)
    begin(data.canvas, data.told).catch((e: unknown) => {
      console.error(e)
      self.postMessage('cannot' satisfies FromDrawing)
    })
  else if ('figures' in data) {
    if (behind !== undefined) renderAll()
  } else if (shown) tell(data.told)
}

/** A result of the study, in the order in which they were made. */
function heard(message: FromStudy): void {
  if ('forget' in message) return stageGeometry.forgetAll()
  const view = stageGeometry.keep(message.view)
  if (!shown) early = view
  else {
    shown = { ...shown, view }
    if (shown.told.tried) behind ??= setTimeout(renderAll, BEHIND)
    else renderAll()
  }
}

/** ms that the picture of what is tried leaves to the page at most, so that its figures are there first: both are drawn by the same few cores */
const BEHIND = 50
let behind: ReturnType<typeof setTimeout> | undefined
function renderAll(): void {
  clearTimeout(behind)
  behind = undefined
  for (const render of renders) render()
}

async function begin(canvas: OffscreenCanvas, told: Told): Promise<void> {
  shown = { told, view: early }
  early = null
  root = createRoot(canvas)
  await root.configure(howOf(told))
  root.render(<Picture />)
}

const howOf = ({ size: [width, height], dpr }: Told): RenderProps<OffscreenCanvas> => ({
  linear: true,
  flat: true,
  legacy: true,
  frameloop: 'demand',
  gl: GL,
  size: { width, height, top: 0, left: 0 },
  dpr,
  onCreated: ({ gl }) => {
    gl.debug.checkShaderErrors = import.meta.env.DEV
  },
})
const GL = { antialias: false, localClippingEnabled: true } as never

function tell(told: Partial<Told>): void {
  const before = shown as Shown
  shown = { ...before, told: { ...before.told, ...told } }
  if (told.size || told.dpr) void root?.configure(howOf(shown.told))
  const keys = Object.keys(told) as (keyof Told)[]
  if (keys.some((key) => !(ON_FRAME as readonly string[]).includes(key))) renderAll()
  // That something is tried shows with its first result; what is tried no longer is drawn smooth when it has rested.
  else if (keys.length > 1 || !told.tried) for (const draw of draws) draw()
}

const listen = (render: () => void) => {
  renders.add(render)
  return () => renders.delete(render)
}

function Picture() {
  const now = useSyncExternalStore(listen, () => shown)
  const { told, view } = now as Shown
  const { at, palette, shows, hidden, level, marked, dress, pictures, panes, cutBy } = told
  const materials = useMemo(() => makeMaterials(palette), [palette])
  const { cuts } = useMemo(() => cutsOf(PANES[panes], at, view, level, cutBy), [panes, at, view, level, cutBy])
  return (
    <>
      {told.on && view && (
        <Scene
          view={view}
          {...{ at, materials, palette, shows, hidden, level, marked, dress, pictures }}
          direction={toward}
        />
      )}
      <PaneRenderer panes={cuts} sights={sights} materials={materials} paper={palette.paper} />
    </>
  )
}

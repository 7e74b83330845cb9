import { transfer } from 'comlink'
import { onWorkerBegun } from '../../worker/client'
import { onDeath } from '../../worker/life'
import type { FromDrawing, Told, ToDrawing } from './told'

/**
 * The page's end of the drawing worker: one canvas for as long as the page lives, taken along from desk to desk with all that was compiled
 * for it. A worker that dies is started again, with a new canvas.
 */
interface Drawer {
  canvas: HTMLCanvasElement
  worker: Worker
  /** its canvas has been handed over, with what it was told first */ begun: boolean
}
let drawer: Drawer | null = null
/** all that it was told */
let told: Partial<Told> = {}
const deaths = new Set<() => void>()

/** Called when what draws has died and another, which knows nothing yet, has taken its place. */
export function onDrawingDied(listen: () => void): () => void {
  deaths.add(listen)
  return () => deaths.delete(listen)
}

function start(): Drawer {
  const canvas = Object.assign(document.createElement('canvas'), {
    className: 'block h-full w-full',
    ariaHidden: 'true',
  })
  const name = `drawing-${crypto.randomUUID()}`
  const worker = new Worker(new URL('./drawing-worker.tsx', import.meta.url), { type: 'module', name })
  const mine: Drawer = { canvas, worker, begun: false }
  const died = () => {
    // One that could not even begin would be started again without end.
    if (drawer !== mine || !mine.begun) return
    worker.terminate()
    // What dies of the very thing that it is to draw would die for ever.
    const now = performance.now()
    lately = [...lately.filter((at) => now - at < SOON), now]
    if (lately.length > MOST) return sayCannot()
    const holder = canvas.parentElement
    canvas.remove()
    drawer = start()
    holder?.append(drawer.canvas)
    openDoor()
    tellDrawing({})
    for (const listen of deaths) listen()
  }
  worker.addEventListener('error', (event) => {
    console.error(event.message)
    died()
  })
  worker.addEventListener('message', ({ data }: MessageEvent<FromDrawing>) => {
    if (data === 'alive') onDeath(name, died)
    else sayCannot()
  })
  return mine
}

/** Where the browser cannot draw, it is said; figures, lists and fields go on. */
let cannot = false
const sayings = new Set<() => void>()
function sayCannot(): void {
  cannot = true
  for (const say of sayings) say()
}
export const isDrawable = (): boolean => !cannot
export function onCannotDraw(listen: () => void): () => void {
  sayings.add(listen)
  return () => sayings.delete(listen)
}
/** when what draws has died, of late (ms); so often within so long it is not started again */
let lately: number[] = []
const [MOST, SOON] = [3, 60_000]

const drawing = () => (drawer ??= start())

let study: Parameters<Parameters<typeof onWorkerBegun>[0]>[0] | null = null

/** The study's worker has a door to what draws, open before its first result. */
function openDoor(): void {
  if (!study) return
  const { port1, port2 } = new MessageChannel()
  post({ results: port1 }, [port1])
  void study.draws(transfer(port2, [port2]))
}
onWorkerBegun((remote) => {
  study = remote
  openDoor()
})

function post(message: ToDrawing, what: Transferable[] = []): void {
  drawing().worker.postMessage(message, what)
}

/** Puts the stage's canvas into an element of the page; taken out again by what is returned. */
export function hangDrawing(holder: HTMLElement): () => void {
  holder.append(drawing().canvas)
  return () => drawing().canvas.remove()
}

/** Tells what has changed of what is shown; what is the same as before is not sent. */
export function tellDrawing(part: Partial<Told>): void {
  const keys = (Object.keys(part) as (keyof Told)[]).filter((key) => told[key] !== part[key])
  told = { ...told, ...part }
  const mine = drawing()
  if (mine.begun) {
    if (keys.length) post({ told: Object.fromEntries(keys.map((key) => [key, told[key]])) })
    return
  }
  if (!isWhole(told)) return
  mine.begun = true
  if (!('transferControlToOffscreen' in mine.canvas)) return sayCannot()
  const canvas = mine.canvas.transferControlToOffscreen()
  post({ canvas, told }, [canvas])
}

/** The figures of a result are on the page: the picture of it may follow. */
export function figuresShown(): void {
  if (drawer?.begun) post({ figures: 'shown' })
}

/** Whether parts are drawn where the page is now. */
export const isFabricDrawn = (): boolean => told.at?.fabric !== false && told.shows?.fabric !== false

const WHOLE: Record<keyof Told, true> = {
  on: true,
  at: true,
  palette: true,
  shows: true,
  hidden: true,
  level: true,
  marked: true,
  dress: true,
  pictures: true,
  panes: true,
  cutBy: true,
  views: true,
  parts: true,
  size: true,
  dpr: true,
  tried: true,
}
const isWhole = (all: Partial<Told>): all is Told => Object.keys(WHOLE).every((key) => key in all)

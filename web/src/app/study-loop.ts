import { proxy } from 'comlink'
import { stageGeometry } from '../stage/geometry-store'
import { figuresShown, isFabricDrawn, onDrawingDied } from '../stage/drawing/client'
import { onWorkerDied, studyWorker, warmWorker, WorkerDied } from '../worker/client'
import type { Ask } from '../worker/protocol'
import { previewed, selectProject, selectReached, selectSchemeId } from './project-slice'
import { makeEdit } from './session'
import { store } from './store'
import { noteTriedWell } from './tried-well'
import { computationRefused, computed, computing, leftOff } from './view-slice'
import { Refusal, type Project } from '@geotome/core/project'
import type { Edit } from '@geotome/core/edits'
import { tellFault } from '../common/tell'

/**
 * Keeps the worker in step with the store and the store in step with the worker's results. One study is under way at a time: what is
 * tried meanwhile waits for it, so that a drag goes on showing results; what was made, and the first newer try, does not wait but has
 * the study that is under way dropped.
 */
let known: { project: string | null; edits: string[] } = { project: null, edits: [] }
/** the study under way, what it is of, and whether another was dropped for it */
let current: { ended: Promise<void>; wish: Wish; begun: number; instead: boolean } | null = null
/** what was tried last and could be made */
let good: Edit | null = null
/** how long the last study took, ms */
let took = 0

/** What a study is of (`edit`: how far the project had come): two of the same parts give the same result. */
interface Wish {
  project: Project
  edit: string
  ask: Ask
}
let asked: Wish | null = null
/** ms that what is tried rests before all of it is computed */
const REST = 250
let rest: ReturnType<typeof setTimeout> | undefined

export function startStudyLoop(): () => void {
  warmWorker()
  const stop = store.subscribe(() => void next())
  const anew = (say: string) => () => {
    tellFault(say)
    known = { project: null, edits: [] }
    asked = null
    current = null
    void next()
  }
  const stops = [
    stop,
    onWorkerDied(
      anew('The computation had died and was started again. Nothing is lost; what is shown is computed anew.'),
    ),
    onDrawingDied(anew('What draws the views had died and was started again. Nothing is lost.')),
  ]
  return () => {
    for (const end of stops) end()
  }
}

/** Leaves off the study under way; what is shown stays of before until something changes, or it is begun again. */
export function stopComputing(): void {
  store.dispatch(leftOff(true))
  void studyWorker.stop()
}

export function computeAgain(): void {
  store.dispatch(leftOff(false))
  asked = null
  void next()
}

async function next(): Promise<void> {
  const state = store.getState()
  const project = selectProject(state)
  if (!project) {
    known = { project: null, edits: [] }
    asked = null
    return
  }
  const wish = { project, edit: selectReached(state), ask: currentAsk(selectSchemeId(state) ?? '') }
  if (asked && same(asked, wish)) return
  if (current) {
    const early = current.wish.ask.whole === true || (performance.now() - current.begun < took / 3 && !current.instead)
    if (wish.ask.preview && current.wish.ask.preview && !early) return
    if (!wish.ask.preview && !current.wish.ask.preview && current.instead) return
  }
  asked = wish
  clearTimeout(rest)
  if (state.view.stopped) store.dispatch(leftOff(false))
  await begin(wish)
}

/** Has a study made; what is tried and rests then is made whole. */
async function begin(wish: Wish): Promise<void> {
  const mine = (current = { ended: run(wish), wish, begun: performance.now(), instead: current !== null })
  await mine.ended
  if (current !== mine) return
  took = performance.now() - mine.begun
  current = null
  const isPart = wish.ask.preview !== null || isUnshaped()
  if (isPart && !wish.ask.whole)
    rest = setTimeout(() => {
      const { preview } = store.getState().project
      if (!current && asked === wish && preview === wish.ask.preview)
        void begin({ ...wish, ask: { ...wish.ask, whole: true } })
    }, REST)
  void next()
}

/** Of an offer of many parts their number and areas are shown first. */
const isUnshaped = () => {
  const { study, stopped } = store.getState().view
  return !stopped && study?.proposal?.volume === null
}

const same = (a: Wish, b: Wish) =>
  a.edit === b.edit &&
  a.project.id === b.project.id &&
  (Object.keys(b.ask) as (keyof Ask)[]).every((key) => a.ask[key] === b.ask[key])

const run = ({ project, ask, edit }: Wish): Promise<void> =>
  study(project, ask, edit).catch((e: unknown) => {
    // Another one has taken it up.
    if (e instanceof WorkerDied) return
    // The worker is given the whole project anew at the next change.
    console.error(e)
    const say =
      'The computation failed in an unforeseen way; the last result stays. Change something, or reload the page.'
    store.dispatch(computationRefused({ say, edit }))
  })

async function study(project: Project, ask: Ask, edit: string | null): Promise<void> {
  const slow = setTimeout(() => store.dispatch(computing(0)), 150)
  try {
    // Not waited for where there is nothing to bring: the worker begins before the page draws.
    const way = bringWorkerUp(project)
    if (way) await way
    const view = await studyWorker.study(ask)
    if (!view) return
    good = ask.preview
    if (good) noteTriedWell(project, good)
    store.dispatch(computed({ view: stageGeometry.keep(view), trying: ask.preview, edit }))
    // Behind what the page renders of it.
    setTimeout(figuresShown, 0)
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    // What is tried and cannot be made leaves the last good one standing; one that is let go already is nobody's concern.
    if (!ask.preview) store.dispatch(computationRefused({ say: e.message, edit }))
    else if (store.getState().project.preview === ask.preview) store.dispatch(previewed(good))
  } finally {
    clearTimeout(slow)
    if (store.getState().view.computing !== null) store.dispatch(computing(null))
  }
}

/** The worker gets the edits it has not had; only a project that it cannot get to by edits is sent whole. */
function bringWorkerUp(project: Project): Promise<void> | null {
  const { log, pending } = store.getState().project
  const way = [...log, ...pending]
  const ids = way.map((e) => e.id)
  const reachable = known.project === project.id && known.edits.every((id, i) => ids[i] === id)
  const fresh = way.slice(known.edits.length)
  if (reachable && fresh.length === 0) return null
  // Noted before the worker has answered: it does what it is sent in order, and nothing must be sent twice.
  known = { project: project.id, edits: ids }
  return bring(project, reachable ? fresh.map((e) => e.edit) : null)
}

/** By edits, or whole where there is no way. */
async function bring(project: Project, edits: Edit[] | null): Promise<void> {
  try {
    if (!edits) {
      stageGeometry.forgetAll()
      await studyWorker.open(project)
      await studyWorker.tell(
        proxy((share: number) => {
          if (store.getState().view.computing !== null) store.dispatch(computing(share))
        }),
      )
    } else await studyWorker.edit(edits)
  } catch (e) {
    known = { project: null, edits: [] }
    throw e
  }
}

export function currentAsk(scheme: string): Ask {
  const { project, view } = store.getState()
  return {
    scheme,
    preview: project.preview,
    proposal: view.proposing,
    compare: view.compare,
    areas: view.sheet === 'ledger' || view.sheet === 'brief',
    fabric: isFabricDrawn(),
    findings: view.sheet === 'findings',
    section: view.section && (view.panes === 'section' || view.panes === 'four') ? view.section : null,
  }
}

/** Waits until the worker has every edit that was made here, so that what is asked of it is of the present. */
export async function workerReady(): Promise<void> {
  while (current) await current.ended
  const project = selectProject(store.getState())
  if (project) await bringWorkerUp(project)
}

/** Asks the worker for an edit that needs geometry, and makes it. */
export async function makeComputedEdit(label: string, ask: () => Promise<Edit>): Promise<boolean> {
  await workerReady()
  const edit = await ask().catch((e: unknown) => {
    if (e instanceof WorkerDied) tellFault('The computation had died over it, and was started again. Try once more.')
    else if (e instanceof Refusal) tellFault(e.message)
    else throw e
    return null
  })
  return edit !== null && makeEdit(label, edit)
}

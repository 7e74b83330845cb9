import { toast } from 'sonner'
import { stageGeometry } from '../stage/geometry-store'
import { studyWorker } from '../worker/client'
import type { Ask } from '../worker/protocol'
import { selectProject, selectScheme } from './project-slice'
import { makeEdit } from './session'
import { store } from './store'
import { computationRefused, computed, computing } from './view-slice'
import type { Project } from '@geotome/core/project'
import type { Edit } from '@geotome/core/edits'

/**
 * Keeps the worker in step with the store and the store in step with the worker's results. One study is under way at a time; what
 * changes meanwhile is asked for when it is done, so that a drag always shows the newest result there is.
 */
let known: { project: string | null; edits: string[] } = { project: null, edits: [] }
let underWay: Promise<void> | null = null
let wanted = false
let lastKey = ''

export function startStudyLoop(): () => void {
  const stop = store.subscribe(() => {
    void next()
  })
  return stop
}

async function next(): Promise<void> {
  const state = store.getState()
  const project = selectProject(state)
  const scheme = selectScheme(state)
  if (!project || !scheme) {
    known = { project: null, edits: [] }
    lastKey = ''
    return
  }
  const ask = currentAsk(scheme.id)
  const way = [...state.project.log, ...state.project.pending]
  const key = JSON.stringify([project.id, way.length, way.at(-1)?.id, ask])
  if (key === lastKey) return
  if (underWay) {
    wanted = true
    return
  }
  lastKey = key
  const edit = way.at(-1)?.id ?? project.id
  underWay = study(project, ask, edit)
    .catch((e: unknown) => {
      // The worker is given the whole project anew at the next change.
      console.error(e)
      store.dispatch(
        computationRefused({
          say: 'The computation failed in an unforeseen way; the last result stays. Change something, or reload the page.',
          edit,
        }),
      )
    })
    .finally(() => {
      underWay = null
    })
  await underWay
  if (wanted) {
    wanted = false
    void next()
  }
}

async function study(project: Project, ask: Ask, edit: string | null): Promise<void> {
  const slow = setTimeout(() => store.dispatch(computing(true)), 150)
  try {
    await bringWorkerUp(project)
    const answer = await studyWorker.study(ask)
    if ('view' in answer) {
      store.dispatch(computed({ view: stageGeometry.keep(answer.view), settled: ask.preview === null, edit }))
    } else if ('refused' in answer) store.dispatch(computationRefused({ say: answer.refused, edit }))
  } finally {
    clearTimeout(slow)
    if (store.getState().view.computing) store.dispatch(computing(false))
  }
}

/** The worker gets the edits it has not had; only a project that it cannot get to by edits is sent whole. */
async function bringWorkerUp(project: Project): Promise<void> {
  const { log, pending } = store.getState().project
  const way = [...log, ...pending]
  const ids = way.map((e) => e.id)
  const reachable = known.project === project.id && known.edits.every((id, i) => ids[i] === id)
  const fresh = way.slice(known.edits.length)
  // Noted before the worker has answered: it does what it is sent in order, and nothing must be sent twice.
  known = { project: project.id, edits: ids }
  try {
    if (!reachable) {
      stageGeometry.forgetAll()
      await studyWorker.open(project)
    } else if (fresh.length) await studyWorker.edit(fresh.map((e) => e.edit))
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
    section: view.section && (view.panes === 'section' || view.panes === 'four') ? view.section : null,
  }
}

/** Waits until the worker has every edit that was made here, so that what is asked of it is of the present. */
export async function workerReady(): Promise<void> {
  while (underWay) await underWay
  const project = selectProject(store.getState())
  if (project) await bringWorkerUp(project)
}

/** Asks the worker for an edit that needs geometry, and makes it. */
export async function makeComputedEdit(
  label: string,
  ask: () => Promise<{ edit: Edit } | { refused: string }>,
): Promise<boolean> {
  await workerReady()
  const answer = await ask()
  if ('refused' in answer) {
    toast.error(answer.refused)
    return false
  }
  return makeEdit(label, answer.edit)
}

import { expose, transfer } from 'comlink'
import wasmUrl from 'manifold-3d/manifold.wasm?url'
import { applyEdit, type Edit } from '@geotome/core/edits'
import { addParts, bringInLine, partsFrom, propose } from '@geotome/core/fabric'
import { Refusal, type Project } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import { StudyCache, studySteps, type Study } from '@geotome/core/study'
import type { Answer, Ask, StudyWorker } from './protocol'
import { forget, viewOf } from './view'

/** Runs studies off the page's thread; pauses between masses and drops a study when a newer one is asked for. */
const cache = new StudyCache()
const sent = new Set<string>()
let project: Project | null = null
let newest = 0

const SLICE = 24

const api: StudyWorker = {
  open(opened) { project = opened; sent.clear() },
  edit(edits) { for (const edit of edits) if (project) project = applyEdit(project, edit).project },
  async study(ask) {
    const mine = ++newest
    try {
      const started = performance.now()
      const study = await compute(ask, () => mine !== newest)
      if (!study) return { dropped: true } satisfies Answer
      const view = viewOf(study, ask, sent, performance.now() - started)
      forget(view, sent)
      return transfer({ view } satisfies Answer, view.geometry.flatMap((g) => [g.positions.buffer, g.normals.buffer, g.edges.buffer]))
    } catch (e) {
      return refused(e)
    }
  },
  async accept(ask) {
    try {
      const study = await compute({ ...ask, preview: null }, () => false)
      if (!study || !ask.proposal) return { refused: 'The preview is closed.' }
      const { candidates } = propose(study.context, ask.proposal.masses ?? undefined)
      return { edit: addParts(study.context, partsFrom(study.context, () => crypto.randomUUID(), candidates, ask.proposal.choices)) }
    } catch (e) {
      return refused(e)
    }
  },
  async bringInLine(scheme, parts) {
    try {
      const study = await compute({ scheme, preview: null, proposal: null }, () => false)
      if (!study) return { refused: 'No project is open.' }
      return { edit: bringInLine(study.context, study.parts.filter((p) => !parts || parts.includes(p.id))) }
    } catch (e) {
      return refused(e)
    }
  },
}

async function compute(ask: Ask, stale: () => boolean): Promise<Study | null> {
  await openKernel(wasmUrl)
  if (!project) return null
  const tried: Project = ask.preview ? applyEdit(project, ask.preview as Edit).project : project
  const steps = studySteps(tried, ask.scheme, cache)
  for (let last = performance.now(); ;) {
    const step = steps.next()
    if (step.done) return step.value
    if (performance.now() - last > SLICE) {
      await new Promise((done) => setTimeout(done))
      if (stale()) return null
      last = performance.now()
    }
  }
}

function refused(e: unknown): { refused: string } {
  if (e instanceof Refusal) return { refused: e.message }
  console.error(e)
  return { refused: 'The computation failed in an unforeseen way; the last result stays. Undo the last change, or reload the page.' }
}

expose(api)

import { expose, transfer } from 'comlink'
import wasmUrl from 'manifold-3d/manifold.wasm?url'
import { applyEdit, type Edit } from '@geotome/core/edits'
import { addParts, bringInLine, partsFrom, propose } from '@geotome/core/fabric'
import { Refusal, refuse, type Project } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import { StudyCache, studySteps, type Study } from '@geotome/core/study'
import type { Answer, Ask, StudyWorker } from './protocol'
import { forget, viewOf } from './view'

/** Runs studies off the page's thread; pauses between masses and drops a study when a newer one is asked for. */
const cache = new StudyCache()
const sent = new Set<string>()
let project: Project | null = null
let newest = 0
const mint = () => crypto.randomUUID()

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
  accept: (ask) => edited({ ...ask, preview: null }, (study) => {
    if (!ask.proposal) return refuse('stale', 'The preview is closed.', 'Open it again.')
    const { candidates } = propose(study.context, ask.proposal.masses ?? undefined)
    return addParts(study.context, partsFrom(study.context, mint, candidates, ask.proposal.choices))
  }),
  bringInLine: (scheme, parts) => edited({ scheme, preview: null, proposal: null }, (study) => bringInLine(study.context, study.parts.filter((p) => !parts || parts.includes(p.id)))),
  mend: (scheme, key) => edited({ scheme, preview: null, proposal: null }, (study) =>
    study.findings.find((f) => f.key === key)?.fix?.edit(mint) ?? refuse('stale', 'That finding is gone already.', 'Nothing needs to be done.')),
}

/** An edit that needs a study of the project as it stands. */
async function edited(ask: Ask, make: (study: Study) => Edit): Promise<{ edit: Edit } | { refused: string }> {
  try {
    const study = await compute(ask, () => false)
    return study ? { edit: make(study) } : { refused: 'No project is open.' }
  } catch (e) {
    return refused(e)
  }
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

import { expose, transfer } from 'comlink'
import wasmUrl from 'manifold-3d/manifold.wasm?url'
import { applyChecked, applyEdit, applyLogged, type Edit } from '@geotome/core/edits'
import { addParts, attach, bringInLine, keepAsIs, partsFrom, placesFor } from '@geotome/core/fabric'
import { faceAt } from '@geotome/core/form'
import { inOrder, packSurvey, Refusal, refuse, traceSketch, type BriefOf, type Project } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import {
  compareTrace,
  figureAt,
  ledgerOf,
  meetSteps,
  moverNamed,
  StudyCache,
  studyScheme,
  studySteps,
  summaryOf,
  tracedPlan,
  trialSteps,
  type SchemeSummary,
  type Study,
} from '@geotome/core/study'
import { accountView, briefView, differencesView, platesView } from './areas-view'
import { assetAt, needAssets } from './assets'
import { holdLife } from './life'
import { mended } from './mended'
import { paced, pause, SLICE } from './pause'
import { LastOffer } from './proposal-view'
import type { Answer, Ask, FromStudy, StudyView, StudyWorker } from './protocol'
import { refusalsCross } from './refusals'
import { AT_REST, Rehearsal } from './rehearsal'
import { forget, nothingSent, viewOf, viewOrigin } from './view'

/** Runs studies off the page's thread; pauses between masses and drops a study when a newer one is asked for. */
/** one for each scheme: duplicates share the ids of their things */
const caches = new Map<string, StudyCache>()
const cacheOf = (scheme: string) => {
  let cache = caches.get(scheme)
  if (!cache) caches.set(scheme, (cache = new StudyCache()))
  return cache
}
/** trials have one of their own: they are no steps on the way of a scheme */
const tried = new StudyCache()
const sent = nothingSent()
let project: Project | null = null
let drawing: MessagePort | null = null
const draw = (message: FromStudy) => drawing?.postMessage(message)
let newest = 0
let hear: (share: number) => void = () => {}
const progress = (share: number) => hear(share)
const offers = new LastOffer()
const mint = () => crypto.randomUUID()

const rehearsal = new Rehearsal()
let rest: ReturnType<typeof setTimeout> | undefined
/** the project as it was opened */
let opened: Project | null = null
async function rehearse(scheme: string, mine: number): Promise<void> {
  const stale = () => mine !== newest
  if (!project || !opened || stale()) return
  await rehearsal.of(
    opened,
    project,
    scheme,
    async (preview) => (await compute({ ...plain(scheme), preview }, stale)) !== null,
  )
}

const api: StudyWorker = {
  alive: holdLife,
  draws(results) {
    drawing = results
  },
  open(whole) {
    project = opened = whole
    draw({ forget: true })
    sent.keys.clear()
    sent.shapes.clear()
    sent.masses.clear()
    sent.from.clear()
    sent.parts.clear()
    caches.clear()
    offers.forget()
  },
  edit(edits) {
    // Checked where they were made, and by the server.
    for (const edit of edits) if (project) project = applyChecked(project, edit)
    // A scheme that was removed takes what was computed of it along.
    for (const scheme of caches.keys()) if (!project?.schemes[scheme]) caches.delete(scheme)
  },
  stop() {
    newest++
  },
  tell(told) {
    hear = told
  },
  async study(ask) {
    const mine = ++newest
    const started = performance.now()
    const stale = () => mine !== newest
    const study = await compute(ask, stale, progress)
    if (!study) return null
    const offer = ask.proposal && (await paced(offers.steps(study, ask.proposal, ask.whole), stale, progress))
    if (ask.proposal && !offer) return null
    const view = viewOf(study, ask, sent, performance.now() - started, offer)
    const other =
      ask.compare && ask.compare !== ask.scheme && project?.schemes[ask.compare]
        ? await compute({ ...ask, scheme: ask.compare, preview: null }, stale)
        : null
    if (other)
      view.compare = {
        scheme: other.scheme.id,
        name: other.scheme.name,
        ledger: ledgerOf(other),
        parts: other.parts.length,
        findings: other.findings.length,
        levels: differencesView(study, other, view.origin),
        brief: briefView(other),
      }
    forget(view, sent)
    clearTimeout(rest)
    if (!ask.preview) rest = setTimeout(() => void rehearse(ask.scheme, mine), AT_REST)
    // What is read and not drawn is left out.
    draw({ view: { ...view, findings: [], brief: [], areas: null, compare: null } })
    return transfer(
      view satisfies Answer,
      view.geometry.flatMap((g) => [
        g.positions.buffer,
        g.normals.buffer,
        g.edges.buffer,
        g.contours.buffer,
        g.faceOf.buffer,
        ...(g.index ? [g.index.buffer] : []),
      ]),
    )
  },
  async trials(scheme, dials, values, hear) {
    await openKernel(wasmUrl)
    if (!project) return
    const steps = trialSteps(project, scheme, dials, values, tried)
    let last = performance.now()
    for (let step = steps.next(); !step.done; step = steps.next()) {
      const { trial, done } = step.value
      if (trial && !(await hear(trial, done))) return
      // What a person does meanwhile comes first.
      if (performance.now() - last > SLICE) {
        await pause()
        last = performance.now()
      }
    }
  },
  async summaries() {
    const all: SchemeSummary[] = []
    for (const { id } of project ? inOrder(project.schemes) : []) {
      all.push(await asked(plain(id), summaryOf))
      await pause()
    }
    return all
  },
  async past(then, scheme) {
    await openKernel(wasmUrl)
    if (!then.schemes[scheme]) return null
    await needAssets(then)
    const study = studyScheme(then, scheme, tried, assetAt)
    return { area: study.totals.area, brief: briefView(study) }
  },
  async history(start, steps, scheme, of) {
    await openKernel(wasmUrl)
    const figures: (number | null)[] = []
    let then = start
    let last = performance.now()
    for (const edits of [[], ...steps]) {
      for (const edit of edits) then = applyLogged(then, edit)
      // What was made only to be taken back may not stand by itself.
      figures.push(then.schemes[scheme] ? figureOr(then, scheme, of) : null)
      if (performance.now() - last < SLICE) continue
      await pause()
      last = performance.now()
    }
    return figures
  },
  async beside(schemes) {
    const views: StudyView[] = []
    for (const id of schemes) {
      if (!project?.schemes[id]) continue
      // Each is sent whole: the page keeps them apart from the one that is worked on.
      views.push(await asked(plain(id), (study) => viewOf(study, plain(id), nothingSent(), 0)))
      await pause()
    }
    return views
  },
  account: (scheme, of, preview) =>
    asked({ ...plain(scheme), preview }, (study) => accountView(study, of, viewOrigin(study))),
  plates: (scheme, level, by, above, preview) =>
    asked({ ...plain(scheme), preview }, (study) => platesView(study, level, by, above, viewOrigin(study))),
  async meet(schemeId, wanted, hear) {
    await openKernel(wasmUrl)
    const scheme = project?.schemes[schemeId]
    if (!project || !scheme) return null
    const moves = wanted.map(({ mover, from, to, ...target }) => ({
      mover: moverNamed(project as Project, scheme, mover),
      target,
      from,
      to,
    }))
    const steps = meetSteps(project, schemeId, moves, mint, tried)
    let last = performance.now()
    for (;;) {
      const step = steps.next()
      if (step.done) return step.value
      if (performance.now() - last < SLICE) continue
      await pause()
      if (!(await hear(step.value))) return null
      last = performance.now()
    }
  },
  mendAll: (scheme, keys) =>
    asked(plain(scheme), (study) =>
      mended(study, keys, mint, (then) => studyScheme(then, scheme, cacheOf(scheme), assetAt)),
    ),
  async accept(ask) {
    const { proposal } = ask
    if (!proposal) return refuse('stale', 'The preview is closed.', 'Open it again.')
    const study = await asked({ ...ask, preview: null }, (s) => s)
    const { candidates } = (await paced(offers.steps(study, proposal))) ?? { candidates: [] }
    return addParts(study.context, partsFrom(study.context, mint, candidates, proposal.choices))
  },
  bringInLine: (scheme, parts) =>
    asked(plain(scheme), (study) =>
      bringInLine(
        study.context,
        study.parts.filter((p) => !parts || parts.includes(p.id)),
      ),
    ),
  keepAsIs: (scheme, parts) =>
    asked(plain(scheme), (study) =>
      keepAsIs(
        study.context,
        study.parts.filter((p) => parts.includes(p.id)),
      ),
    ),
  attach: (scheme, part, place) => asked(plain(scheme), (study) => attach(study.context, partOf(study, part), place)),
  places: (scheme, part) => asked(plain(scheme), (study) => placesFor(study.context, partOf(study, part))),
  packPoints: async (points) => packSurvey({ points, lines: [] }),
  trace: (raster, options, progress) => traceSketch(raster, options, progress),
  groundAt: (scheme, x, y) => asked(plain(scheme), (study) => study.ground.height(x, y)),
  faceAt: (scheme, mass, face) =>
    asked(plain(scheme), (study) =>
      faceAt(
        [...study.forms, ...study.around].find((f) => f.id === mass) ??
          refuse('unknown-id', 'That mass is not there any more.', 'Pick another one.'),
        face,
      ),
    ),
  compareTrace: (scheme, trace, stand) => asked(plain(scheme), (study) => compareTrace(study, trace, stand)),
  tracedPlan: (scheme, trace) => asked(plain(scheme), (study) => tracedPlan(study, trace)),
  mend: (scheme, key) =>
    asked(
      plain(scheme),
      (study) =>
        study.findings.find((f) => f.key === key)?.fix?.edit(mint) ??
        refuse('stale', 'That finding is gone already.', 'Nothing needs to be done.'),
    ),
}

function figureOr(then: Project, scheme: string, of: BriefOf): number | null {
  try {
    return figureAt(then, scheme, of, tried)
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    return null
  }
}

const plain = (scheme: string): Ask => ({ scheme, preview: null, proposal: null, compare: null, section: null })
const partOf = (study: Study, id: string) =>
  study.scheme.parts[id] ?? refuse('unknown-id', 'That part is not there any more.', 'Pick another one.')

/** Something that is asked of a study of the project as it stands. */
async function asked<T>(ask: Ask, answer: (study: Study) => T): Promise<T> {
  const study = await compute(ask, () => false)
  return study ? answer(study) : refuse('stale', 'No project is open.')
}

async function compute(
  ask: Ask,
  stale: () => boolean,
  tell: (share: number) => void = () => {},
): Promise<Study | null> {
  await openKernel(wasmUrl)
  if (!project) return null
  const tried: Project = ask.preview ? applyEdit(project, ask.preview as Edit).project : project
  await needAssets(tried)
  return paced(
    studySteps(tried, ask.scheme, cacheOf(ask.scheme), assetAt, ask.preview !== null && !ask.whole),
    stale,
    tell,
  )
}

refusalsCross([
  'The computation failed in an unforeseen way; the last result stays.',
  'Undo the last change, or reload the page.',
])
expose(api)
// Made ready while the project is still on its way.
void openKernel(wasmUrl).catch(() => {})

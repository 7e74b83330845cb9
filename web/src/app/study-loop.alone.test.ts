import { expose, type Endpoint } from 'comlink'
import { afterAll, afterEach, beforeAll, beforeEach, expect, it, vi } from 'vitest'
import { applyChecked, applyEdit, type Edit } from '@geotome/core/edits'
import { levelHeights, moveLevel } from '@geotome/core/levels'
import { Refusal, type Project } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import { studyScheme } from '@geotome/core/study'
import { projectWith, schemeOf, withMass } from '../../../core/testing/make'
import type { Answer, Ask, StudyWorker } from '../worker/protocol'
import { refusalsCross } from '../worker/refusals'
import { nothingSent, viewOf } from '../worker/view'

/** A question that waits until the test has it answered. */
interface Asked {
  ask: Ask
  answer: () => Promise<void>
  refuse: (say: string) => Promise<void>
}
/** A worker that has the project as the page brings it, and computes what it is asked for when it is told to. */
class Slow {
  static all: Slow[] = []
  static get now(): Slow {
    return Slow.all.at(-1) as Slow
  }
  readonly opened: Project[] = []
  readonly edits: Edit[] = []
  readonly asked: Asked[] = []
  readonly page: MessagePort & { terminate?: () => void }
  private project: Project | null = null

  constructor() {
    const { port1, port2 } = new MessageChannel()
    this.page = Object.assign(port1, { terminate: () => port1.close() })
    Slow.all.push(this)
    const api: Pick<StudyWorker, 'alive' | 'draws' | 'open' | 'edit' | 'stop' | 'tell' | 'study'> = {
      alive: () => Promise.resolve(),
      draws: (door) => door.close(),
      open: (project) => void this.opened.push((this.project = project)),
      edit: (edits) => {
        this.edits.push(...edits)
        for (const edit of edits) this.project = applyChecked(this.project as Project, edit)
      },
      stop: () => {},
      tell: () => {},
      study: (ask) => this.study(ask),
    }
    expose(api, port2 as unknown as Endpoint)
  }
  private study(ask: Ask): Promise<Answer> {
    // As the true one: what is asked for later has all before it dropped.
    const dropped = () => this.asked.at(-1)?.ask !== ask
    return new Promise((give, fail) => {
      this.asked.push({
        ask,
        answer: () => {
          const of = ask.preview ? applyEdit(this.project as Project, ask.preview).project : (this.project as Project)
          give(dropped() ? null : viewOf(studyScheme(of, ask.scheme), ask, nothingSent(), 0))
          return soon()
        },
        refuse: (say) => {
          fail(new Refusal('geometry', say, 'Move it less.'))
          return soon()
        },
      })
    })
  }
  get last(): Asked {
    return this.asked.at(-1) as Asked
  }
}
/** Until all that is on its way has come: each message takes one turn, however slow the machine is. */
async function soon(): Promise<void> {
  for (let i = 0; i < 40; i++) await new Promise((go) => setImmediate(go))
}
const rest = (ms: number) => new Promise((go) => setTimeout(go, ms))

let app: Awaited<ReturnType<typeof page>>
async function page() {
  const [{ store }, slice, view, loop] = await Promise.all([
    import('./store'),
    import('./project-slice'),
    import('./view-slice'),
    import('./study-loop'),
  ])
  return { store, ...slice, ...view, ...loop }
}
let stop = () => {}
const start = withMass(projectWith([0, 3, 6, 9]), { name: 'Tower', box: [0, 0, 10, 8], height: 10 })
const scheme = schemeOf(start).id
const raised = (by: number): Edit => moveLevel(start, schemeOf(start), 'L1', 3 + by, 'carried')
const tries = async (edit: Edit | null) => {
  app.store.dispatch(app.previewed(edit))
  await soon()
}
let n = 0
const makes = async (edit: Edit) => {
  app.store.dispatch(app.made({ id: `e${n++}`, label: 'move', edit }))
  await soon()
}
/** m: how high the second level lies in the figures that are shown */
const shownHeight = () => app.store.getState().view.study?.levels.find((l) => l.id === 'L1')?.height
const isSettled = () => app.store.getState().view.shown.edit === app.selectReached(app.store.getState())

beforeAll(async () => {
  await openKernel()
  app = await page()
  refusalsCross(['Failed.', 'Again.'])
  vi.stubGlobal('navigator', {})
  vi.stubGlobal('document', {
    createElement: () => ({ remove: () => {}, parentElement: null, transferControlToOffscreen: () => ({}) }),
  })
  vi.stubGlobal('Worker', function (_: URL, { name }: { name: string }) {
    if (name.startsWith('study')) return new Slow().page
    return { postMessage: () => {}, addEventListener: () => {}, terminate: () => {} }
  })
  stop = app.startStudyLoop()
})
afterAll(() => {
  stop()
  for (const slow of Slow.all) slow.page.terminate?.()
  vi.unstubAllGlobals()
})
afterEach(async () => {
  for (const one of Slow.now.asked) await one.answer()
  app.store.dispatch(app.closed())
})
beforeEach(async () => {
  app.store.dispatch(app.schemeShown(scheme))
  app.store.dispatch(app.opened({ project: { ...start }, seq: 0, history: { undo: null, redo: null } }))
  await vi.waitFor(() => expect(Slow.now.last.ask.scheme).toBe(scheme))
  await Slow.now.last.answer()
  Slow.now.asked.length = Slow.now.edits.length = Slow.now.opened.length = 0
})

it('brings a project whole once, then its edits alone; figures are settled when they are of the last', async () => {
  expect([shownHeight(), isSettled()]).toEqual([3, true])
  await makes(raised(0.5))
  expect(isSettled()).toBe(false)
  await Slow.now.last.answer()
  expect([shownHeight(), isSettled()]).toEqual([3.5, true])
  await makes(raised(1))
  await Slow.now.last.answer()
  expect([Slow.now.opened.length, Slow.now.edits]).toEqual([0, [raised(0.5), raised(1)]])
})

it('goes on showing what is tried: later tries wait for the one under way, and only the last of them is computed', async () => {
  const begun = performance.now()
  await tries(raised(0.1))
  await Slow.now.last.answer()
  const took = performance.now() - begun
  await tries(raised(0.2))
  const under = Slow.now.last
  // It has been at work for as long as the last one took: it is not dropped any more.
  await rest(took)
  for (const by of [0.3, 0.4, 0.5]) await tries(raised(by))
  expect(Slow.now.last).toBe(under)
  await under.answer()
  expect(shownHeight()).toBeCloseTo(3.2)
  expect(Slow.now.asked.map((a) => a.ask.preview)).toEqual([raised(0.1), raised(0.2), raised(0.5)])
  await Slow.now.last.answer()
  expect([shownHeight(), isSettled()]).toEqual([3.5, false])
  // Let go of, it is as it was.
  await tries(null)
  await Slow.now.last.answer()
  expect([shownHeight(), isSettled()]).toEqual([3, true])
})

it('drops what has just begun for the first newer try, and for that one no other', async () => {
  await tries(raised(0.1))
  // It takes long, so that the next one has only begun when it is tried further.
  await rest(1500)
  await Slow.now.last.answer()
  await tries(raised(0.2))
  await tries(raised(0.3))
  expect(Slow.now.last.ask.preview).toEqual(raised(0.3))
  await tries(raised(0.4))
  expect(Slow.now.last.ask.preview).toEqual(raised(0.3))
  for (const one of Slow.now.asked.slice(-2)) await one.answer()
  expect(shownHeight()).toBeCloseTo(3.3)
  expect(Slow.now.last.ask.preview).toEqual(raised(0.4))
  await Slow.now.last.answer()
  expect(shownHeight()).toBeCloseTo(3.4)
})

it('computes what is made at once, whatever is tried; what was dropped comes too late to be shown', async () => {
  await tries(raised(0.2))
  const late = Slow.now.last
  await makes(raised(0.7))
  expect(Slow.now.last.ask.preview).toBeNull()
  await Slow.now.last.answer()
  expect([shownHeight(), isSettled()]).toEqual([3.7, true])
  await late.answer()
  expect([shownHeight(), isSettled()]).toEqual([3.7, true])
})

it('computes all of what is tried when it rests, and leaves that off when it goes on', async () => {
  await tries(raised(0.2))
  await Slow.now.last.answer()
  await vi.waitFor(() => expect(Slow.now.last.ask.whole).toBe(true), 2000)
  await tries(raised(0.3))
  expect([Slow.now.last.ask.whole, Slow.now.last.ask.preview]).toEqual([undefined, raised(0.3)])
  for (const one of Slow.now.asked.slice(-2)) await one.answer()
  expect(shownHeight()).toBeCloseTo(3.3)
})

it('leaves the last that could be made standing where what is tried cannot, and says why where what is made cannot', async () => {
  await tries(raised(0.2))
  await Slow.now.last.answer()
  await tries(raised(-5))
  await Slow.now.last.refuse('The levels would pass one another.')
  expect(app.store.getState().project.preview).toEqual(raised(0.2))
  expect(shownHeight()).toBeCloseTo(3.2)
  await Slow.now.last.answer()
  await makes(raised(0.4))
  await Slow.now.last.refuse('It cannot be computed.')
  const { refused } = app.store.getState().view
  // It is the answer to the last edit: nothing is waited for any more.
  expect([refused, isSettled()]).toEqual(['It cannot be computed. Move it less.', true])
})

it('gives a new worker the project as it is now, where the old one died over it', async () => {
  await makes(raised(0.5))
  const dead = Slow.now
  dead.page.dispatchEvent(Object.assign(new Event('error'), { message: 'out of memory' }))
  await soon()
  expect(Slow.now).not.toBe(dead)
  const [given] = Slow.now.opened
  const heights = given && levelHeights(given, schemeOf(given)).map((l) => l.height)
  expect(heights).toEqual([0, 3.5, 6.5, 9.5])
  await Slow.now.last.answer()
  expect([shownHeight(), isSettled()]).toEqual([3.5, true])
})

import { afterAll, beforeAll, expect, it, vi } from 'vitest'
import type { Told } from './told'

type Heard = (event: { message?: string; data?: string }) => void
/** A worker that notes what it is sent. */
class Noting {
  static readonly all: Noting[] = []
  readonly sent: ({ canvas?: object; told: Partial<Told> } | { results: object } | { figures: string })[] = []
  readonly heard = new Map<string, Heard>()
  ended = false
  constructor() {
    Noting.all.push(this)
  }
  postMessage(message: Noting['sent'][number]): void {
    this.sent.push(message)
  }
  addEventListener(what: string, hear: Heard): void {
    this.heard.set(what, hear)
  }
  terminate(): void {
    this.ended = true
  }
}
const whole = {
  on: true,
  at: {},
  palette: {},
  shows: { fabric: true },
  hidden: [],
  level: 'first',
  marked: {},
  dress: null,
  pictures: {},
  panes: 'both',
  cutBy: {},
  views: {},
  parts: {},
  dpr: 1,
  tried: false,
} as unknown as Omit<Told, 'size'>

beforeAll(() => {
  vi.stubGlobal('Worker', Noting)
  vi.stubGlobal('document', {
    createElement: () => ({ remove: () => {}, parentElement: null, transferControlToOffscreen: () => ({}) }),
  })
})
afterAll(() => void vi.unstubAllGlobals())

it('what draws is told all at once when all is known, then only what changes, all again by a new one; it is not started for ever', async () => {
  vi.spyOn(console, 'error').mockImplementation(() => {})
  const client = await import('./client')
  const now = () => Noting.all.at(-1) as Noting
  const told = () => now().sent.flatMap((m) => ('told' in m ? [m] : []))
  client.tellDrawing(whole)
  client.figuresShown()
  expect(told()).toEqual([])
  client.tellDrawing({ size: [800, 600] })
  expect(told()).toMatchObject([{ canvas: {}, told: { level: 'first', size: [800, 600] } }])
  client.tellDrawing({ ...whole, level: 'second' })
  client.tellDrawing({ ...whole, level: 'second' })
  expect(told().slice(1)).toEqual([{ told: { level: 'second' } }])
  client.figuresShown()
  expect(now().sent.at(-1)).toEqual({ figures: 'shown' })
  let deaths = 0
  client.onDrawingDied(() => deaths++)
  for (let i = 1; i <= 3; i++) {
    const before = now()
    before.heard.get('error')?.({ message: 'out of memory' })
    expect([before.ended, deaths, client.isDrawable()]).toEqual([true, i, true])
    expect(told()).toMatchObject([{ canvas: {}, told: { level: 'second', size: [800, 600] } }])
  }
  now().heard.get('error')?.({ message: 'once more' })
  expect([deaths, Noting.all.length, client.isDrawable()]).toEqual([3, 4, false])
  vi.restoreAllMocks()
})

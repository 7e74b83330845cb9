import { warmWorker } from '../worker/client'
import { api } from './api'
import { author } from './author'

/** The project of the address at which the page was opened: asked for while the rest of the page is still on its way, as is the worker that studies it. */
let early: { id: string; answer: ReturnType<typeof api.open>; at: number } | null = null
/** ms for which that answer counts as the present */
const FRESH = 10_000

export function askEarly(path: string): void {
  const [, id, desk] = /^\/p\/([0-9a-zA-Z-]{1,64})(?:\/(\w+))?/.exec(path) ?? []
  if (!id || desk === 'summary') return
  warmWorker()
  const answer = api.open(id, author())
  // Whoever opens the project hears of it.
  answer.catch(() => {})
  early = { id, answer, at: performance.now() }
}

/** Opens a project: the one that was asked for early once, any other one now. */
export const openAsked: typeof api.open = (id, by) => {
  const asked = early
  early = null
  const isPresent = asked?.id === id && performance.now() - asked.at < FRESH
  return isPresent ? asked.answer : api.open(id, by)
}

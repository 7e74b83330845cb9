import { parentPort, workerData } from 'node:worker_threads'
import { openKernel } from '@geotome/core/solid'
import { Refusal } from '@geotome/core/project'
import { diceOf } from './dice'
import { kindOf, kinds } from './kinds'

/** What the thread says: that it begins an input, what came of it, and at its end which would be the next. */
export type Said =
  | { next: number }
  | { begins: number; kind: string; mayBeEnded: boolean }
  | { done: number; kind: string; how: 'taken' | 'refused' | 'stopped'; fault: string | null }

const { seed, from, to, until } = workerData as { seed: number; from: number; to: number; until: number }
const say = (said: Said) => parentPort?.postMessage(said)
await openKernel()
const all = await kinds()
let number = from
for (; number < to && Date.now() < until; number++) {
  const dice = diceOf(seed, number)
  const kind = kindOf(all, dice)
  say({ begins: number, kind: kind.name, mayBeEnded: kind.mayBeEnded })
  try {
    await kind.one(dice)
    say({ done: number, kind: kind.name, how: 'taken', fault: null })
  } catch (e) {
    if (e instanceof Refusal)
      say({
        done: number,
        kind: kind.name,
        how: 'refused',
        fault: /\bundefined\b|\[object/.test(`${e.say} ${e.remedy}`) ? `the sentence "${e.message}"` : null,
      })
    else
      say({
        done: number,
        kind: kind.name,
        how: 'stopped',
        fault: e instanceof Error ? (e.stack ?? e.message) : String(e),
      })
  }
}
say({ next: number })

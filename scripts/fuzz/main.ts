import { parseArgs } from 'node:util'
import { Worker } from 'node:worker_threads'
import { table } from '../../cli/src/reports'
import type { Said } from './thread'

/**
 * Gives the product what nobody would give it: damaged files, edits with anything in them, formulas of nothing. Each input is
 * made from the seed and its number alone, so that one can be tried again: npm run fuzz -- --seed 7 --only 1234.
 * A fault is what neither was refused with a sentence nor makes sense, and what does not end.
 */
const { values } = parseArgs({
  options: {
    seed: { type: 'string' },
    inputs: { type: 'string', default: '100000' },
    seconds: { type: 'string' },
    only: { type: 'string' },
  },
})
const seed = Number(values.seed ?? Math.floor(Math.random() * 1e9))
const from = values.only === undefined ? 0 : Number(values.only)
const to = values.only === undefined ? Number(values.inputs) : from + 1
const until = Date.now() + Number(values.seconds ?? 1e9) * 1000

/** s that one input may take before it counts as hanging, and a file before its thread is ended, as the product does */
const HANGS = 30
const ENDED = 5
process.stdout.write(`seed ${seed}\n`)

const counts = new Map<string, { taken: number; refused: number; ended: number }>()
const faults: string[] = []
let next = from
while (next < to && Date.now() < until && faults.length < 20) next = await run(next)

/** Runs inputs in one thread until it is done, ended or dead; gives the number to go on from. */
function run(start: number): Promise<number> {
  const worker = new Worker(new URL('./thread.mjs', import.meta.url), {
    workerData: { seed, from: start, to, until },
    resourceLimits: { maxOldGenerationSizeMb: 1000 },
    stdout: true,
    stderr: true,
  })
  let at = start
  let kind = 'loading'
  let mayBeEnded = false
  let reached: number | null = null
  let timer: NodeJS.Timeout | null = null
  return new Promise<number>((resolve) => {
    const countOf = () => {
      const c = counts.get(kind) ?? { taken: 0, refused: 0, ended: 0 }
      counts.set(kind, c)
      return c
    }
    const over = (fault: string) => {
      if (mayBeEnded) countOf().ended++
      else faults.push(`${at} (${kind}): ${fault}`)
      resolve(at + 1)
    }
    worker.on('message', (said: Said) => {
      if ('next' in said) {
        reached = said.next
        return
      }
      if ('begins' in said) {
        ;({ begins: at, kind, mayBeEnded } = said)
        if (timer) clearTimeout(timer)
        timer = setTimeout(() => over(`did not end within ${HANGS} s`), (mayBeEnded ? ENDED : HANGS) * 1000)
        return
      }
      if (
        said.how === 'stopped' &&
        mayBeEnded &&
        !said.fault?.startsWith('Nonsense') &&
        !/\/core\/(?!exchange)/.test(said.fault?.split('\n')[1] ?? '')
      ) {
        countOf().ended++
        resolve(at + 1)
        return
      } // the reading thread answers for its library
      if (said.fault) faults.push(`${said.done} (${said.kind}): ${said.fault}`)
      countOf()[said.how === 'taken' ? 'taken' : 'refused']++
      if (faults.length >= 20) resolve(to)
    })
    worker.on('error', (e) => over(e.message))
    // It ends by itself when its time is over: what is ended by force amid its work may take the process along.
    worker.on('exit', () => (reached === null ? over('the thread ended') : resolve(reached)))
  }).finally(async () => {
    if (timer) clearTimeout(timer)
    worker.removeAllListeners()
    await worker.terminate()
  })
}

process.stdout.write(
  `${table(
    ['kind', 'taken', 'refused', 'ended'],
    [...counts].map(([name, c]) => [
      name,
      c.taken.toLocaleString('en'),
      c.refused.toLocaleString('en'),
      c.ended.toLocaleString('en'),
    ]),
  )}\n`,
)
for (const fault of faults)
  process.stdout.write(
    `\nfault: input ${fault}\n  again: npm run fuzz -- --seed ${seed} --only ${fault.split(' ')[0]}\n`,
  )
process.exit(faults.length > 0 ? 1 : 0)

const { port1, port2 } = new MessageChannel()
const waiting: (() => void)[] = []
port1.onmessage = () => waiting.shift()?.()

/** Lets what waits (a newer question) come in between; without the 4 ms that a timer takes at least when it follows another. */
export const pause = (): Promise<void> =>
  new Promise((go) => {
    waiting.push(go)
    port2.postMessage(null)
  })

/** ms of work between two pauses, and between two tellings of how far it is */
export const SLICE = 24
const TELL = 200

/** Runs work that comes in steps with pauses in which newer questions are heard; null: it has become stale. */
export async function paced<T>(
  steps: Generator<number, T>,
  stale: () => boolean = () => false,
  tell: (share: number) => void = () => {},
): Promise<T | null> {
  let told = performance.now()
  for (let last = performance.now(); ;) {
    const step = steps.next()
    if (step.done) return step.value
    if (performance.now() - last > SLICE) {
      await pause()
      if (stale()) return null
      last = performance.now()
      if (last - told > TELL) {
        told = last
        tell(step.value)
      }
    }
  }
}

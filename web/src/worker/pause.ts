const { port1, port2 } = new MessageChannel()
const waiting: (() => void)[] = []
port1.onmessage = () => waiting.shift()?.()

/** Lets what waits (a newer question) come in between; without the 4 ms that a timer takes at least when it follows another. */
export const pause = (): Promise<void> =>
  new Promise((go) => {
    waiting.push(go)
    port2.postMessage(null)
  })

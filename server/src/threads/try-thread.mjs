import { parentPort } from 'node:worker_threads'

// A thread for the test of pools: answers, stands still, or takes all memory.
parentPort.on('message', ({ id, ask }) => {
  if (ask === 'stand still') for (;;);
  if (ask === 'fill') {
    const all = []
    for (;;) all.push(Array(10_000).fill(Math.random()))
  }
  setTimeout(() => parentPort.postMessage({ id, result: ask }), ask.wait ?? 0)
})

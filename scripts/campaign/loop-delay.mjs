import { writeFileSync } from 'node:fs'
import { monitorEventLoopDelay } from 'node:perf_hooks'
import { isMainThread } from 'node:worker_threads'

// Loaded into the server of a campaign: on a signal it writes the longest time for which its request loop stood still since the last signal, in ms.
const file = process.env.GEOTOME_LOOP_DELAY
if (file && isMainThread && process.argv[1]?.endsWith('main.mjs')) {
  const delays = monitorEventLoopDelay({ resolution: 5 })
  delays.enable()
  process.on('SIGUSR2', () => {
    writeFileSync(file, String(Math.round(delays.max / 1e6)))
    delays.reset()
  })
}

import { register } from 'tsx/esm/api'
import { parentPort, workerData } from 'node:worker_threads'

register()
const { ATTACKS } = await import('./attacks.ts')
const { which, url, project } = workerData
parentPort.postMessage(
  await ATTACKS[which].send(url, project).catch((e) => ({ status: 0, detail: String(e.cause ?? e) })),
)
// Sockets that never read are left open on purpose.
setTimeout(() => process.exit(0), 1500)

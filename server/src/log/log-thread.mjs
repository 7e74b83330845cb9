// Node 20 cannot load a .ts worker thread: this registers the loader first.
import { register } from 'tsx/esm/api'

register()
await import('./log-worker.ts')

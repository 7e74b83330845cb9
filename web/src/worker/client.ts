import { wrap } from 'comlink'
import type { StudyWorker } from './protocol'

/** The one worker of this window. */
export const studyWorker = wrap<StudyWorker>(
  new Worker(new URL('./study-worker.ts', import.meta.url), { type: 'module', name: 'study' }),
)

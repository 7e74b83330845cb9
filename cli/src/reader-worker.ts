import { parentPort, workerData } from 'node:worker_threads'
import { readBodies, readSite, surveyOf } from '@geotome/core/exchange'
import { readProjectPackage, Refusal, triangulateSurvey } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import type { Reading, ReadingAnswer } from './reader'

/** Reads one file of a stranger's in a thread that can be ended. Says first that it is ready: from then on its time counts. */
const { name, bytes, what, together, answers, location } = workerData as Reading
// A project's file says what is made, and makes nothing.
if (what !== 'project') await openKernel()
if (/\.ifc$/i.test(name)) await import('web-ifc')
if (/\.tiff?$/i.test(name)) await import('geotiff')
parentPort?.postMessage({ ready: true } satisfies ReadingAnswer)
try {
  parentPort?.postMessage({ result: await read() } satisfies ReadingAnswer)
} catch (e) {
  parentPort?.postMessage(
    (e instanceof Refusal
      ? { refused: { code: e.code, say: e.say, remedy: e.remedy } }
      : {
          refused: {
            code: 'file',
            say: `"${name}" is damaged, or of a kind that is not read.`,
            remedy: 'Export it once more.',
          },
        }) satisfies ReadingAnswer,
  )
}

async function read(): Promise<unknown> {
  if (what === 'bodies') return readBodies(name, bytes, together, null, answers)
  if (what === 'project') return readProjectPackage(bytes)
  const placed = await readSite(name, bytes, location, { leaveOut: false, answers })
  const survey = surveyOf(placed.read)
  if (survey.points.length >= 9) triangulateSurvey(survey)
  return placed
}

import { parentPort } from 'node:worker_threads'
import { formatNamed, writeFormat } from '@geotome/core/exchange'
import { readProjectPackage, Refusal, type Project } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import { firstScheme, sketchOf, studyScheme } from '@geotome/core/study'
import type { StudyAnswer, StudyQuestion } from './study-pool'

/** Runs studies away from the request loop. */
parentPort?.on('message', ({ id, ask }: StudyQuestion) => {
  answer(id, ask)
    .then((a) => parentPort?.postMessage(a))
    .catch((e: unknown) =>
      parentPort?.postMessage({
        id,
        failure: { message: e instanceof Error ? e.message : String(e), code: e instanceof Refusal ? e.code : null },
      } satisfies StudyAnswer),
    )
})

async function answer(id: number, ask: StudyQuestion['ask']): Promise<StudyAnswer> {
  if (ask.task === 'read') return { id, result: readProjectPackage(ask.bytes) }
  await openKernel()
  const project: Project = ask.project
  if (ask.task === 'total') {
    const study = studyScheme(project, firstScheme(project).id)
    const { area, site } = study.totals
    return { id, result: { area, site, sketch: JSON.stringify(sketchOf(study)) } }
  }
  const study = () => studyScheme(project, ask.scheme ?? firstScheme(project).id)
  return { id, result: await writeFormat(formatNamed(ask.format), project, study, ask.stamp, ask.assets) }
}

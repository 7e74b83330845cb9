import { setPriority } from 'node:os'
import { formatNamed, writeFormat } from '@geotome/core/exchange'
import { readProjectPackage, type Project } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import { firstScheme, sketchOf, studyScheme } from '@geotome/core/study'
import { answering, jsonBytes, type Given } from '../threads/answering'
import type { StudyAsk, StudyResult } from './study-pool'

/** Runs studies and reads files away from the request loop, and lets it go first where there are few processors. */
try {
  setPriority(5)
} catch {
  // Not every system lets a thread say so; it goes on as it is.
}
answering<StudyAsk, StudyResult>(answer)

async function answer(ask: StudyAsk): Promise<Given<StudyResult>> {
  if (ask.task === 'read') {
    const { project, assets, mended } = readProjectPackage(ask.bytes)
    const bytes = jsonBytes(project)
    return { result: { project: bytes, assets, mended }, move: [bytes] }
  }
  await openKernel()
  const project = JSON.parse(new TextDecoder().decode(ask.project)) as Project
  if (ask.task === 'total') {
    const study = studyScheme(project, firstScheme(project).id)
    const { area, site } = study.totals
    return { result: { area, site, sketch: JSON.stringify(sketchOf(study)) } }
  }
  const study = () => studyScheme(project, ask.scheme ?? firstScheme(project).id)
  const written = await writeFormat(formatNamed(ask.format), project, study, ask.stamp, ask.assets)
  const bytes = typeof written === 'string' ? new TextEncoder().encode(written) : written
  return { result: bytes, move: [bytes] }
}

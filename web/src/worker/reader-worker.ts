import { expose } from 'comlink'
import wasmUrl from 'manifold-3d/manifold.wasm?url'
import ifcWasm from 'web-ifc/web-ifc.wasm?url'
import { readBodies, readSite, surveyOf, type Answers, type BodiesRead, type Placed } from '@geotome/core/exchange'
import { packSurvey, triangulateSurvey, type Location } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import { refusalsCross } from './refusals'

/** Reads one file of a stranger's, in a worker that is ended when it takes too long or dies. */
export interface ReaderWorker {
  /** ends when all that reading this kind of file needs is loaded: from here on its time counts */
  ready(extension: string): Promise<void>
  bodies(name: string, bytes: Uint8Array, together: boolean, answers: Answers): Promise<BodiesRead>
  site(
    name: string,
    bytes: Uint8Array,
    location: Location,
    options: { leaveOut: boolean; answers: Answers },
  ): Promise<SiteFound>
}
/** What a site file gives: in project coordinates, and its ground as it would be stored. */
export interface SiteFound {
  placed: Placed
  survey: Uint8Array | null
}

const api: ReaderWorker = {
  async ready(extension) {
    await openKernel(wasmUrl)
    if (extension === 'ifc') await import('web-ifc')
    if (extension === 'tif' || extension === 'tiff') await import('geotiff')
  },
  bodies: (name, bytes, together, answers) => readBodies(name, bytes, together, ifcWasm, answers),
  async site(name, bytes, location, options) {
    const placed = await readSite(name, bytes, location, options)
    const survey = surveyOf(placed.read)
    if (survey.points.length < 9) return { placed, survey: null }
    // Whether it can become ground is found out here, and not where it would stop everything.
    const { lost } = triangulateSurvey(survey)
    if (lost)
      placed.read.remarks.push(
        `${lost} pieces of lines cross others in a way that the ground cannot follow, and are smoothed.`,
      )
    return { placed, survey: packSurvey(survey) }
  },
}

refusalsCross(['The file is damaged, or of a kind that is not read.', 'Export it once more.'])
expose(api)

import { refuse, type Location, type Survey } from '../../project'
import { dxf } from './dxf'
import { geojson } from './geojson'
import { asciiGrid, geotiff } from './grids'
import type { SiteRead, SurveyReader } from './kind'
import { landxml } from './landxml'
import { points } from './points'
import { placeRead, type Placed } from './systems'

/** All formats that sites, ground and neighbours are read from; a new one is a file and a line here. */
export const SITE_READERS: SurveyReader[] = [points, landxml, dxf, geojson, asciiGrid, geotiff]
export const SITE_EXTENSIONS = SITE_READERS.flatMap((r) => r.extensions)

const MOST_BYTES = 120 * 1024 * 1024

/** What a file says of a site, in project coordinates. Errors: 'file' with what is wrong, where, and what to do. */
export async function readSite(name: string, bytes: Uint8Array, location: Location, options: { leaveOut: boolean } = { leaveOut: false }): Promise<Placed> {
  const extension = name.split('.').at(-1)?.toLowerCase() ?? ''
  const reader = SITE_READERS.find((r) => r.extensions.includes(extension)) ?? refuse('file', `"${name}" is no file that a site is read from.`, `Choose one of ${SITE_EXTENSIONS.map((e) => `.${e}`).join(', ')}.`)
  if (bytes.length === 0) refuse('file', `"${name}" is empty.`, 'Export it once more.')
  if (bytes.length > MOST_BYTES) refuse('file', `"${name}" has ${Math.round(bytes.length / 1e6)} MB; up to 120 MB are read.`, 'Export only what lies around the site.')
  return placeRead(await reader.read(bytes, name, options), location)
}

/** Points and lines as a survey to be kept; the points of lines are points of it. */
export function surveyOf(read: Pick<SiteRead, 'points' | 'lines'>): Survey {
  const flat: number[] = []
  for (const p of read.points) flat.push(...p)
  const lines = read.lines.map((line) => Uint32Array.from(line, (p) => { flat.push(...p); return flat.length / 3 - 1 }))
  return { points: Float64Array.from(flat), lines }
}

export type { Placed, SiteRead }

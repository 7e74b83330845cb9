import { MOST_POINTS, refuse, type Location, type Survey } from '../../project'
import { READ_LIMITS, tooMany } from '../limits'
import { dxf } from './dxf'
import { geojson } from './geojson'
import { asciiGrid } from './ascii-grid'
import { geotiff } from './geotiff'
import type { Answers, Ask, ReadOptions, SiteRead, SurveyReader } from './kind'
import { landxml } from './landxml'
import { points } from './points'
import { placeRead, type Placed } from './systems'

/** All formats that sites, ground and neighbours are read from; a new one is a file and a line here. */
export const SITE_READERS: SurveyReader[] = [points, landxml, dxf, geojson, asciiGrid, geotiff]
export const SITE_EXTENSIONS = SITE_READERS.flatMap((r) => r.extensions)

/** What a file says of a site, in project coordinates. Errors: 'file' with what is wrong, where, and what to do. */
export async function readSite(
  name: string,
  bytes: Uint8Array,
  location: Location,
  options: Partial<ReadOptions> = {},
  readers: readonly SurveyReader[] = SITE_READERS,
): Promise<Placed> {
  const extension = name.split('.').at(-1)?.toLowerCase() ?? ''
  const reader =
    readers.find((r) => r.extensions.includes(extension)) ??
    refuse(
      'file',
      `"${name}" is no file that a site is read from.`,
      `Choose one of ${readers
        .flatMap((r) => r.extensions)
        .map((e) => `.${e}`)
        .join(', ')}.`,
    )
  if (bytes.length === 0) refuse('file', `"${name}" is empty.`, 'Export it once more.')
  if (bytes.length > READ_LIMITS.siteBytes)
    refuse(
      'file',
      `"${name}" has ${Math.round(bytes.length / 1e6)} MB; up to 120 MB are read.`,
      'Export only what lies around the site.',
    )
  const read = await reader.read(bytes, name, { leaveOut: options.leaveOut ?? false, answers: options.answers ?? {} })
  if (read.points.length + read.lines.reduce((n, l) => n + l.length, 0) > READ_LIMITS.points) tooMany('points', name)
  return placeRead(thinned(read), location)
}

/** With as many points of the ground as can be kept: every second or third where there are more, which is said. */
function thinned(read: SiteRead): SiteRead {
  const inLines = read.lines.reduce((n, l) => n + l.length, 0)
  const room = MOST_POINTS - inLines
  if (room <= 0)
    return refuse(
      'file',
      `The lines have ${inLines.toLocaleString('en')} points; up to ${MOST_POINTS.toLocaleString('en')} are kept.`,
      'Export fewer lines, or with fewer points.',
    )
  if (read.points.length <= room) return read
  const step = Math.ceil(read.points.length / room)
  return {
    ...read,
    points: read.points.filter((_, i) => i % step === 0),
    remarks: [
      ...read.remarks,
      `There are ${read.points.length.toLocaleString('en')} points; every ${step === 2 ? 'second' : `${step}th`} was taken, so that ${MOST_POINTS.toLocaleString('en')} suffice.`,
    ],
  }
}

/** Points and lines as a survey to be kept; the points of lines are points of it. */
export function surveyOf(read: Pick<SiteRead, 'points' | 'lines'>): Survey {
  const flat: number[] = []
  for (const p of read.points) flat.push(...p)
  const lines = read.lines.map((line) =>
    Uint32Array.from(line, (p) => {
      flat.push(...p)
      return flat.length / 3 - 1
    }),
  )
  return { points: Float64Array.from(flat), lines }
}

export { METRES } from './kind'
export type { Answers, Ask, Placed, SiteRead }

import type { GeoTIFF, GeoTIFFImage } from 'geotiff'
import { refuse } from '../../project'
import { READ_LIMITS, tooMany } from '../limits'
import { gridPoints } from './grid-points'
import { METRES, nothing, type Answers, type SiteRead, type SurveyReader } from './kind'

/** The keys of a GeoTIFF's coordinates that are read here (OGC 19-008, GeoTIFF 1.1). */
interface GeoKeys {
  GTModelTypeGeoKey?: number
  GTRasterTypeGeoKey?: number
  ProjectedCSTypeGeoKey?: number
  GeographicTypeGeoKey?: number
  ProjLinearUnitsGeoKey?: number
  VerticalCSTypeGeoKey?: number
  VerticalUnitsGeoKey?: number
}

/** Metres to the units of length that the EPSG register numbers. */
const EPSG_UNITS: Record<number, number> = { 9001: 1, 9002: METRES.ft ?? 1, 9003: METRES['US survey ft'] ?? 1 }
/** Metres to the unit of vertical systems that are in feet (EPSG register); all others that are met are in metres. */
const VERTICAL_SYSTEMS: Record<number, number> = {
  6360: METRES['US survey ft'] ?? 1,
  6358: METRES['US survey ft'] ?? 1,
  8228: METRES.ft ?? 1,
  5702: METRES['US survey ft'] ?? 1,
}
/** TIFF 6.0: what a value of PhotometricInterpretation makes of the bands, where that is a colour. */
const COLOURS: Record<number, string> = { 2: 'red, green and blue', 3: 'a palette', 5: 'inks', 6: 'YCbCr', 8: 'CIELab' }
/** a code for "defined by the file itself" */
const USER_DEFINED = 32767

/**
 * GeoTIFF of heights, wherever its pixels stand: turned, north or south up, as areas or as points; with its scale, offset and vertical unit.
 * One band is taken; which one is asked where there are several. Cells that its mask leaves out have no height. Colour pictures are refused.
 */
export const geotiff: SurveyReader = {
  extensions: ['tif', 'tiff'],
  async read(bytes, name, { answers }) {
    const { fromArrayBuffer } = await import('geotiff')
    try {
      return await readHeights(await fromArrayBuffer(bytes.slice().buffer), name, answers)
    } catch (e) {
      if (e instanceof Error && e.name === 'Refusal') throw e
      return refuse(
        'file',
        `"${name}" cannot be read as a GeoTIFF of heights.`,
        'Export one band of heights, with its place on the map.',
      )
    }
  },
}

async function readHeights(file: GeoTIFF, name: string, answers: Answers): Promise<SiteRead> {
  const { image, mask } = await imagesOf(file)
  const [nx, ny] = [image.getWidth(), image.getHeight()]
  if (nx * ny > READ_LIMITS.cells) tooMany('cells', name)
  refusePicture(image, name)
  const read = nothing()
  if (isBytes(image)) read.remarks.push('The band has whole numbers from 0 to 255: check that these are heights.')
  const keys = (image.getGeoKeys() ?? {}) as GeoKeys
  const horizontal = systemOf(keys, read)
  const band = await bandAsked(image, read, answers)
  const said = (await image.getGDALMetadata(band)) as Record<string, unknown> | null
  const vertical = verticalUnit(keys, said, read)
  const [scale, offset] = [numeric(said?.SCALE ?? said?.scale, 1), numeric(said?.OFFSET ?? said?.offset, 0)]
  const none = image.getGDALNoData()
  const [heights] = (await image.readRasters({ samples: [band] })) as unknown as ArrayLike<number>[]
  const shown = mask ? ((await mask.readRasters()) as unknown as ArrayLike<number>[])[0] : null
  const place = placeOf(image, keys.GTRasterTypeGeoKey === 2)
  read.points = gridPoints(
    {
      nx,
      ny,
      place: (i, j) => {
        const [x, y] = place(i, j)
        return [x * horizontal, y * horizontal]
      },
      at: (cell) => {
        const z = heights?.[cell] ?? NaN
        return z === none || (shown && !shown[cell]) ? NaN : (z * scale + offset) * vertical
      },
    },
    name,
    read.remarks,
  )
  return read
}

/** The image at full size, and the mask of that size, among overviews, pages and masks (bits 0 to 2 of NewSubfileType). */
async function imagesOf(file: GeoTIFF): Promise<{ image: GeoTIFFImage; mask: GeoTIFFImage | null }> {
  let image = await file.getImage(0)
  let mask: GeoTIFFImage | null = null
  const count = Math.min(await file.getImageCount(), 64)
  for (let i = 1; i < count; i++) {
    const other = await file.getImage(i)
    const isMask = ((tagOf(other, 'NewSubfileType') ?? 0) & 4) !== 0
    const isAsLarge = other.getWidth() === image.getWidth() && other.getHeight() === image.getHeight()
    if (isMask && isAsLarge) mask ??= other
    else if (!isMask && other.getWidth() * other.getHeight() > image.getWidth() * image.getHeight()) {
      image = other
      mask = null
    }
  }
  return { image, mask }
}

const isBytes = (image: GeoTIFFImage) => image.getSampleFormat(0) === 1 && image.getBitsPerSample(0) <= 8

/** Refuses an image whose bands are colours: three or more of a byte, or what its photometric interpretation says. */
function refusePicture(image: GeoTIFFImage, name: string): void {
  const said = COLOURS[tagOf(image, 'PhotometricInterpretation') ?? -1]
  if (said && (isBytes(image) || said === 'a palette'))
    refuse(
      'file',
      `"${name}" is a picture in colours (${said}), not heights.`,
      'Read it as a picture, or choose a GeoTIFF whose band is heights.',
    )
}

/** Metres to a unit of the plan; notes the coordinate system that the file names. */
function systemOf(keys: GeoKeys, read: SiteRead): number {
  const isGeographic = keys.GTModelTypeGeoKey === 2 || (!keys.GTModelTypeGeoKey && !keys.ProjectedCSTypeGeoKey)
  const code = isGeographic ? keys.GeographicTypeGeoKey : keys.ProjectedCSTypeGeoKey
  if (code && code !== USER_DEFINED) read.system = `EPSG:${code}`
  else if (keys.GTModelTypeGeoKey || code)
    read.remarks.push('The file defines a coordinate system of its own: its coordinates were taken without one.')
  return isGeographic || read.system !== null ? 1 : (EPSG_UNITS[keys.ProjLinearUnitsGeoKey ?? 9001] ?? 1)
}

/** Metres to a unit of height: by its key, by the vertical system, or by the band's metadata. */
function verticalUnit(keys: GeoKeys, said: Record<string, unknown> | null, read: SiteRead): number {
  const word = typeof said?.UNITTYPE === 'string' ? said.UNITTYPE.toLowerCase() : ''
  const byWord = /us.*(survey)?.*f(oo|ee)?t/.test(word)
    ? METRES['US survey ft']
    : /^(ft|foot|feet)|international foot/.test(word)
      ? METRES.ft
      : /^cm|centi/.test(word)
        ? METRES.cm
        : undefined
  const unit =
    EPSG_UNITS[keys.VerticalUnitsGeoKey ?? -1] ?? VERTICAL_SYSTEMS[keys.VerticalCSTypeGeoKey ?? -1] ?? byWord ?? 1
  if (unit === METRES.ft || unit === METRES['US survey ft']) read.remarks.push('The heights were in feet.')
  return unit
}

/** The band of heights; asked where there are several that no mask or opacity takes. */
async function bandAsked(image: GeoTIFFImage, read: SiteRead, answers: Answers): Promise<number> {
  const count = image.getSamplesPerPixel()
  if (count === 1) return 0
  const labels: string[] = []
  for (let i = 0; i < Math.min(count, 32); i++) {
    const said = (await image.getGDALMetadata(i)) as Record<string, unknown> | null
    const own = typeof said?.DESCRIPTION === 'string' ? `, ${said.DESCRIPTION.slice(0, 60)}` : ''
    labels.push(`band ${i + 1}${own}`)
  }
  const wish = Number(answers.band) - 1
  const guess = labels.findIndex((l) => /height|elevation|dem|dtm|dsm|terrain|ground/i.test(l))
  const band = Number.isInteger(wish) && wish >= 0 && wish < count ? wish : Math.max(0, guess)
  read.asks.push({
    what: 'band',
    say: `The file has ${count} bands`,
    options: labels.map((label, i) => ({ value: String(i + 1), label })),
    taken: String(band + 1),
  })
  return band
}

/** Where the middle of a pixel lies, in the file's coordinates: by its matrix, or by its origin and resolution. */
function placeOf(image: GeoTIFFImage, isPoint: boolean): (i: number, j: number) => [number, number] {
  // Where a pixel is a point, the tie is to its middle; otherwise to the corner of its area.
  const middle = isPoint ? 0 : 0.5
  const value: unknown = valueOf(image, 'ModelTransformation')
  const isMatrix = typeof value === 'object' && value !== null && 'length' in value && value.length === 16
  if (isMatrix) {
    const m = Array.from(value as ArrayLike<number>)
    return (i, j) => [
      (m[0] ?? 1) * (i + middle) + (m[1] ?? 0) * (j + middle) + (m[3] ?? 0),
      (m[4] ?? 0) * (i + middle) + (m[5] ?? -1) * (j + middle) + (m[7] ?? 0),
    ]
  }
  const [ox = 0, oy = 0] = image.getOrigin()
  const [dx = 1, dy = -1] = image.getResolution()
  return (i, j) => [ox + (i + middle) * dx, oy + (j + middle) * dy]
}

function valueOf(image: GeoTIFFImage, tag: string): unknown {
  const directory = (image as unknown as { fileDirectory: unknown }).fileDirectory as Record<string, unknown> & {
    getValue?: (tag: string) => unknown
  }
  return directory.getValue?.(tag) ?? directory[tag]
}

/** A tag's number; null where it is none. */
function tagOf(image: GeoTIFFImage, tag: string): number | null {
  const value = valueOf(image, tag)
  const first: unknown =
    typeof value === 'object' && value !== null && 'length' in value ? (value as number[])[0] : value
  return typeof first === 'number' ? first : null
}

const numeric = (value: unknown, otherwise: number): number => {
  const n = typeof value === 'string' || typeof value === 'number' ? Number(value) : NaN
  return Number.isFinite(n) ? n : otherwise
}

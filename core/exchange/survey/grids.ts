import { MOST_POINTS, refuse } from '../../project'
import type { Vec3 } from '../../solid'
import { READ_LIMITS, tooMany } from '../limits'
import { nothing, textOf, type SurveyReader } from './kind'

/** `place`: where the value of column i and row j stands */
interface Grid {
  nx: number
  ny: number
  place(i: number, j: number): [number, number]
  none: number | null
  at(i: number): number
}

/** Heights of a grid as points; every second or third cell where there are too many. */
function fromGrid(grid: Grid, name: string, remarks: string[]): Vec3[] {
  if (grid.nx * grid.ny > READ_LIMITS.cells) tooMany('cells', name)
  const step = Math.ceil(Math.sqrt((grid.nx * grid.ny) / (MOST_POINTS / 4)))
  if (step > 1) remarks.push(`Every ${step}. cell of the grid was taken.`)
  const out: Vec3[] = []
  for (let j = 0; j < grid.ny; j += step)
    for (let i = 0; i < grid.nx; i += step) {
      const z = grid.at(j * grid.nx + i)
      if (Number.isFinite(z) && z !== grid.none && z > -1e5) out.push([...grid.place(i, j), z])
    }
  return out.length ? out : refuse('file', `The grid "${name}" has no heights.`, 'Choose one that covers the site.')
}

/** ESRI ASCII grid. */
export const asciiGrid: SurveyReader = {
  extensions: ['asc', 'grd'],
  read(bytes, name) {
    const words = textOf(bytes).trim().split(/\s+/)
    const head = new Map<string, number>()
    let k = 0
    while (k < words.length && /^[a-z]/i.test(words[k] ?? '')) {
      head.set((words[k] ?? '').toLowerCase(), Number(words[k + 1]))
      k += 2
    }
    const [nx, ny, cell] = [head.get('ncols') ?? NaN, head.get('nrows') ?? NaN, head.get('cellsize') ?? NaN]
    if (!(nx > 0 && ny > 0 && cell > 0))
      refuse('file', `"${name}" is no ASCII grid: ncols, nrows or cellsize is missing.`, 'Choose an ESRI ASCII grid.')
    const values = words.slice(k)
    if (values.length !== nx * ny)
      refuse(
        'file',
        `"${name}" has ${values.length} heights; ${nx} columns and ${ny} rows make ${nx * ny}.`,
        'Export it once more.',
      )
    const bad = values.findIndex((w) => !Number.isFinite(Number(w)))
    if (bad >= 0)
      refuse(
        'file',
        `In "${name}", row ${Math.floor(bad / nx) + 1}, column ${(bad % nx) + 1} is not a number: "${values[bad]?.slice(0, 20)}".`,
        'Mend it and read the file again.',
      )
    const x0 = head.get('xllcenter') ?? (head.get('xllcorner') ?? 0) + cell / 2
    const y0 = head.get('yllcenter') ?? (head.get('yllcorner') ?? 0) + cell / 2
    const read = nothing()
    read.points = fromGrid(
      {
        nx,
        ny,
        place: (i, j) => [x0 + i * cell, y0 + (ny - 1 - j) * cell],
        none: head.get('nodata_value') ?? -9999,
        at: (i) => Number(values[i]),
      },
      name,
      read.remarks,
    )
    return read
  },
}

/** GeoTIFF with one band of heights, wherever its pixels stand: turned, north or south up, as areas or as points; with its scale and offset. */
export const geotiff: SurveyReader = {
  extensions: ['tif', 'tiff'],
  async read(bytes, name) {
    const { fromArrayBuffer } = await import('geotiff')
    const read = nothing()
    try {
      const file = await fromArrayBuffer(bytes.slice().buffer)
      const image = await file.getImage()
      const [nx, ny] = [image.getWidth(), image.getHeight()]
      if (nx * ny > READ_LIMITS.cells) tooMany('cells', name)
      const keys = image.getGeoKeys() as {
        ProjectedCSTypeGeoKey?: number
        GeographicTypeGeoKey?: number
        GTRasterTypeGeoKey?: number
      } | null
      // Where a pixel is a point, the tie is to its middle; otherwise to the corner of its area.
      const middle = keys?.GTRasterTypeGeoKey === 2 ? 0 : 0.5
      const matrix = tagOf(image, 'ModelTransformation')
      const [, , , mx = 0, , , , my = 0] = matrix ?? []
      const [ox = 0, oy = 0] = matrix ? [] : image.getOrigin()
      const [dx = 1, dy = -1] = matrix ? [] : image.getResolution()
      const place = (i: number, j: number): [number, number] =>
        matrix
          ? [
              (matrix[0] ?? 1) * (i + middle) + (matrix[1] ?? 0) * (j + middle) + mx,
              (matrix[4] ?? 0) * (i + middle) + (matrix[5] ?? -1) * (j + middle) + my,
            ]
          : [ox + (i + middle) * dx, oy + (j + middle) * dy]
      const said = (await image.getGDALMetadata(0)) as Record<string, unknown> | null
      const [scale, offset] = [numeric(said?.SCALE ?? said?.scale, 1), numeric(said?.OFFSET ?? said?.offset, 0)]
      const none = image.getGDALNoData()
      const [band] = (await image.readRasters({ samples: [0] })) as unknown as ArrayLike<number>[]
      const code = keys?.ProjectedCSTypeGeoKey ?? keys?.GeographicTypeGeoKey
      if (code) read.system = `EPSG:${code}`
      read.points = fromGrid(
        {
          nx,
          ny,
          place,
          none: null,
          at: (i) => {
            const z = band?.[i] ?? NaN
            return z === none ? NaN : z * scale + offset
          },
        },
        name,
        read.remarks,
      )
    } catch (e) {
      if (e instanceof Error && e.name === 'Refusal') throw e
      refuse(
        'file',
        `"${name}" cannot be read as a GeoTIFF of heights.`,
        'Export one band of heights, with its place on the map.',
      )
    }
    return read
  },
}

function tagOf(image: unknown, tag: string): number[] | null {
  const directory = (image as { fileDirectory: Record<string, unknown> & { getValue?: (tag: string) => unknown } })
    .fileDirectory
  const value = directory.getValue?.(tag) ?? directory[tag]
  return value && typeof value === 'object' && 'length' in value && (value as ArrayLike<number>).length === 16
    ? Array.from(value as ArrayLike<number>)
    : null
}

const numeric = (value: unknown, otherwise: number): number => {
  const n = typeof value === 'string' || typeof value === 'number' ? Number(value) : NaN
  return Number.isFinite(n) ? n : otherwise
}

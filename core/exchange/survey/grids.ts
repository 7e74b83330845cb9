import { MOST_POINTS, refuse } from '../../project'
import type { Vec3 } from '../../solid'
import { nothing, textOf, type SurveyReader } from './kind'

interface Grid { nx: number; ny: number; /** of the middle of the first cell, and from cell to cell; rows run down */ x0: number; y0: number; dx: number; dy: number; none: number | null; at(i: number): number }

/** Heights of a grid as points; every second or third cell where there are too many. */
function fromGrid(grid: Grid, name: string, remarks: string[]): Vec3[] {
  const step = Math.ceil(Math.sqrt((grid.nx * grid.ny) / (MOST_POINTS / 4)))
  if (step > 1) remarks.push(`Every ${step}. cell of the grid was taken.`)
  const out: Vec3[] = []
  for (let j = 0; j < grid.ny; j += step) for (let i = 0; i < grid.nx; i += step) {
    const z = grid.at(j * grid.nx + i)
    if (Number.isFinite(z) && z !== grid.none && z > -1e5) out.push([grid.x0 + i * grid.dx, grid.y0 + j * grid.dy, z])
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
    while (k < words.length && /^[a-z]/i.test(words[k] ?? '')) { head.set((words[k] ?? '').toLowerCase(), Number(words[k + 1])); k += 2 }
    const [nx, ny, cell] = [head.get('ncols') ?? NaN, head.get('nrows') ?? NaN, head.get('cellsize') ?? NaN]
    if (!(nx > 0 && ny > 0 && cell > 0)) refuse('file', `"${name}" is no ASCII grid: ncols, nrows or cellsize is missing.`, 'Choose an ESRI ASCII grid.')
    const values = words.slice(k)
    if (values.length !== nx * ny) refuse('file', `"${name}" has ${values.length} heights; ${nx} columns and ${ny} rows make ${nx * ny}.`, 'Export it once more.')
    const bad = values.findIndex((w) => !Number.isFinite(Number(w)))
    if (bad >= 0) refuse('file', `In "${name}", row ${Math.floor(bad / nx) + 1}, column ${(bad % nx) + 1} is not a number: "${values[bad]?.slice(0, 20)}".`, 'Mend it and read the file again.')
    const x0 = head.get('xllcenter') ?? (head.get('xllcorner') ?? 0) + cell / 2
    const y0 = head.get('yllcenter') ?? (head.get('yllcorner') ?? 0) + cell / 2
    const read = nothing()
    read.points = fromGrid({ nx, ny, x0, y0: y0 + (ny - 1) * cell, dx: cell, dy: -cell, none: head.get('nodata_value') ?? -9999, at: (i) => Number(values[i]) }, name, read.remarks)
    return read
  },
}

/** GeoTIFF with one band of heights. */
export const geotiff: SurveyReader = {
  extensions: ['tif', 'tiff'],
  async read(bytes, name) {
    const { fromArrayBuffer } = await import('geotiff')
    const read = nothing()
    try {
      const file = await fromArrayBuffer(bytes.slice().buffer)
      const image = await file.getImage()
      const [nx, ny] = [image.getWidth(), image.getHeight()]
      const [ox = 0, oy = 0] = image.getOrigin()
      const [dx = 1, dy = -1] = image.getResolution()
      const [band] = (await image.readRasters({ samples: [0] })) as unknown as ArrayLike<number>[]
      const keys = image.getGeoKeys() as { ProjectedCSTypeGeoKey?: number; GeographicTypeGeoKey?: number } | null
      const code = keys?.ProjectedCSTypeGeoKey ?? keys?.GeographicTypeGeoKey
      if (code) read.system = `EPSG:${code}`
      read.points = fromGrid({ nx, ny, x0: ox + dx / 2, y0: oy + dy / 2, dx, dy, none: image.getGDALNoData(), at: (i) => band?.[i] ?? NaN }, name, read.remarks)
    } catch (e) {
      if (e instanceof Error && e.name === 'Refusal') throw e
      refuse('file', `"${name}" cannot be read as a GeoTIFF of heights.`, 'Export one band of heights, with its place on the map.')
    }
    return read
  },
}

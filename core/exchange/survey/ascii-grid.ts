import { refuse } from '../../project'
import { gridPoints } from './grid-points'
import { nothing, textOf, type SurveyReader } from './kind'

/** Words as numbers, also with a comma before the decimals: no value of a grid is grouped. */
const numeric = (word: string | undefined) => Number((word ?? '').replace(/^([+-]?\d+),(\d+)/, '$1.$2'))

/** ASCII grid: columns, rows, the lower left corner or its cell's middle, the size of cells or `dx` and `dy`; heights from the north down. */
export const asciiGrid: SurveyReader = {
  extensions: ['asc', 'grd'],
  read(bytes, name) {
    const words = textOf(bytes)
      .replace(/[\u2212\u2012\u2013](?=[\d.,])/g, '-')
      .trim()
      .split(/\s+/)
    const head = new Map<string, number>()
    let k = 0
    while (k < words.length && /^[a-z]/i.test(words[k] ?? '') && !/^nan$/i.test(words[k] ?? '')) {
      head.set((words[k] ?? '').toLowerCase(), numeric(words[k + 1]))
      k += 2
    }
    const [nx, ny] = [head.get('ncols') ?? NaN, head.get('nrows') ?? NaN]
    const dx = head.get('cellsize') ?? head.get('dx') ?? NaN
    const dy = head.get('cellsize') ?? head.get('dy') ?? NaN
    if (!(nx > 0 && ny > 0 && dx > 0 && dy > 0))
      refuse(
        'file',
        `"${name}" is no ASCII grid: ncols, nrows or cellsize (or dx and dy) is missing.`,
        'Export the grid of heights once more.',
      )
    const values = words.slice(k)
    if (values.length !== nx * ny)
      refuse(
        'file',
        `"${name}" has ${values.length} heights; ${nx} columns and ${ny} rows make ${nx * ny}.`,
        'Export it once more.',
      )
    const isHeight = (word: string) => /^[+-]?nan$/i.test(word) || Number.isFinite(numeric(word))
    const bad = values.findIndex((w) => !isHeight(w))
    if (bad >= 0)
      refuse(
        'file',
        `In "${name}", row ${Math.floor(bad / nx) + 1}, column ${(bad % nx) + 1} is not a number: "${values[bad]?.slice(0, 20)}".`,
        'Mend it and read the file again.',
      )
    const x0 = head.get('xllcenter') ?? (head.get('xllcorner') ?? 0) + dx / 2
    const y0 = head.get('yllcenter') ?? (head.get('yllcorner') ?? 0) + dy / 2
    const none = head.get('nodata_value') ?? -9999
    const read = nothing()
    read.points = gridPoints(
      {
        nx,
        ny,
        place: (i, j) => [x0 + i * dx, y0 + (ny - 1 - j) * dy],
        at: (cell) => {
          const z = numeric(values[cell])
          return z === none ? NaN : z
        },
      },
      name,
      read.remarks,
    )
    return read
  },
}

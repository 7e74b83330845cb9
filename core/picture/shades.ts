import * as v from 'valibot'
import type { Raster } from './trace'

/** How dark a picture is, coarsely: from its upper left corner row by row, two hexadecimal digits each, 00 white and ff black. */
export const ShadesSchema = v.pipe(
  v.strictObject({
    columns: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(128)),
    rows: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(128)),
    dark: v.pipe(v.string(), v.regex(/^([0-9a-f]{2})*$/, 'Shades are pairs of the digits 0-9 and a-f.')),
  }),
  v.check((s) => s.dark.length === 2 * s.columns * s.rows, 'Shades have as many values as columns times rows.'),
)
export type Shades = v.InferOutput<typeof ShadesSchema>

/** fields along the longer side of a picture */
const FIELDS = 64

/** The shades of a picture (RGBA): the mean of what lies in each field, by how light it looks (Rec. 709); what is clear is white paper. */
export function shadesOf({ width, height, data }: Raster): Shades {
  const field = Math.max(width, height) / FIELDS
  const [columns, rows] = [width, height].map((n) => Math.max(1, Math.min(FIELDS, Math.round(n / field)))) as [
    number,
    number,
  ]
  const [sums, counts] = [new Float64Array(columns * rows), new Float64Array(columns * rows)]
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = 4 * (y * width + x)
      const [r = 0, g = 0, b = 0, alpha = 255] = [data[i], data[i + 1], data[i + 2], data[i + 3]]
      const k = Math.floor((y * rows) / height) * columns + Math.floor((x * columns) / width)
      sums[k] = (sums[k] as number) + (1 - (0.2126 * r + 0.7152 * g + 0.0722 * b) / 255) * (alpha / 255)
      counts[k] = (counts[k] as number) + 1
    }
  const dark = [...sums].map((sum, k) => Math.round((255 * sum) / ((counts[k] as number) || 1)))
  return { columns, rows, dark: dark.map((d) => d.toString(16).padStart(2, '0')).join('') }
}

/** How dark it is from 0 to 1 at a share of the picture's width and height, between the middles of its fields; null beside it. */
export function darknessAt({ columns, rows, dark }: Shades, across: number, down: number): number | null {
  if (across < 0 || across > 1 || down < 0 || down > 1) return null
  const at = (column: number, row: number) => {
    const k = Math.min(rows - 1, Math.max(0, row)) * columns + Math.min(columns - 1, Math.max(0, column))
    return parseInt(dark.slice(2 * k, 2 * k + 2), 16) / 255
  }
  const [x, y] = [across * columns - 0.5, down * rows - 0.5]
  const [c, r] = [Math.floor(x), Math.floor(y)]
  const [s, t] = [x - c, y - r]
  return (1 - t) * ((1 - s) * at(c, r) + s * at(c + 1, r)) + t * ((1 - s) * at(c, r + 1) + s * at(c + 1, r + 1))
}

import { refuse } from '../values'

/** Surveyed ground: points (x, y, z each, m from the project's zero) and lines through them that the ground is not to be smoothed across. */
export interface Survey {
  points: Float64Array
  lines: Uint32Array[]
}

const MAGIC = 0x54524553 // "SERT" in the file's order: surveyed terrain
export const MOST_POINTS = 2_000_000

/** A survey as an asset: head, doubles, then the lines as runs of point numbers, each with its length before it. Little-endian. */
export function packSurvey({ points, lines }: Survey): Uint8Array {
  const ints = lines.reduce((sum, l) => sum + l.length + 1, 0)
  const out = new Uint8Array(16 + points.byteLength + ints * 4)
  const view = new DataView(out.buffer)
  ;[MAGIC, 1, points.length / 3, lines.length].forEach((n, i) => view.setUint32(i * 4, n, true))
  points.forEach((c, i) => view.setFloat64(16 + i * 8, c, true))
  let at = 16 + points.byteLength
  for (const line of lines) {
    view.setUint32(at, line.length, true)
    at += 4
    for (const p of line) {
      view.setUint32(at, p, true)
      at += 4
    }
  }
  return out
}

/** Errors: 'file'. */
export function unpackSurvey(bytes: Uint8Array): Survey {
  const wrong = () => refuse('file', 'The stored terrain is damaged.', 'Read the survey from its file again.')
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  if (bytes.length < 16 || view.getUint32(0, true) !== MAGIC) return wrong()
  const [count, lineCount] = [view.getUint32(8, true), view.getUint32(12, true)]
  if (bytes.length < 16 + count * 24 || count > MOST_POINTS) return wrong()
  const points = Float64Array.from({ length: count * 3 }, (_, i) => view.getFloat64(16 + i * 8, true))
  if (!points.every((c) => Math.abs(c) < 1e8)) return wrong()
  let at = 16 + count * 24
  const lines = Array.from({ length: lineCount }, () => {
    const n = at + 4 <= bytes.length ? view.getUint32(at, true) : 0
    at += 4
    if (at + n * 4 > bytes.length) return wrong()
    const line = Uint32Array.from({ length: n }, (_, i) => view.getUint32(at + i * 4, true))
    at += n * 4
    return line.some((p) => p >= count) ? wrong() : line
  })
  return { points, lines }
}

/** Whether bytes are a stored survey. */
export const isSurvey = (bytes: Uint8Array): boolean =>
  bytes.length >= 16 && new DataView(bytes.buffer, bytes.byteOffset).getUint32(0, true) === MAGIC

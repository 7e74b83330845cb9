import { TOLERANCE, linesMeet } from '../solid'
import { refuse } from '../values'
import type { Survey } from './survey'

/** of a grid that a piece of line may pass through; pairs of pieces that may lie at one place */
const MOST_CELLS = 5000
const MOST_COMPARED = 600_000

/**
 * A survey made ready to be triangulated: points at one place are one (the first one's height), lines are cut where they cross (at the mean of
 * their heights there) and at points that lie on them. `segments` are pairs of point numbers, each once.
 */
export function splitLines({ points, lines }: Survey): { points: Float64Array; segments: Uint32Array } {
  const out: number[] = []
  const at = new Map<string, number>()
  const place = (x: number, y: number, z: number) => {
    const key = `${Math.round(x / TOLERANCE.touch)} ${Math.round(y / TOLERANCE.touch)}`
    let i = at.get(key)
    if (i === undefined) {
      i = out.length / 3
      out.push(x, y, z)
      at.set(key, i)
    }
    return i
  }
  const number = Uint32Array.from({ length: points.length / 3 }, (_, i) =>
    place(points[i * 3] as number, points[i * 3 + 1] as number, points[i * 3 + 2] as number),
  )
  let pieces: [number, number][] = lines.flatMap((line) =>
    [...line].slice(1).flatMap((p, i): [number, number][] => {
      const [a, b] = [number[line[i] as number] as number, number[p] as number]
      return a === b ? [] : [[a, b]]
    }),
  )
  if (pieces.length === 0) return { points: Float64Array.from(out), segments: new Uint32Array() }
  const X = (i: number) => out[i * 3] as number,
    Y = (i: number) => out[i * 3 + 1] as number,
    Z = (i: number) => out[i * 3 + 2] as number

  // Crossings, by cells of a grid, so that long surveys stay quick.
  const cuts = new Map<number, { t: number; p: number }[]>()
  const cut = (s: number, t: number, p: number) => {
    const list = cuts.get(s)
    if (list) list.push({ t, p })
    else cuts.set(s, [{ t, p }])
  }
  // The median: one point far away must not make all the others neighbours.
  const lengths = pieces.map(([a, b]) => Math.hypot(X(b) - X(a), Y(b) - Y(a))).sort((p, q) => p - q)
  const long = Math.max(TOLERANCE.least, lengths[lengths.length >> 1] ?? 1)
  const cells = new Map<string, number[]>()
  // The cells that a piece passes through, column by column; null for one so long that it is compared with all.
  const cellsOf = (a: number, b: number): string[] | null => {
    const [x0, x1] = [Math.min(X(a), X(b)), Math.max(X(a), X(b))]
    const rise = X(b) === X(a) ? 0 : (Y(b) - Y(a)) / (X(b) - X(a))
    const [first, last] = [Math.floor(x0 / long), Math.floor(x1 / long)]
    if (last - first + Math.abs(Y(b) - Y(a)) / long > MOST_CELLS) return null
    const keys: string[] = []
    for (let i = first; i <= last; i++) {
      const at = (x: number) => (X(b) === X(a) ? [Y(a), Y(b)] : [Y(a) + rise * (Math.min(x1, Math.max(x0, x)) - X(a))])
      const ys = [...at(i * long), ...at((i + 1) * long)]
      for (
        let j = Math.floor(Math.min(...ys) / long - TOLERANCE.point);
        j <= Math.floor(Math.max(...ys) / long + TOLERANCE.point);
        j++
      )
        keys.push(`${i} ${j}`)
    }
    return keys
  }
  const wide: number[] = []
  let compared = 0
  const seen = new Set<string>()
  const compare = (s: number, o: number) => {
    if (seen.has(`${o} ${s}`)) return
    seen.add(`${o} ${s}`)
    if (++compared > MOST_COMPARED)
      refuse(
        'geometry',
        `The lines of the survey cross one another too often: over ${MOST_COMPARED.toLocaleString('en')} pairs lie at one place.`,
        'Thin the lines, or read the points alone.',
      )
    const [[a, b], [c, d]] = [pieces[s], pieces[o]] as [[number, number], [number, number]]
    if (a === c || a === d || b === c || b === d) return
    const met = linesMeet([X(a), Y(a)], [X(b) - X(a), Y(b) - Y(a)], [X(c), Y(c)], [X(d) - X(c), Y(d) - Y(c)])
    if (!met) return
    const { t, s: u } = met
    if (t <= 0 || t >= 1 || u <= 0 || u >= 1) return
    const p = place(
      X(a) + t * (X(b) - X(a)),
      Y(a) + t * (Y(b) - Y(a)),
      (Z(a) + t * (Z(b) - Z(a)) + Z(c) + u * (Z(d) - Z(c))) / 2,
    )
    cut(s, t, p)
    cut(o, u, p)
  }
  pieces.forEach(([a, b], s) => {
    const keys = cellsOf(a, b)
    for (const o of wide) compare(s, o)
    if (!keys) {
      for (let o = 0; o < s; o++) compare(s, o)
      wide.push(s)
      return
    }
    for (const key of keys) {
      const list = cells.get(key)
      for (const o of list ?? []) compare(s, o)
      if (list) list.push(s)
      else cells.set(key, [s])
    }
  })
  // Points that lie on a line are its points.
  const count = out.length / 3
  for (let p = 0; p < count; p++)
    for (const s of [...(cells.get(`${Math.floor(X(p) / long)} ${Math.floor(Y(p) / long)}`) ?? []), ...wide]) {
      const [a, b] = pieces[s] as [number, number]
      if (p === a || p === b) continue
      const [dx, dy] = [X(b) - X(a), Y(b) - Y(a)]
      const t = ((X(p) - X(a)) * dx + (Y(p) - Y(a)) * dy) / (dx * dx + dy * dy)
      if (
        t > 0 &&
        t < 1 &&
        Math.abs((X(p) - X(a)) * dy - (Y(p) - Y(a)) * dx) / Math.hypot(dx, dy) < TOLERANCE.point * 10
      )
        cut(s, t, p)
    }
  pieces = pieces.flatMap(([a, b], s): [number, number][] => {
    const stops = [a, ...(cuts.get(s) ?? []).sort((u, v) => u.t - v.t).map((c) => c.p), b]
    return stops.slice(1).flatMap((p, i): [number, number][] => (p === stops[i] ? [] : [[stops[i] as number, p]]))
  })
  const once = new Map(pieces.map(([a, b]) => [a < b ? `${a} ${b}` : `${b} ${a}`, [a, b] as const]))
  return { points: Float64Array.from(out), segments: Uint32Array.from([...once.values()].flat()) }
}

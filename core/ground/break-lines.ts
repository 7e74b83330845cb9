import { TOLERANCE } from '../solid'
import type { Survey } from './survey'

/**
 * A survey made ready to be triangulated: points at one place are one (the first one's height), lines are cut where they cross (at the mean of
 * their heights there) and at points that lie on them. `segments` are pairs of point numbers, each once.
 */
export function splitLines({ points, lines }: Survey): { points: Float64Array; segments: Uint32Array } {
  const out: number[] = []
  const at = new Map<string, number>()
  const place = (x: number, y: number, z: number) => {
    const key = `${Math.round(x / 1e-4)} ${Math.round(y / 1e-4)}`
    let i = at.get(key)
    if (i === undefined) { i = out.length / 3; out.push(x, y, z); at.set(key, i) }
    return i
  }
  const number = Uint32Array.from({ length: points.length / 3 }, (_, i) => place(points[i * 3] as number, points[i * 3 + 1] as number, points[i * 3 + 2] as number))
  let pieces: [number, number][] = lines.flatMap((line) => [...line].slice(1).flatMap((p, i): [number, number][] => { const [a, b] = [number[line[i] as number] as number, number[p] as number]; return a === b ? [] : [[a, b]] }))
  if (pieces.length === 0) return { points: Float64Array.from(out), segments: new Uint32Array() }
  const X = (i: number) => out[i * 3] as number, Y = (i: number) => out[i * 3 + 1] as number, Z = (i: number) => out[i * 3 + 2] as number

  // Crossings, by cells of a grid, so that long surveys stay quick.
  const cuts = new Map<number, { t: number; p: number }[]>()
  const cut = (s: number, t: number, p: number) => { const list = cuts.get(s); if (list) list.push({ t, p }); else cuts.set(s, [{ t, p }]) }
  const long = pieces.reduce((sum, [a, b]) => sum + Math.hypot(X(b) - X(a), Y(b) - Y(a)), 0) / pieces.length
  const cells = new Map<string, number[]>()
  const cellsOf = (a: number, b: number) => {
    const keys: string[] = []
    for (let i = Math.floor(Math.min(X(a), X(b)) / long); i <= Math.floor(Math.max(X(a), X(b)) / long); i++) for (let j = Math.floor(Math.min(Y(a), Y(b)) / long); j <= Math.floor(Math.max(Y(a), Y(b)) / long); j++) keys.push(`${i} ${j}`)
    return keys
  }
  const seen = new Set<string>()
  pieces.forEach(([a, b], s) => {
    for (const key of cellsOf(a, b)) {
      const list = cells.get(key)
      for (const o of list ?? []) {
        if (seen.has(`${o} ${s}`)) continue
        seen.add(`${o} ${s}`)
        const [c, d] = pieces[o] as [number, number]
        if (a === c || a === d || b === c || b === d) continue
        const det = (X(b) - X(a)) * (Y(d) - Y(c)) - (Y(b) - Y(a)) * (X(d) - X(c))
        if (Math.abs(det) < 1e-12) continue
        const t = ((X(c) - X(a)) * (Y(d) - Y(c)) - (Y(c) - Y(a)) * (X(d) - X(c))) / det
        const u = ((X(c) - X(a)) * (Y(b) - Y(a)) - (Y(c) - Y(a)) * (X(b) - X(a))) / det
        if (t <= 0 || t >= 1 || u <= 0 || u >= 1) continue
        const p = place(X(a) + t * (X(b) - X(a)), Y(a) + t * (Y(b) - Y(a)), (Z(a) + t * (Z(b) - Z(a)) + Z(c) + u * (Z(d) - Z(c))) / 2)
        cut(s, t, p)
        cut(o, u, p)
      }
      if (list) list.push(s); else cells.set(key, [s])
    }
  })
  // Points that lie on a line are its points.
  const count = out.length / 3
  for (let p = 0; p < count; p++) for (const s of cells.get(`${Math.floor(X(p) / long)} ${Math.floor(Y(p) / long)}`) ?? []) {
    const [a, b] = pieces[s] as [number, number]
    if (p === a || p === b) continue
    const [dx, dy] = [X(b) - X(a), Y(b) - Y(a)]
    const t = ((X(p) - X(a)) * dx + (Y(p) - Y(a)) * dy) / (dx * dx + dy * dy)
    if (t > 0 && t < 1 && Math.abs((X(p) - X(a)) * dy - (Y(p) - Y(a)) * dx) / Math.hypot(dx, dy) < TOLERANCE.point * 10) cut(s, t, p)
  }
  pieces = pieces.flatMap(([a, b], s): [number, number][] => {
    const stops = [a, ...(cuts.get(s) ?? []).sort((u, v) => u.t - v.t).map((c) => c.p), b]
    return stops.slice(1).flatMap((p, i): [number, number][] => (p === stops[i] ? [] : [[stops[i] as number, p]]))
  })
  const once = new Map(pieces.map(([a, b]) => [a < b ? `${a} ${b}` : `${b} ${a}`, [a, b] as const]))
  return { points: Float64Array.from(out), segments: Uint32Array.from([...once.values()].flat()) }
}

import earcut from 'earcut'
import { refuse } from '../../project'
import { READ_LIMITS, tooMany } from '../limits'
import { METRES, unitAsked, type Answers, type Ask } from '../survey/kind'
import type { Reader, ReadFile, ReadMesh } from './kind'

/** OBJ: v, f, o and g; an object, or a group where there are none, is a body. Which way is up, and its unit, are asked where its comments do not say them. */
export const obj: Reader = {
  id: 'obj',
  label: 'OBJ',
  extensions: ['obj'],
  read: (bytes, _wasm, answers) => Promise.resolve(placed(readObj(new TextDecoder().decode(bytes)), answers)),
}

interface RawObj {
  meshes: ReadMesh[]
  comments: string
}

function readObj(text: string): RawObj {
  const vertices: number[] = []
  const meshes = new Map<string, ReadMesh & { number: Map<number, number> }>()
  const comments: string[] = []
  const objects = /^o\s/m.test(text)
  let name = 'body'
  let triangles = 0
  linesOf(text).forEach(({ line, at }) => {
    const [tag, ...rest] = line.trim().split(/\s+/)
    const bad = (what: string) => refuse('file', `Line ${at} of the OBJ file ${what}.`, 'Export the file once more.')
    if (tag === 'v') {
      const xyz = rest.slice(0, 3).map(Number)
      if (xyz.length < 3 || xyz.some((c) => !Number.isFinite(c) || Math.abs(c) > 1e12)) bad('is no point')
      vertices.push(...xyz)
    } else if (tag === 'o' || (tag === 'g' && !objects)) name = rest.join(' ') || 'body'
    else if (line.startsWith('#') && comments.length < 40) comments.push(line.slice(1, 200))
    else if (tag === 'f') {
      const count = vertices.length / 3
      const corners = rest.map((part) => {
        const n = Number.parseInt(part, 10)
        const v = n < 0 ? count + n : n - 1
        return Number.isInteger(v) && v >= 0 && v < count ? v : bad('names a point that is not there')
      })
      if (corners.length < 3) bad('is a face of fewer than three corners')
      let into = meshes.get(name)
      if (!into) meshes.set(name, (into = { name, corners: [], triangles: [], number: new Map() }))
      const { number } = into
      const own = corners.map((v) => {
        let n = number.get(v)
        if (n === undefined) {
          number.set(v, (n = (into?.corners.length ?? 0) / 3))
          into?.corners.push(...vertices.slice(v * 3, v * 3 + 3))
        }
        return n
      })
      for (const t of cut(
        corners.map((v) => [vertices[v * 3] ?? 0, vertices[v * 3 + 1] ?? 0, vertices[v * 3 + 2] ?? 0]),
      ))
        into.triangles.push(own[t] ?? 0)
      triangles += corners.length - 2
      if (triangles > READ_LIMITS.triangles * 2) tooMany('faces', 'The OBJ file')
    }
  })
  return {
    meshes: [...meshes.values()].map(({ name: n, corners, triangles: t }) => ({ name: n, corners, triangles: t })),
    comments: comments.join('\n'),
  }
}

/** The lines of an OBJ file with their numbers; one that ends in a backslash goes on in the next. */
function linesOf(text: string): { line: string; at: number }[] {
  const out: { line: string; at: number }[] = []
  let begun: { line: string; at: number } | null = null
  text.split(/\r?\n/).forEach((line, i) => {
    const now: { line: string; at: number } = begun
      ? { at: begun.at, line: `${begun.line} ${line}` }
      : { line, at: i + 1 }
    const goesOn = /\\\s*$/.test(line)
    begun = goesOn ? { ...now, line: now.line.replace(/\\\s*$/, '') } : null
    if (!goesOn) out.push(now)
  })
  return begun ? [...out, begun] : out
}

/** The triangles of a polygon in space, also of a concave one: in the plane that it lies nearest to (Newell's normal). */
function cut(points: [number, number, number][]): number[] {
  if (points.length === 3) return [0, 1, 2]
  const n = [0, 0, 0]
  points.forEach((p, i) => {
    const q = points[(i + 1) % points.length] ?? p
    n[0] = (n[0] ?? 0) + (p[1] - q[1]) * (p[2] + q[2])
    n[1] = (n[1] ?? 0) + (p[2] - q[2]) * (p[0] + q[0])
    n[2] = (n[2] ?? 0) + (p[0] - q[0]) * (p[1] + q[1])
  })
  const [nx = 0, ny = 0, nz = 0] = n
  const axis = Math.abs(nz) >= Math.abs(nx) && Math.abs(nz) >= Math.abs(ny) ? 2 : Math.abs(ny) >= Math.abs(nx) ? 1 : 0
  const [u, w] = axis === 2 ? [0, 1] : axis === 1 ? [2, 0] : [1, 2]
  const found = earcut(points.flatMap((p) => [p[u as 0 | 1 | 2], p[w as 0 | 1 | 2]]))
  const fan = points.slice(2).flatMap((_, i) => [0, i + 1, i + 2])
  if (found.length !== fan.length) return fan
  // The triangles run as the polygon does.
  const area = (t: number[]) =>
    t.reduce((sum, a, k) => (k % 3 ? sum : sum + twice(points, a, t[k + 1] ?? 0, t[k + 2] ?? 0, u ?? 0, w ?? 1)), 0)
  const along = area(fan) * area(found) >= 0
  return along ? found : found.map((a, k) => (k % 3 === 0 ? a : (found[k % 3 === 1 ? k + 1 : k - 1] ?? a)))
}

const twice = (p: [number, number, number][], a: number, b: number, c: number, u: number, w: number) => {
  const at = (i: number, k: number) => p[i]?.[k as 0 | 1 | 2] ?? 0
  return (at(b, u) - at(a, u)) * (at(c, w) - at(a, w)) - (at(b, w) - at(a, w)) * (at(c, u) - at(a, u))
}

/** In metres with z up: by what the comments say, by the answers, or by a guess that is shown. */
function placed({ meshes, comments }: RawObj, answers: Answers): ReadFile {
  const asks: Ask[] = []
  const saidUp = /\bz[\s-]*(is\s*)?up\b|\bz axis up\b/i.test(comments)
    ? 'z'
    : /\by[\s-]*(is\s*)?up\b/i.test(comments)
      ? 'y'
      : null
  const saidUnit = /\b(milli)metres?\b|\bmillimeters?\b/i.test(comments)
    ? 'mm'
    : /\bmet(re|er)s?\b/i.test(comments)
      ? 'm'
      : /\bfeet\b/i.test(comments)
        ? 'ft'
        : /\binch(es)?\b/i.test(comments)
          ? 'in'
          : null
  const up = saidUp ?? (answers.up === 'y' || answers.up === 'z' ? answers.up : guessUp(meshes))
  if (!saidUp)
    asks.push({
      what: 'up',
      say: 'The file does not say which way is up',
      options: [
        { value: 'z', label: 'z is up' },
        { value: 'y', label: 'y is up' },
      ],
      taken: up,
    })
  // By each axis: at map coordinates the axes lie far from one another.
  const [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ]
  for (const m of meshes)
    m.corners.forEach((c, i) => {
      const k = i % 3
      low[k] = Math.min(low[k] ?? c, c)
      high[k] = Math.max(high[k] ?? c, c)
    })
  const extent = Math.max(...high.map((h, k) => h - (low[k] ?? h)))
  const factor = saidUnit ? (METRES[saidUnit] ?? 1) : unitAsked({ asks }, answers, extent > 1500 ? 'mm' : 'm')
  if (up === 'z' && factor === 1) return { meshes, remarks: [], asks }
  return {
    remarks: [],
    asks,
    meshes: meshes.map((m) => ({
      ...m,
      corners:
        up === 'z'
          ? m.corners.map((c) => c * factor)
          : m.corners.map((_, i) => {
              const k = i - (i % 3)
              return (
                (i % 3 === 0 ? (m.corners[k] ?? 0) : i % 3 === 1 ? -(m.corners[k + 2] ?? 0) : (m.corners[k + 1] ?? 0)) *
                factor
              )
            }),
    })),
  }
}

/** The axis that more level faces lie across: floors and roofs are level. z where that tells nothing. */
function guessUp(meshes: ReadMesh[]): 'y' | 'z' {
  const lying = [0, 0, 0]
  for (const { corners, triangles } of meshes)
    for (let t = 0; t < triangles.length; t += 3) {
      const p = (k: number, c: number) => corners[(triangles[t + k] ?? 0) * 3 + c] ?? 0
      const [u, w] = [[0, 1, 2].map((c) => p(1, c) - p(0, c)), [0, 1, 2].map((c) => p(2, c) - p(0, c))]
      const n = [0, 1, 2].map(
        (c) => (u[(c + 1) % 3] ?? 0) * (w[(c + 2) % 3] ?? 0) - (u[(c + 2) % 3] ?? 0) * (w[(c + 1) % 3] ?? 0),
      )
      const area = Math.hypot(...n)
      n.forEach((x, c) => {
        if (Math.abs(x) > 0.98 * area) lying[c] = (lying[c] ?? 0) + area
      })
    }
  return (lying[1] ?? 0) > 1.2 * Math.max(lying[2] ?? 0, lying[0] ?? 0) ? 'y' : 'z'
}

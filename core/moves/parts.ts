import {
  cornerAt,
  dotOf,
  faceLabel,
  faceName,
  frameOfFace,
  parseFaceName,
  rawName,
  splitFace,
  type Frame,
  type Plane,
  type Solid,
} from '../solid'
import { refuse, type Num, type Numbers } from '../values'
import { moveKind } from './define'
import { times } from './fields'
import type { BodyForm, MoveBase } from './kind'

export interface PartsMove extends MoveBase {
  move: 'parts'
  /** the face that is parted, by its name; with the strips that its side is parted into already */ face: string
  columns: Num
  rows: Num
}

/**
 * Parts a face into strips of equal height, or into patches in columns and rows: <id>/<face>/<column>-<row>, both from
 * 1, from the left as seen
 * from outside and from its foot. A curved face has rows only. The body stays as it is. Errors: 'unknown-id' where the face is gone,
 * 'geometry' where a curved one would have columns.
 */
export const parts = moveKind<PartsMove>({
  move: 'parts',
  called: 'strips or patches of a face',
  group: 'shape',
  takes: 'body',
  gives: 'body',
  fields: {
    face: { is: 'face', label: 'face' },
    columns: times('columns', { from: 1, to: 200, hint: 'Side by side, as seen from outside.' }),
    rows: times('rows', { from: 1, to: 200, hint: 'Of equal height.' }),
  },
  starts: ({ faces }) => (faces[0] === undefined ? null : { face: faces[0], columns: 1, rows: 3 }),
  check: (m, { numbers }) => {
    countOf(m.columns, numbers)
    countOf(m.rows, numbers)
  },
  build: (form, m, { numbers, name }) => {
    let { solid } = form as BodyForm
    const [columns, rows] = [countOf(m.columns, numbers), countOf(m.rows, numbers)]
    const faces = facesAt(solid, m.face)
    if (faces.length === 0)
      return refuse('unknown-id', `"${name}" has no face "${faceLabel(m.face)}" any more.`, 'Choose one of its faces.')
    for (const face of faces) {
      const { own } = parseFaceName(face)
      solid = parted(solid, face, columns === 1 ? null : columns, (c) => faceName(m.id, own, `${c}-0`), name)
      for (let c = 1; c <= columns; c++)
        solid = inRows(solid, columns === 1 ? face : faceName(m.id, own, `${c}-0`), rows, (r) =>
          faceName(m.id, own, `${c}-${r}`),
        )
    }
    return { ...form, carried: null, solid }
  },
})

function countOf(num: Num, numbers: Numbers): number {
  const count = numbers.value(num, 'number')
  return Number.isInteger(count)
    ? count
    : refuse('size', `A number of strips or patches is ${count}.`, 'Type a whole number.')
}

/** The names of a face, and of the strips that its side is parted into, in their order. */
function facesAt({ facets }: Solid, face: string): string[] {
  const raw = rawName(face)
  const strip = (name: string) => (name.startsWith(`${raw}-`) ? Number(name.slice(raw.length + 1)) : NaN)
  const names = new Set(facets.map((f) => rawName(f.name)))
  return names.has(raw) ? [raw] : [...names].filter((n) => strip(n) > 0).sort((a, b) => strip(a) - strip(b))
}

/** The extent of a face along a direction. */
function extentOf({ positions, triangles, facetOf, facets }: Solid, face: string, n: Plane['n']): [number, number] {
  const own = new Set(facets.flatMap((f, i) => (rawName(f.name) === face ? [i] : [])))
  let [from, to] = [Infinity, -Infinity]
  triangles.forEach((v, k) => {
    if (!own.has(facetOf[Math.floor(k / 3)] as number)) return
    const s = dotOf(n, cornerAt(positions, v))
    from = Math.min(from, s)
    to = Math.max(to, s)
  })
  return [from, to]
}

/** A flat face in rows up it; on a level one along y. A curved one in rows of equal height. */
const inRows = (solid: Solid, face: string, rows: number, named: (row: number) => string): Solid =>
  cutInto(solid, face, flatFrame(solid, face)?.v ?? [0, 0, 1], rows, named)

/** The frame of a face that is flat all over. */
const flatFrame = (solid: Solid, face: string): Frame | null =>
  solid.facets.some((f) => f.surface && rawName(f.name) === face) ? null : frameOfFace(solid, face)

/** A flat face in columns; null: it stays one. */
function parted(solid: Solid, face: string, columns: number | null, named: (c: number) => string, name: string): Solid {
  if (columns === null) return solid
  const frame = flatFrame(solid, face)
  if (!frame)
    return refuse(
      'geometry',
      `"${faceLabel(face)}" of "${name}" is curved, and has no columns.`,
      'Part the side of its outline into strips instead, and the face into rows.',
    )
  return cutInto(solid, face, frame.u, columns, named)
}

/** A face cut across a direction into equal parts, all of them named, from the last one on. */
function cutInto(solid: Solid, face: string, n: Plane['n'], many: number, named: (nth: number) => string): Solid {
  const [from, to] = extentOf(solid, face, n)
  let now = solid
  for (let k = many - 1; k > 0; k--)
    now = splitFace(now, face, { n, d: from + ((to - from) * k) / many }, named(k + 1)) ?? now
  return { ...now, facets: now.facets.map((f) => (rawName(f.name) === face ? { ...f, name: named(1) } : f)) }
}

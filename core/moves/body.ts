import * as v from 'valibot'
import {
  areAllOutwards,
  bodyFault,
  cornerAt,
  crossOf,
  dotOf,
  lessOf,
  separated,
  unite,
  volumeOf,
  type Facet,
  type Plane,
  type Solid,
  type Vec3,
  faceName,
} from '../solid'
import { FiniteSchema, IdSchema, NameSchema, refuse } from '../values'
import type { MoveBase, MoveKind } from './kind'

/** A body as it was read from a file: xyz of its corners in m, and its faces, each with a name and three corner numbers per triangle. */
export interface BodyMove extends MoveBase {
  move: 'body'
  file: string
  corners: number[]
  faces: { name: string; triangles: number[] }[]
}

const FaceSchema = v.strictObject({
  name: v.pipe(v.string(), v.regex(/^[a-zA-Z0-9-]{1,40}$/, 'A face is named by letters, digits and dashes.')),
  triangles: v.pipe(v.array(v.pipe(v.number(), v.integer(), v.minValue(0))), v.minLength(3)),
})

/**
 * A body from a file as the first move of a recipe; its faces are named <id>/<name>. One whose faces all look inwards is turned outwards.
 */
export const body: MoveKind<BodyMove> = {
  move: 'body',
  called: 'a body from a file',
  fields: {},
  takes: 'nothing',
  gives: 'body',
  schema: () =>
    v.strictObject({
      id: IdSchema,
      on: v.boolean(),
      move: v.literal('body'),
      file: NameSchema,
      corners: v.pipe(
        v.array(FiniteSchema),
        v.minLength(12, 'A body has at least four corners.'),
        v.maxLength(600000, 'A body has at most 200,000 corners.'),
      ),
      faces: v.pipe(v.array(FaceSchema), v.minLength(1), v.maxLength(200000)),
    }),
  numbers: () => [],
  inner: () => null,
  check: (m, { name }) => {
    const count = m.corners.length / 3
    if (
      !Number.isInteger(count) ||
      m.faces.some((f) => f.triangles.length % 3 !== 0 || f.triangles.some((t) => t >= count))
    )
      refuse('geometry', `The body of "${name}" refers to corners that it does not have.`, 'Import the file once more.')
  },
  build: (form, m) => {
    const positions = Float64Array.from(m.corners)
    const drawn = Uint32Array.from(m.faces.flatMap((f) => f.triangles))
    const faces =
      volumeOf({ positions, triangles: drawn, facetOf: new Uint32Array(), facets: [] }) < 0
        ? m.faces.map((f) => ({
            ...f,
            triangles: f.triangles.map((_, i) => f.triangles[i % 3 === 0 ? i : i % 3 === 1 ? i + 1 : i - 1] as number),
          }))
        : m.faces
    const facets: Facet[] = faces.map((f) => ({ name: faceName(m.id, f.name), plane: planeOf(positions, f.triangles) }))
    const solid: Solid = {
      positions,
      triangles: Uint32Array.from(faces.flatMap((f) => f.triangles)),
      facetOf: Uint32Array.from(m.faces.flatMap((f, i) => Array.from({ length: f.triangles.length / 3 }, () => i))),
      facets,
    }
    let top = -Infinity
    for (let i = 2; i < positions.length; i += 3) top = Math.max(top, positions[i] as number)
    return { ...form, solid: asOne(solid), eaves: top }
  },
}

/** Bodies in one mesh that touch or overlap, united; anything else as it is. */
function asOne(solid: Solid): Solid {
  const pieces = separated(solid)
  const [first, ...rest] = pieces
  if (!first || rest.length === 0 || pieces.length > MOST_PIECES || !areAllOutwards(pieces)) return solid
  if (pieces.some((p) => bodyFault(p, 'edges') !== null)) return solid
  return rest.reduce(unite, first)
}
/** more pieces than these are left as they are */
const MOST_PIECES = 400

/** The plane of a flat face: the sum of its triangles' normals, through the middle of its corners. */
function planeOf(p: Float64Array, triangles: number[]): Plane {
  const at = (v: number) => cornerAt(p, v)
  const n: Vec3 = [0, 0, 0]
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [at(triangles[i] as number), at(triangles[i + 1] as number), at(triangles[i + 2] as number)]
    crossOf(lessOf(b, a), lessOf(c, a)).forEach((x, k) => {
      n[k as 0 | 1 | 2] += x
    })
  }
  const length = Math.hypot(...n) || 1
  const unit: Vec3 = [n[0] / length + 0, n[1] / length + 0, n[2] / length + 0]
  const ds = [...new Set(triangles)].map((v) => dotOf(unit, at(v)))
  return { n: unit, d: ds.reduce((a, b) => a + b, 0) / ds.length }
}

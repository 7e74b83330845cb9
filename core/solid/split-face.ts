import { TOLERANCE } from '../values'
import { rawName } from './face-name'
import { cornerAt, dotOf } from './plane'
import type { Facet, Plane, Solid, Vec3 } from './solid'
import { keepTilt, type Surface } from './surfaces'

/**
 * The body with a flat face parted by a plane across it, or with a curved one by a level plane: what lies before the
 * plane (where its normal
 * points) has a name of its own from then on, the rest keeps the face's. The body is the same; corners are put in where the line meets its
 * edges. Null where the plane misses it.
 */
export function splitFace(solid: Solid, face: string, by: Plane, named: string): Solid | null {
  const { triangles, facetOf, facets } = solid
  const isLevel = by.n[0] === 0 && by.n[1] === 0
  const own = new Set(
    facets.flatMap((f, i) => (rawName(f.name) === rawName(face) && (isLevel || !f.surface) ? [i] : [])),
  )
  const positions = [...solid.positions]
  const off = (v: number) => {
    const o = dotOf(by.n, cornerAt(positions, v)) - by.d
    return Math.abs(o) < TOLERANCE.point ? 0 : o
  }
  /** the corner that is put in between two others, by them */
  const between = new Map<string, number>()
  const key = (a: number, b: number) => (a < b ? `${a},${b}` : `${b},${a}`)
  const crossing = (a: number, b: number): number => {
    const known = between.get(key(a, b))
    if (known !== undefined) return known
    const [p, q, s, t] = [cornerAt(positions, a), cornerAt(positions, b), off(a), off(b)]
    const at = [0, 1, 2].map((k) => (p[k] as number) + (((q[k] as number) - (p[k] as number)) * s) / (s - t)) as Vec3
    const v = positions.length / 3
    positions.push(...at)
    between.set(key(a, b), v)
    return v
  }
  const laid: number[] = []
  const laidOf: number[] = []
  const lay = (corners: number[], f: number) => {
    for (let i = 2; i < corners.length; i++) {
      laid.push(corners[0] as number, corners[i - 1] as number, corners[i] as number)
      laidOf.push(f)
    }
  }
  // Facets of one surface are one face: what is parted off shares one of its own.
  const copies = new Map<Surface, Surface>()
  const copyOf = (surface: Surface): Surface => {
    const copy = copies.get(surface) ?? keepTilt(surface, { ...surface })
    copies.set(surface, copy)
    return copy
  }
  const beyond = new Map<number, number>()
  const more: Facet[] = []
  const other = (f: number): number => {
    let n = beyond.get(f)
    if (n === undefined) {
      n = facets.length + more.length
      const facet = facets[f] as Facet
      more.push({ ...facet, name: named, ...(facet.surface ? { surface: copyOf(facet.surface) } : {}) })
      beyond.set(f, n)
    }
    return n
  }
  const corner = (t: number, k: number) => triangles[t * 3 + (k % 3)] as number
  let [before, behind] = [false, false]
  for (let t = 0; t < facetOf.length; t++) {
    const f = facetOf[t] as number
    if (!own.has(f)) continue
    for (const side of [1, -1]) {
      const ring = [0, 1, 2].flatMap((k) => {
        const [a, b] = [corner(t, k), corner(t, k + 1)]
        const [s, q] = [off(a) * side, off(b) * side]
        return [...(s >= 0 ? [a] : []), ...(s * q < 0 ? [crossing(a, b)] : [])]
      })
      if (ring.length < 3 || ring.every((v) => off(v) === 0)) continue
      if (side > 0) before = true
      else behind = true
      lay(ring, side > 0 ? other(f) : f)
    }
  }
  if (!before || !behind) return null
  // The faces beside it get the new corners on their edges too.
  for (let t = 0; t < facetOf.length; t++) {
    const f = facetOf[t] as number
    if (own.has(f)) continue
    // Fanned out from the corner across the edge that has a new one: none of the bits has no width. Two such edges of one triangle
    // would lie in the plane of the face.
    const parted = [0, 1, 2].find((k) => between.has(key(corner(t, k), corner(t, k + 1))))
    const first = parted === undefined ? 0 : parted + 2
    lay(
      [0, 1, 2].flatMap((k) => {
        const [a, b] = [corner(t, first + k), corner(t, first + k + 1)]
        return [a, ...(between.has(key(a, b)) ? [between.get(key(a, b)) as number] : [])]
      }),
      f,
    )
  }
  return {
    positions: Float64Array.from(positions),
    triangles: Uint32Array.from(laid),
    facetOf: Uint32Array.from(laidOf),
    facets: [...facets, ...more],
  }
}

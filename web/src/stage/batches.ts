import {
  BufferAttribute,
  BufferGeometry,
  Color,
  InstancedInterleavedBuffer,
  InterleavedBufferAttribute,
  Sphere,
} from 'three'
import { LineSegmentsGeometry } from 'three/examples/jsm/lines/LineSegmentsGeometry.js'
import { turnOf, triangulate, type Region } from '@geotome/core/solid'
import type { Geometry, PlateView } from '../worker/protocol'
import { joined, placedLines, type Placed } from './placed'
import type { Palette } from './theme'

/** Everything of one kind as one geometry, so that a frame is a handful of calls. Metres from the view's origin. */
export interface Batch {
  faces: BufferGeometry
  edges: Float32Array
  /** two ends and two directions of each soft line; see protocol.ts */ contours: Float32Array
  /** the owner of each triangle */ owners: string[]
}

/** Bodies placed and shaded; what stands and looks as before is taken over as it was. */
export function batchOf(items: Placed[], palette: Palette): Batch {
  const blocks = items.map((item) => blockOf(item, palette))
  const faces = unmeasured(new BufferGeometry())
  faces.setAttribute('position', new BufferAttribute(joined(blocks.map((b) => b.positions)), 3))
  faces.setAttribute('color', new BufferAttribute(joined(blocks.map((b) => b.colours)), 3))
  return {
    faces,
    edges: joined(blocks.map((b) => b.edges)),
    contours: joined(blocks.map((b) => b.contours)),
    owners: blocks.flatMap((b, i) => new Array<string>(b.positions.length / 9).fill(items[i]?.owner ?? '')),
  }
}

interface Block {
  key: string
  positions: Float32Array
  colours: Float32Array
  edges: Float32Array
  contours: Float32Array
}
/** the last block of each geometry by owner: a body that many masses share has one for each */
const blocks = new WeakMap<Geometry, Map<string, Block>>()

function blockOf(item: Placed, palette: Palette): Block {
  const { at, tint, strength = 0.32, colour = null, faceColours } = item
  const key = `${at.x} ${at.y} ${at.z} ${at.turn} ${tint} ${strength} ${colour} ${faceColours?.join()} ${palette.up} ${palette.lit} ${palette.shade}`
  let byOwner = blocks.get(item.geometry)
  if (!byOwner) blocks.set(item.geometry, (byOwner = new Map()))
  const known = byOwner.get(item.owner)
  if (known?.key === key) return known
  const block = { key, ...placed(item, palette) }
  byOwner.set(item.owner, block)
  return block
}

function placed(
  { geometry, at: place, tint, strength = 0.32, colour: made = null, faceColours }: Placed,
  palette: Palette,
): Omit<Block, 'key'> {
  const { positions: p, normals: n } = geometry
  const positions = new Float32Array(p.length)
  const colours = new Float32Array(p.length)
  const { shadeIn, brightest } = shading(palette)
  const colour = new Color()
  const { c, s } = turnOf(place.turn)
  for (let i = 0; i < p.length; i += 3) {
    const [x, y, z] = [p[i] ?? 0, p[i + 1] ?? 0, p[i + 2] ?? 0]
    positions[i] = place.x + c * x - s * y
    positions[i + 1] = place.y + s * x + c * y
    positions[i + 2] = place.z + z
    const [nx, ny, nz] = [n[i] ?? 0, n[i + 1] ?? 0, n[i + 2] ?? 0]
    const [wx, wy] = [c * nx - s * ny, s * nx + c * ny]
    shadeIn(colour, wx, wy, nz)
    const own = faceColours?.[geometry.faceOf[(i / 9) | 0] ?? -1] ?? made
    if (own) {
      const light = lightOf(colour) / brightest
      colour.set(own).multiplyScalar(DIM + (1 - DIM) * light * light)
    }
    if (tint) colour.lerp(TINT.set(tint), strength)
    colours[i] = colour.r
    colours[i + 1] = colour.g
    colours[i + 2] = colour.b
  }
  return { positions, colours, ...placedLines({ geometry, at: place }) }
}

/** Light on what looks up, two greys for what looks to either side of the light. */
function shading(palette: Palette) {
  const [up, lit, shade] = [new Color(palette.up), new Color(palette.lit), new Color(palette.shade)]
  return {
    brightest: lightOf(up.clone().lerp(lit, lightOf(up) < lightOf(lit) ? 1 : 0)),
    shadeIn: (colour: Color, nx: number, ny: number, nz: number) =>
      colour
        .copy(shade)
        .lerp(lit, Math.max(0, Math.min(1, 0.5 + 0.62 * (nx * LIGHT[0] + ny * LIGHT[1]))))
        .lerp(up, Math.max(0, nz)),
  }
}

/**
 * Ground: corners shared by its triangles, so that a hundred thousand of them stay quick, shaded and paled; and its contours as thin
 * lines.
 */
export function landOf(
  { positions, normals, index, edges }: Geometry,
  palette: Palette,
): { faces: BufferGeometry; contours: BufferGeometry } {
  const { shadeIn } = shading(palette)
  const [colour, paper] = [new Color(), new Color(palette.paper)]
  const colours = new Float32Array(positions.length)
  for (let i = 0; i < positions.length; i += 3) {
    // Slopes of the ground are small: they are shaded as if they were four times as steep.
    const [nx, ny, nz] = [(normals[i] ?? 0) * 4, (normals[i + 1] ?? 0) * 4, normals[i + 2] ?? 1]
    const l = Math.hypot(nx, ny, nz) || 1
    shadeIn(colour, nx / l, ny / l, nz / l)
      .lerp(paper, 0.45)
      .toArray(colours, i)
  }
  const faces = unmeasured(new BufferGeometry())
  faces.setAttribute('position', new BufferAttribute(positions, 3))
  faces.setAttribute('color', new BufferAttribute(colours, 3))
  if (index) faces.setIndex(new BufferAttribute(index, 1))
  const contours = unmeasured(new BufferGeometry())
  contours.setAttribute('position', new BufferAttribute(edges, 3))
  return { faces, contours }
}

/** where the light comes from, in plan: over the viewer's left shoulder in the first view */
const LIGHT = [-0.35, -0.94] as const
const TINT = new Color()
/** how dark a material gets in the shade */
const DIM = 0.62
const lightOf = (c: Color) => 0.3 * c.r + 0.59 * c.g + 0.11 * c.b

/** Those soft lines at which one facet is seen and the other is not: the contour of what is round, seen along a direction. */
export function contoursSeen(contours: Float32Array, [dx, dy, dz]: readonly [number, number, number]): Float32Array {
  const seen: number[] = []
  for (let i = 0; i < contours.length; i += 12) {
    const at = (k: number) => contours[i + k] ?? 0
    if (at(6) * dx + at(7) * dy + at(8) * dz > 1e-6 !== at(9) * dx + at(10) * dy + at(11) * dz > 1e-6)
      for (let k = 0; k < 6; k++) seen.push(at(k))
  }
  return Float32Array.from(seen)
}

export const HERE = { x: 0, y: 0, z: 0, turn: 0 }

/**
 * A geometry that says where it lies without going through all its points: nothing here is culled, and the order of drawing is
 * told by each object's `renderOrder`.
 */
export function unmeasured<G extends BufferGeometry>(geometry: G): G {
  geometry.boundingSphere = new Sphere()
  return geometry
}

/** Line segments of a constant width in pixels; dashed ones begin their dashes anew at each segment. */
export function linesOf(segments: Float32Array, dashed = false): LineSegmentsGeometry {
  const ends = new InstancedInterleavedBuffer(segments.length ? segments : new Float32Array(6).fill(-9999), 6, 1)
  const geometry = new LineSegmentsGeometry()
  geometry.setAttribute('instanceStart', new InterleavedBufferAttribute(ends, 3, 0))
  geometry.setAttribute('instanceEnd', new InterleavedBufferAttribute(ends, 3, 3))
  geometry.instanceCount = ends.count
  if (dashed) {
    const distances = new Float32Array(ends.count * 2)
    for (let i = 0; i < ends.count; i++) {
      const k = i * 6
      const x = (segments[k + 3] ?? 0) - (segments[k] ?? 0)
      const y = (segments[k + 4] ?? 0) - (segments[k + 1] ?? 0)
      const z = (segments[k + 5] ?? 0) - (segments[k + 2] ?? 0)
      distances[i * 2 + 1] = Math.sqrt(x * x + y * y + z * z)
    }
    const along = new InstancedInterleavedBuffer(distances, 2, 1)
    geometry.setAttribute('instanceDistanceStart', new InterleavedBufferAttribute(along, 1, 0))
    geometry.setAttribute('instanceDistanceEnd', new InterleavedBufferAttribute(along, 1, 1))
  }
  return unmeasured(geometry)
}

/** Triangles by their corners. */
export function facesOfBits(bits: Float32Array): BufferGeometry {
  const geometry = unmeasured(new BufferGeometry())
  geometry.setAttribute('position', new BufferAttribute(bits, 3))
  return geometry
}

/** Flat fills of regions at a height. */
export function fillsOf(regions: { region: Region; z: number }[]): BufferGeometry {
  const positions: number[] = []
  for (const { region, z } of regions) {
    const points = region.flat()
    for (const v of triangulate(region)) {
      const p = points[v]
      if (p) positions.push(p[0], p[1], z)
    }
  }
  const geometry = unmeasured(new BufferGeometry())
  geometry.setAttribute('position', new BufferAttribute(Float32Array.from(positions), 3))
  return geometry
}

/** The outlines of regions at a height, as segments. */
export function outlinesOf(regions: { region: Region; z: number }[]): Float32Array {
  let count = 0
  for (const { region } of regions) for (const loop of region) count += loop.length
  const out = new Float32Array(count * 6)
  let at = 0
  for (const { region, z } of regions)
    for (const loop of region) {
      let a = loop.at(-1)
      for (const b of loop) {
        out[at] = a?.[0] ?? 0
        out[at + 1] = a?.[1] ?? 0
        out[at + 3] = b[0]
        out[at + 4] = b[1]
        out[at + 2] = out[at + 5] = z
        at += 6
        a = b
      }
    }
  return out
}

/** The outlines of all plates of many floors, each at its height, as segments; those of one shape are worked out once. */
export function stackedOutlines(floors: { plates: PlateView[]; z: number }[]): Float32Array {
  const flat = floors.map((f) => {
    let lines = flatLines.get(f.plates)
    if (!lines) flatLines.set(f.plates, (lines = outlinesOf(f.plates.map((p) => ({ region: p.region, z: 0 })))))
    return lines
  })
  const out = new Float32Array(flat.reduce((n, lines) => n + lines.length, 0))
  let at = 0
  for (const [i, lines] of flat.entries()) {
    out.set(lines, at)
    const [z, end] = [floors[i]?.z ?? 0, at + lines.length]
    for (let k = at + 2; k < end; k += 3) out[k] = z
    at = end
  }
  return out
}
const flatLines = new WeakMap<PlateView[], Float32Array>()

/** The shadow of faces on the ground at z = 0, of what stands between the ground and `top`. */
export function shadowOf(positions: Float32Array, top: number): BufferGeometry {
  const out = new Float32Array(positions.length)
  for (let i = 0; i < positions.length; i += 3) {
    const z = Math.max(0, Math.min(positions[i + 2] ?? 0, top))
    out[i] = (positions[i] ?? 0) + z * 0.42
    out[i + 1] = (positions[i + 1] ?? 0) + z * 0.3
    out[i + 2] = 0
  }
  const geometry = unmeasured(new BufferGeometry())
  geometry.setAttribute('position', new BufferAttribute(out, 3))
  return geometry
}

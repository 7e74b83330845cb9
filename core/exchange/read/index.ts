import { bodyFault, type BodyFault, cornerAt, dotOf, planeThrough, type Plane, type Vec2, TOLERANCE } from '../../solid'
import { refuse, type BodyMove } from '../../project'
import { plainText } from '../../values'
import { glb } from './glb'
import { READ_LIMITS } from '../limits'
import type { Answers, Ask } from '../survey/kind'
import { ifc } from './ifc'
import type { BodyClass, Reader, ReadMesh } from './kind'
import { obj } from './obj'
import { oriented } from './oriented'
import { roundedOut } from './round-out'
import { roundedTurned } from './round-turned'
import { joinedAtEdges } from './t-junctions'

/** All formats that bodies are read from; a new one is a file and a line here. */
export const READERS: Reader[] = [ifc, obj, glb]

/** A body from a file: its data for a recipe, in a frame of its own, and where that frame lies, m. `fault` says what is wrong with it, `done` what was mended. */
export interface ReadBody {
  name: string
  body: Pick<BodyMove, 'file' | 'corners' | 'faces'>
  place: Vec2
  above: number
  fault: BodyFault['fault'] | null
  done: string[]
}

/** All that was read: the bodies, remarks on the file, and what it left open. */
export interface BodiesRead {
  bodies: ReadBody[]
  remarks: string[]
  asks: Ask[]
}

/**
 * The bodies of a file, by its extension; `together` as one. Corners that lie together are one, flat neighbours are one face, named
 * f1, f2 ... from the lowest up; all look outwards. Errors: 'file' with what is wrong and what to do.
 */
export async function readBodies(
  fileName: string,
  bytes: Uint8Array,
  together: boolean,
  wasm: string | null = null,
  answers: Answers = {},
  readers: readonly Reader[] = READERS,
): Promise<BodiesRead> {
  const extension = fileName.split('.').at(-1)?.toLowerCase() ?? ''
  const reader =
    readers.find((r) => r.extensions.includes(extension)) ??
    refuse(
      'file',
      `"${fileName}" is no file that bodies are read from.`,
      `Choose one of ${readers.flatMap((r) => r.extensions.map((e) => `.${e}`)).join(', ')}.`,
    )
  if (bytes.length === 0) refuse('file', 'The file is empty.', 'Export it once more.')
  if (bytes.length > READ_LIMITS.bodyBytes)
    refuse(
      'file',
      `The file has ${Math.round(bytes.length / 1e6)} MB; up to 100 MB are read.`,
      'Export only what is needed.',
    )
  const { meshes: found, remarks, asks } = await reader.read(bytes, wasm, answers)
  const meshes = taken(found, asks, answers)
  const count = meshes.reduce((n, m) => n + m.triangles.length / 3, 0)
  if (count === 0) refuse('file', `There is no body in "${fileName}".`, 'Export the forms as surfaces or solids.')
  if (count > READ_LIMITS.triangles)
    refuse(
      'file',
      `"${fileName}" has ${count} triangles; up to ${READ_LIMITS.triangles} are read.`,
      'Export it coarser, or only what is needed.',
    )
  if (meshes.some((m) => m.corners.some((c) => !(Math.abs(c) < READ_LIMITS.far))))
    refuse(
      'file',
      `"${fileName}" has points that lie beyond anything on the ground.`,
      'Check its unit, and export it once more.',
    )
  const all = together || meshes.length > 60 ? [merged(fileName, meshes)] : meshes
  if (!together && meshes.length > 60) remarks.push(`${meshes.length} bodies were taken as one.`)
  const bodies = all.map((mesh) => bodyOf(fileName, mesh)).filter((b) => b.body.faces.length > 0)
  for (const b of bodies) for (const what of b.done) remarks.push(`${b.name}: ${what}.`)
  return { bodies, remarks, asks }
}

/** What bodies are in their file, as it is offered, in the order in which it is taken where nobody answers. */
const CLASSES: Record<BodyClass, string> = {
  forms: 'forms',
  parts: 'parts of the building',
  spaces: 'spaces',
  others: 'furniture and equipment',
  context: 'surroundings',
  ground: 'the ground',
}

/** The bodies of one class, or all: asked where a file has several, since forms, their parts and their spaces are the same volume. */
function taken(meshes: ReadMesh[], asks: Ask[], answers: Answers): ReadMesh[] {
  const present = (Object.keys(CLASSES) as BodyClass[]).filter((c) => meshes.some((m) => m.of === c))
  if (present.length < 2) return meshes
  const one = present.find((c) => c === answers.take) ?? present[0]
  const take = answers.take === 'all' ? 'all' : (one ?? 'all')
  asks.push({
    what: 'take',
    say: 'The file has things of several kinds, which may be the same volume twice',
    options: [
      ...present.map((c) => ({ value: c, label: `${CLASSES[c]} (${meshes.filter((m) => m.of === c).length})` })),
      { value: 'all', label: `all of it (${meshes.length})` },
    ],
    taken: take,
  })
  return take === 'all' ? meshes : meshes.filter((m) => m.of === take)
}

function merged(name: string, meshes: ReadMesh[]): ReadMesh {
  const isFaceted = meshes.some((m) => m.isFaceted)
  const out: ReadMesh = { name: name.replace(/\.[^.]*$/, ''), isFaceted, corners: [], triangles: [] }
  for (const mesh of meshes) {
    const from = out.corners.length / 3
    for (const c of mesh.corners) out.corners.push(c)
    for (const t of mesh.triangles) out.triangles.push(from + t)
  }
  return out
}

function bodyOf(file: string, mesh: ReadMesh): ReadBody {
  const { corners: onCurves, triangles: read } = welded(mesh)
  const { triangles, done } = oriented(onCurves, joinedAtEdges(onCurves, read, WELD))
  const corners = mesh.isFaceted ? curvesKept(onCurves, triangles, done) : onCurves
  let [x0, y0, z0] = [Infinity, Infinity, Infinity]
  for (let i = 0; i < corners.length; i += 3) {
    x0 = Math.min(x0, corners[i] ?? 0)
    y0 = Math.min(y0, corners[i + 1] ?? 0)
    z0 = Math.min(z0, corners[i + 2] ?? 0)
  }
  const own = corners.map((c, i) => Math.round((c - ([x0, y0, z0][i % 3] ?? 0)) * 1e9) / 1e9 + 0)
  const faces = byPlane(own, triangles)
  const fault = bodyFault({ positions: Float64Array.from(own), triangles: Uint32Array.from(faces.flat()) })
  return {
    name: nameOf(mesh.name),
    place: [x0, y0],
    above: z0,
    fault: fault?.fault ?? null,
    done,
    body: { file: nameOf(file), corners: own, faces: faces.map((t, i) => ({ name: `f${i + 1}`, triangles: t })) },
  }
}

/** The corners of a body whose facets stand in for curves, so that they keep area and volume; notes where they cannot. */
function curvesKept(corners: number[], triangles: number[], done: string[]): number[] {
  const turned = roundedTurned(corners, triangles)
  if (turned) return turned
  const { corners: kept, left } = roundedOut(corners, byPlane(corners, triangles))
  if (left) done.push('its facets lie within its curves, so that it is up to 1 % smaller')
  return kept
}

/** m: corners closer than this are one, half of what counts as touching */
const WELD = TOLERANCE.touch / 2

/** A name without what no name may hold. */
const nameOf = (name: string): string => plainText(plainText(name).trim().slice(0, 120)).trim() || 'body'

/** Corners that lie together are one; triangles without area go. */
function welded({ corners, triangles }: ReadMesh): { corners: number[]; triangles: number[] } {
  const cells = new Map<string, number[]>()
  const out: number[] = []
  const at = (v: number, k: number) => corners[v * 3 + k] ?? 0
  const cellOf = (c: number) => Math.round(c / WELD)
  const near = (v: number): number | undefined => {
    for (let i = 0; i < 27; i++) {
      const cell = [0, 1, 2].map((k) => cellOf(at(v, k)) + (Math.floor(i / 3 ** k) % 3) - 1).join()
      const found = cells
        .get(cell)
        ?.find((n) => [0, 1, 2].every((k) => Math.abs((out[n * 3 + k] ?? 0) - at(v, k)) < WELD))
      if (found !== undefined) return found
    }
    return undefined
  }
  const to = Array.from({ length: corners.length / 3 }, (_, v) => {
    const known = near(v)
    if (known !== undefined) return known
    const n = out.length / 3
    const cell = [0, 1, 2].map((k) => cellOf(at(v, k))).join()
    cells.set(cell, [...(cells.get(cell) ?? []), n])
    out.push(at(v, 0), at(v, 1), at(v, 2))
    return n
  })
  const kept: number[] = []
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [to[triangles[t] ?? 0] ?? 0, to[triangles[t + 1] ?? 0] ?? 0, to[triangles[t + 2] ?? 0] ?? 0]
    if (a !== b && b !== c && c !== a) kept.push(a, b, c)
  }
  return { corners: out, triangles: kept }
}

/** Neighbouring triangles in one plane as one face each, the lowest first. */
function byPlane(p: number[], triangles: number[]): number[][] {
  const count = triangles.length / 3
  const corner = (i: number) => cornerAt(p, triangles[i] ?? 0)
  const planes = Array.from({ length: count }, (_, t) =>
    planeThrough(corner(t * 3), corner(t * 3 + 1), corner(t * 3 + 2)),
  )
  const across = new Map<string, number>()
  for (let i = 0; i < triangles.length; i++)
    across.set(`${triangles[i]}/${triangles[i % 3 === 2 ? i - 2 : i + 1]}`, Math.floor(i / 3))
  const seen = new Uint8Array(count)
  const faces: { triangles: number[]; low: number }[] = []
  for (let seed = 0; seed < count; seed++) {
    if (seen[seed]) continue
    seen[seed] = 1
    const members = [seed]
    const { n, d } = planes[seed] as Plane
    for (const t of members)
      for (let e = 0; e < 3; e++) {
        const other = across.get(`${triangles[t * 3 + ((e + 1) % 3)]}/${triangles[t * 3 + e]}`)
        if (other === undefined || seen[other]) continue
        const inPlane = [0, 1, 2].every((k) => Math.abs(dotOf(n, corner(other * 3 + k)) - d) < 2 * TOLERANCE.height)
        if (inPlane && dotOf(n, (planes[other] as Plane).n) > 0.9) {
          seen[other] = 1
          members.push(other)
        }
      }
    const own = members.flatMap((t) => [triangles[t * 3] ?? 0, triangles[t * 3 + 1] ?? 0, triangles[t * 3 + 2] ?? 0])
    faces.push({ triangles: own, low: Math.min(...own.map((v) => p[v * 3 + 2] ?? 0)) })
  }
  return faces.sort((a, b) => a.low - b.low).map((f) => f.triangles)
}

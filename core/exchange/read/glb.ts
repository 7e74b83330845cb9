import { WebIO, type Mesh, type Node } from '@gltf-transform/core'
import { EXTMeshGPUInstancing, KHRMeshQuantization, type InstancedMesh } from '@gltf-transform/extensions'
import { refuse } from '../../project'
import { READ_LIMITS, tooMany } from '../limits'
import type { BodyClass, Reader, ReadMesh } from './kind'

/** Binary glTF 2.0: every mesh of its scene where its node places it, triangles, strips and fans; y up in the file, metres. */
export const glb: Reader = {
  id: 'glb',
  label: 'glTF, binary',
  extensions: ['glb'],
  read: async (bytes) => {
    bounded(bytes)
    const document = await new WebIO()
      .registerExtensions([EXTMeshGPUInstancing, KHRMeshQuantization])
      .readBinary(bytes)
      .catch(() => refuse('file', 'The file is no binary glTF, or is damaged.', 'Export it once more as .glb.'))
    const root = document.getRoot()
    const scene = root.getDefaultScene() ?? root.listScenes()[0]
    const remarks: string[] = []
    const meshes: ReadMesh[] = []
    let [left, triangles] = [0, 0]
    const visit = (node: Node) => {
      for (const at of placesOf(node)) {
        const found = meshOf(node, at)
        left += found.left
        if (found.mesh) meshes.push(found.mesh)
        triangles += (found.mesh?.triangles.length ?? 0) / 3
        if (triangles > READ_LIMITS.triangles * 2) tooMany('triangles in its instances', 'The file')
      }
    }
    if (scene) scene.traverse(visit)
    else root.listNodes().forEach(visit)
    if (left) remarks.push(`${left} meshes of points or lines were left out.`)
    if (root.listScenes().length > 1) remarks.push('The file has several scenes; the one that it names was read.')
    return { meshes, remarks, asks: [] }
  },
}

/** Where a node's mesh stands: 4 by 4 matrices, column by column. One, or one for each of its GPU instances. */
function placesOf(node: Node): number[][] {
  const own = node.getWorldMatrix()
  const instances = node.getExtension<InstancedMesh>('EXT_mesh_gpu_instancing')
  if (!instances) return [own]
  const [shift, turn, size] = ['TRANSLATION', 'ROTATION', 'SCALE'].map((name) => instances.getAttribute(name))
  const count = Math.max(...[shift, turn, size].map((a) => a?.getCount() ?? 0))
  if (count > 100_000) tooMany('instances', 'The file')
  return Array.from({ length: count }, (_, i) => {
    const [x = 0, y = 0, z = 0, w = 1] = turn?.getElement(i, []) ?? []
    const scale = size?.getElement(i, []) ?? [1, 1, 1]
    const [tx = 0, ty = 0, tz = 0] = shift?.getElement(i, []) ?? []
    // A unit quaternion's turn (glTF 2.0, 3.5.3), its columns scaled.
    const columns = [
      [1 - 2 * (y * y + z * z), 2 * (x * y + z * w), 2 * (x * z - y * w)],
      [2 * (x * y - z * w), 1 - 2 * (x * x + z * z), 2 * (y * z + x * w)],
      [2 * (x * z + y * w), 2 * (y * z - x * w), 1 - 2 * (x * x + y * y)],
    ].map((column, k) => [...column.map((v) => v * (scale[k] ?? 1)), 0])
    return times(own, [...columns.flat(), tx, ty, tz, 1])
  })
}

/** The product of two 4 by 4 matrices, column by column. */
const times = (a: readonly number[], b: readonly number[]): number[] =>
  Array.from({ length: 16 }, (_, i) =>
    [0, 1, 2, 3].reduce((sum, k) => sum + (a[4 * k + (i % 4)] ?? 0) * (b[4 * Math.floor(i / 4) + k] ?? 0), 0),
  )

/** What a node says that it holds, as our writer has it. */
function classOf(node: Node): BodyClass | undefined {
  const kind: unknown = node.getExtras().kind
  if (kind === undefined) return undefined
  return kind === 'mass' ? 'forms' : kind === 'context' ? 'context' : 'parts'
}

function meshOf(node: Node, m: readonly number[]): { mesh: ReadMesh | null; left: number } {
  const mesh: Mesh | null = node.getMesh()
  if (!mesh) return { mesh: null, left: 0 }
  const det =
    (m[0] ?? 0) * ((m[5] ?? 0) * (m[10] ?? 0) - (m[9] ?? 0) * (m[6] ?? 0)) -
    (m[4] ?? 0) * ((m[1] ?? 0) * (m[10] ?? 0) - (m[9] ?? 0) * (m[2] ?? 0)) +
    (m[8] ?? 0) * ((m[1] ?? 0) * (m[6] ?? 0) - (m[5] ?? 0) * (m[2] ?? 0))
  const is = classOf(node)
  const out: ReadMesh = {
    name: node.getName() || mesh.getName() || 'body',
    ...(is ? { of: is } : {}),
    corners: [],
    triangles: [],
  }
  let left = 0
  for (const primitive of mesh.listPrimitives()) {
    const position = primitive.getAttribute('POSITION')
    const mode = primitive.getMode()
    if (!position || mode < 4) {
      left++
      continue
    }
    const from = out.corners.length / 3
    for (let i = 0; i < position.getCount(); i++) {
      const [x = 0, y = 0, z = 0] = position.getElement(i, [])
      const world = [0, 1, 2].map(
        (k) => (m[k] ?? 0) * x + (m[4 + k] ?? 0) * y + (m[8 + k] ?? 0) * z + (m[12 + k] ?? 0),
      ) as [number, number, number]
      out.corners.push(world[0], -world[2], world[1])
    }
    const indices = primitive.getIndices()
    const count = indices ? indices.getCount() : position.getCount()
    const at = (i: number) => from + (indices ? indices.getScalar(i) : i)
    const add = (a: number, b: number, c: number) => {
      if (det < 0) out.triangles.push(a, c, b)
      else out.triangles.push(a, b, c)
    }
    for (let i = 0; i + 2 < count; i += mode === 4 ? 3 : 1) {
      if (mode === 4) add(at(i), at(i + 1), at(i + 2))
      else if (mode === 5) {
        if (i % 2) add(at(i + 1), at(i), at(i + 2))
        else add(at(i), at(i + 1), at(i + 2))
      } else add(at(0), at(i + 1), at(i + 2))
    }
  }
  return { mesh: out.triangles.length ? out : null, left }
}

/** Refuses a file whose accessors would need more than it can hold, before anything is made of them. */
function bounded(bytes: Uint8Array): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  if (bytes.length < 20 || view.getUint32(0, true) !== 0x46546c67) return
  const length = view.getUint32(12, true)
  if (length > bytes.length - 20) return
  let json: { accessors?: { count?: number }[]; nodes?: unknown[]; extensionsRequired?: unknown } = {}
  try {
    json = JSON.parse(new TextDecoder().decode(bytes.subarray(20, 20 + length))) as typeof json
  } catch {
    return
  }
  const count = Array.isArray(json.accessors)
    ? json.accessors.reduce((sum, a) => sum + (typeof a?.count === 'number' ? a.count : 0), 0)
    : 0
  if (count > READ_LIMITS.triangles * 12 || count > bytes.length) tooMany('corners for its size', 'The file')
  refusePacked(Array.isArray(json.extensionsRequired) ? json.extensionsRequired : [])
  if (Array.isArray(json.nodes) && json.nodes.length > 100_000) tooMany('nodes', 'The file')
}

/** Mesh compressions that are not decoded here, by the names that users know. */
const PACKINGS: Record<string, string> = {
  KHR_draco_mesh_compression: 'Draco compression',
  EXT_meshopt_compression: 'meshopt compression',
  KHR_meshopt_compression: 'meshopt compression',
}
const READ_EXTENSIONS = ['EXT_mesh_gpu_instancing', 'KHR_mesh_quantization']

/** Refuses a file that requires an extension for its meshes which is not read, and names it. Extensions for colours may be missing. */
function refusePacked(required: unknown[]): void {
  for (const name of required.map(String)) {
    if (READ_EXTENSIONS.includes(name) || /^KHR_(materials|texture|lights)_/.test(name)) continue
    refuse(
      'file',
      `The file's meshes need ${PACKINGS[name] ?? `the extension ${name.slice(0, 60)}`}, which is not read here.`,
      'Export it without compression of its meshes.',
    )
  }
}

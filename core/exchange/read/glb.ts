import { WebIO, type Node } from '@gltf-transform/core'
import { refuse } from '../../project'
import { READ_LIMITS, tooMany } from '../limits'
import type { Reader, ReadMesh } from './kind'

/** Binary glTF 2.0: every mesh of its scene where its node places it, triangles, strips and fans; y up in the file, metres. */
export const glb: Reader = {
  id: 'glb',
  label: 'glTF, binary',
  extensions: ['glb'],
  read: async (bytes) => {
    bounded(bytes)
    const document = await new WebIO()
      .readBinary(bytes)
      .catch(() => refuse('file', 'The file is no binary glTF, or is damaged.', 'Export it once more as .glb.'))
    const root = document.getRoot()
    const scene = root.getDefaultScene() ?? root.listScenes()[0]
    const remarks: string[] = []
    const meshes: ReadMesh[] = []
    let left = 0
    const visit = (node: Node) => {
      const found = meshOf(node)
      left += found.left
      if (found.mesh) meshes.push(found.mesh)
    }
    if (scene) scene.traverse(visit)
    else root.listNodes().forEach(visit)
    if (left) remarks.push(`${left} meshes of points or lines were left out.`)
    if (root.listScenes().length > 1) remarks.push('The file has several scenes; the one that it names was read.')
    return { meshes, remarks, asks: [] }
  },
}

function meshOf(node: Node): { mesh: ReadMesh | null; left: number } {
  const mesh = node.getMesh()
  if (!mesh) return { mesh: null, left: 0 }
  const m = node.getWorldMatrix()
  const det =
    (m[0] ?? 0) * ((m[5] ?? 0) * (m[10] ?? 0) - (m[9] ?? 0) * (m[6] ?? 0)) -
    (m[4] ?? 0) * ((m[1] ?? 0) * (m[10] ?? 0) - (m[9] ?? 0) * (m[2] ?? 0)) +
    (m[8] ?? 0) * ((m[1] ?? 0) * (m[6] ?? 0) - (m[5] ?? 0) * (m[2] ?? 0))
  const out: ReadMesh = { name: node.getName() || mesh.getName() || 'body', corners: [], triangles: [] }
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
  let json: { accessors?: { count?: number }[]; nodes?: unknown[] } = {}
  try {
    json = JSON.parse(new TextDecoder().decode(bytes.subarray(20, 20 + length))) as typeof json
  } catch {
    return
  }
  const count = Array.isArray(json.accessors)
    ? json.accessors.reduce((sum, a) => sum + (typeof a?.count === 'number' ? a.count : 0), 0)
    : 0
  if (count > READ_LIMITS.triangles * 12 || count > bytes.length) tooMany('corners for its size', 'The file')
  if (Array.isArray(json.nodes) && json.nodes.length > 100_000) tooMany('nodes', 'The file')
}

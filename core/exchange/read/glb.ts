import { WebIO } from '@gltf-transform/core'
import { refuse } from '../../project'
import type { Reader, ReadMesh } from './kind'

/** Binary glTF 2.0: every mesh of its scenes where its node places it; y up in the file. */
export const glb: Reader = {
  id: 'glb', label: 'glTF, binary', extensions: ['glb'],
  read: async (bytes) => {
    const document = await new WebIO().readBinary(bytes).catch((e: unknown) => refuse('file', `The file is no binary glTF: ${e instanceof Error ? e.message : 'it cannot be read'}.`, 'Choose a .glb file.'))
    return document.getRoot().listNodes().flatMap((node): ReadMesh[] => {
      const mesh = node.getMesh()
      if (!mesh) return []
      const m = node.getWorldMatrix()
      const out: ReadMesh = { name: node.getName() || mesh.getName() || 'body', corners: [], triangles: [] }
      for (const primitive of mesh.listPrimitives()) {
        const position = primitive.getAttribute('POSITION')
        if (!position || primitive.getMode() !== 4) continue
        const from = out.corners.length / 3
        for (let i = 0; i < position.getCount(); i++) {
          const [x = 0, y = 0, z = 0] = position.getElement(i, [])
          const world = [0, 1, 2].map((k) => (m[k] ?? 0) * x + (m[4 + k] ?? 0) * y + (m[8 + k] ?? 0) * z + (m[12 + k] ?? 0)) as [number, number, number]
          out.corners.push(world[0], -world[2], world[1])
        }
        const indices = primitive.getIndices()
        const count = indices ? indices.getCount() : position.getCount()
        for (let i = 0; i < count; i++) out.triangles.push(from + (indices ? indices.getScalar(i) : i))
      }
      return out.triangles.length ? [out] : []
    })
  },
}

import { refuse } from '../../project'
import type { Reader, ReadMesh } from './kind'

/** OBJ: v, f, o and g; z up, metres. Polygons are fanned; what else a file holds is left. */
export const obj: Reader = {
  id: 'obj', label: 'OBJ', extensions: ['obj'],
  read: (bytes) => Promise.resolve(readObj(new TextDecoder().decode(bytes))),
}

function readObj(text: string): ReadMesh[] {
  const vertices: number[] = []
  const meshes: (ReadMesh & { number: Map<number, number> })[] = []
  let current: (typeof meshes)[number] | null = null
  let name = 'body'
  const mesh = () => { if (!current) meshes.push(current = { name, corners: [], triangles: [], number: new Map() }); return current }
  text.split(/\r?\n/).forEach((line, i) => {
    const [tag, ...rest] = line.trim().split(/\s+/)
    const bad = (what: string) => refuse('file', `Line ${i + 1} of the OBJ file ${what}.`, 'Export the file once more.')
    if (tag === 'v') {
      const xyz = rest.slice(0, 3).map(Number)
      if (xyz.length < 3 || xyz.some((c) => !Number.isFinite(c))) bad('is no point')
      vertices.push(...xyz)
    } else if (tag === 'o') { name = rest.join(' ') || 'body'; current = null } else if (tag === 'f') {
      const count = vertices.length / 3
      const corners = rest.map((part) => {
        const n = Number.parseInt(part, 10)
        const v = n < 0 ? count + n : n - 1
        return Number.isInteger(v) && v >= 0 && v < count ? v : bad('names a point that is not there')
      })
      if (corners.length < 3) bad('is a face of fewer than three corners')
      const into = mesh()
      const own = corners.map((v) => {
        let n = into.number.get(v)
        if (n === undefined) { into.number.set(v, n = into.corners.length / 3); into.corners.push(...vertices.slice(v * 3, v * 3 + 3)) }
        return n
      })
      for (let k = 1; k + 1 < own.length; k++) into.triangles.push(own[0] ?? 0, own[k] ?? 0, own[k + 1] ?? 0)
    }
  })
  return meshes.map(({ name: n, corners, triangles }) => ({ name: n, corners, triangles }))
}

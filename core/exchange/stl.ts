import { cornerAt, lessOf, planeThrough, type Vec3 } from '../solid'
import type { Study } from '../study'
import { formBodies } from './bodies'

/**
 * The forms as binary STL, metres (single precision), z up: for printing and for other meshers. Coordinates are the project's own; what lies so far
 * away that single precision would lose millimetres is moved near, and its head says by how much.
 */
export function writeStl(study: Study): Uint8Array {
  const bodies = formBodies({ ...study, around: [] })
  const count = bodies.reduce((n, b) => n + b.mesh.triangles.length / 3, 0)
  const view = new DataView(new ArrayBuffer(84 + count * 50))
  const far = study.forms.some((f) => Math.max(Math.abs(f.at.x), Math.abs(f.at.y)) > FAR)
  const [ox, oy] = far
    ? ([study.forms[0]?.at.x ?? 0, study.forms[0]?.at.y ?? 0].map(Math.round) as [number, number])
    : [0, 0]
  const title = far ? `metres, moved by x ${ox} y ${oy}: ${study.project.name}` : `metres: ${study.project.name}`
  for (let i = 0; i < 80; i++) view.setUint8(i, i < title.length ? title.charCodeAt(i) & 0x7f : 0x20)
  view.setUint32(80, count, true)
  let at = 84
  for (const {
    mesh: { positions: p, triangles },
  } of bodies)
    for (let t = 0; t < triangles.length; t += 3) {
      const [a, b, c] = [0, 1, 2].map((k): Vec3 => lessOf(cornerAt(p, triangles[t + k] ?? 0), [ox, oy, 0])) as [
        Vec3,
        Vec3,
        Vec3,
      ]
      const { n } = planeThrough(a, b, c)
      for (const value of [...n, ...a, ...b, ...c]) {
        view.setFloat32(at, value, true)
        at += 4
      }
      at += 2
    }
  return new Uint8Array(view.buffer)
}

/** m from the project's zero, beyond which single precision loses a tenth of a millimetre */
const FAR = 1000

import { TOLERANCE, type Vec3 } from '../../solid'
import { READ_LIMITS, tooMany } from '../limits'
import { numberOf, valueOf, type Drawing, type Entity } from './dxf-entities'

/** From where a thing is drawn to where it lies. */
export type Place = (p: Vec3) => Vec3
/** The things of a drawing where they lie, and how many of what kind were left out. */
export interface Things {
  entities: { entity: Entity; place: Place }[]
  others: Map<string, number>
  paper: number
  off: number
  invisible: number
}

/** In how many columns and rows a block is placed at once. */
const timesOf = (e: Entity): [number, number] => [Math.max(1, numberOf(e, 70, 1)), Math.max(1, numberOf(e, 71, 1))]

/** How many things there will be once all blocks are placed; each block is counted once. */
function countOf(
  drawing: Drawing,
  entities: Entity[],
  name: string,
  known: Map<string, number>,
  depth: number,
): number {
  if (depth > READ_LIMITS.depth) tooMany('blocks within blocks', name)
  let count = entities.length
  for (const e of entities) {
    const id = e.type === 'INSERT' ? (valueOf(e, 2) ?? '') : ''
    const block = e.type === 'INSERT' ? drawing.blocks.get(id) : undefined
    if (!block) continue
    const inside = known.get(id) ?? countOf(drawing, block.entities, name, known, depth + 1)
    known.set(id, inside)
    const [columns, rows] = timesOf(e)
    if (columns * rows * Math.max(1, inside) > READ_LIMITS.placed)
      tooMany(columns * rows > 1 ? 'things in its block arrays' : 'things', name)
    count += columns * rows * inside
  }
  return count
}

/** All things where they lie once the blocks are placed, those within blocks too. */
export function placed(drawing: Drawing, name: string): Things {
  const out: Things = { entities: [], others: new Map(), paper: 0, off: 0, invisible: 0 }
  if (countOf(drawing, drawing.entities, name, new Map(), 0) > READ_LIMITS.placed) tooMany('things', name)
  const walk = (entities: Entity[], place: Place) => {
    for (const entity of entities) {
      if (valueOf(entity, 67) === '1') {
        out.paper++
        continue
      }
      if (drawing.hidden.has(valueOf(entity, 8) ?? '')) {
        out.off++
        continue
      }
      if (valueOf(entity, 60) === '1') {
        out.invisible++
        continue
      }
      if (entity.type !== 'INSERT') {
        out.entities.push({ entity, place })
        continue
      }
      const block = drawing.blocks.get(valueOf(entity, 2) ?? '')
      if (!block || block.outside) {
        const what = block?.outside ? `other drawing ("${block.outside}")` : 'INSERT of nothing'
        out.others.set(what, (out.others.get(what) ?? 0) + 1)
        continue
      }
      const [columns, rows] = timesOf(entity)
      const own = inOwnPlane(entity)
      const [sx, sy, sz, turn] = [
        numberOf(entity, 41, 1),
        numberOf(entity, 42, 1),
        numberOf(entity, 43, 1),
        (numberOf(entity, 50) * Math.PI) / 180,
      ]
      const [c, s] = [Math.cos(turn), Math.sin(turn)]
      for (let j = 0; j < rows; j++)
        for (let i = 0; i < columns; i++) {
          const at = ([x, y, z]: Vec3): Vec3 => {
            const [lx, ly, lz] = [
              (x - block.base[0]) * sx + i * numberOf(entity, 44),
              (y - block.base[1]) * sy + j * numberOf(entity, 45),
              (z - block.base[2]) * sz,
            ]
            return place(
              own([
                numberOf(entity, 10) + c * lx - s * ly,
                numberOf(entity, 20) + s * lx + c * ly,
                numberOf(entity, 30) + lz,
              ]),
            )
          }
          walk(block.entities, at)
        }
    }
  }
  walk(drawing.entities, (p) => p)
  return out
}

/** From the plane that a thing is drawn in to the world: by its extrusion direction, with the format's rule for the axes across it. */
export function inOwnPlane(e: Entity): Place {
  const n: Vec3 = [numberOf(e, 210), numberOf(e, 220), numberOf(e, 230, 1)]
  const is3d = e.type === 'POLYLINE' && (numberOf(e, 70) & 8) === 8
  const length = Math.hypot(...n)
  if (is3d || length < TOLERANCE.rounding || (n[0] === 0 && n[1] === 0 && n[2] > 0)) return (p) => p
  const z: Vec3 = [n[0] / length, n[1] / length, n[2] / length]
  const cross = (a: Vec3, b: Vec3): Vec3 => [
    a[1] * b[2] - a[2] * b[1],
    a[2] * b[0] - a[0] * b[2],
    a[0] * b[1] - a[1] * b[0],
  ]
  const across = cross(Math.abs(z[0]) < 1 / 64 && Math.abs(z[1]) < 1 / 64 ? [0, 1, 0] : [0, 0, 1], z)
  const l = Math.hypot(...across)
  const x: Vec3 = [across[0] / l, across[1] / l, across[2] / l]
  const y = cross(z, x)
  return ([px, py, pz]) => [0, 1, 2].map((k) => (x[k] ?? 0) * px + (y[k] ?? 0) * py + (z[k] ?? 0) * pz) as Vec3
}

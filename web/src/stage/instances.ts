import type { BufferGeometry } from 'three'
import { batchOf, shadowOf } from './batches'
import { type Placed } from './placed'
import type { Palette } from './theme'

/** so many of one look are drawn as one, each at its place; fewer are drawn together with all else */
const MANY = 8

/** Bodies of one form that look alike: drawn once, and then at each place; m from where the first of them would stand at zero. */
export interface Instances {
  faces: BufferGeometry
  /** x, y, z of each, m */ places: Float32Array
}

/** What is drawn by itself, and what is drawn as instances: of one body, turned alike, and looking alike. */
export function instancesOf(items: Placed[], palette: Palette): { single: Placed[]; many: Instances[] } {
  const byLook = new Map<string, Placed[]>()
  const numbers = new Map<Placed['geometry'], number>()
  for (const item of items) {
    const { geometry, at, tint, strength, colour, faceColours } = item
    const number = numbers.get(geometry) ?? numbers.size
    numbers.set(geometry, number)
    const look = `${number} ${at.turn} ${tint} ${strength} ${colour} ${faceColours?.join()}`
    const known = byLook.get(look)
    if (known) known.push(item)
    else byLook.set(look, [item])
  }
  const [single, many]: [Placed[], Instances[]] = [[], []]
  for (const alike of byLook.values()) {
    const [first] = alike
    if (!first || alike.length < MANY) {
      single.push(...alike)
      continue
    }
    const { faces } = batchOf(
      [{ ...first, owner: 'instances', at: { x: 0, y: 0, z: 0, turn: first.at.turn } }],
      palette,
    )
    many.push({ faces, places: Float32Array.from(alike.flatMap(({ at: { x, y, z } }) => [x, y, z])) })
  }
  return { single, many }
}

/** Their shadows on the ground, as far as they stand below `top`, m: one for each height at which some of them stand. */
export const shadowsOf = (many: readonly Instances[], top: number): Instances[] =>
  many.flatMap(({ faces, places }) => {
    const byHeight = new Map<number, number[]>()
    for (let i = 0; i < places.length; i += 3) {
      const z = places[i + 2] ?? 0
      const at = byHeight.get(z) ?? []
      byHeight.set(z, at)
      at.push(places[i] ?? 0, places[i + 1] ?? 0, 0)
    }
    const positions = faces.getAttribute('position').array as Float32Array
    return [...byHeight].map(([z, at]) => ({
      faces: shadowOf(
        positions.map((v, i) => (i % 3 === 2 ? v + z : v)),
        top,
      ),
      places: Float32Array.from(at),
    }))
  })

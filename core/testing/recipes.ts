import { buildRecipe, type Move } from '../moves'
import { blankProject, numbersOf } from '../project'
import { areaOf, cutAt, facesOf, volumeOf, type Solid, type Vec2 } from '../solid'

/** Recipes without a project around them. */
let n = 0
export const plainNumbers = {
  ...numbersOf(
    blankProject(() => `m${++n}`, 'T', 'm', null),
    null,
  ),
  base: 0,
  heights: new Map<string, number>(),
}
export const outline = (points: Vec2[]): Move => ({
  id: 'o',
  move: 'outline',
  on: true,
  shape: { kind: 'polygon', corners: points.map(([x, y], i) => ({ id: `e${i + 1}`, x, y, bulge: 0 })) },
  holes: [],
})
export const raise = (height: number): Move => ({ id: 'r', move: 'raise', on: true, height, upTo: null })
export const build = (...recipe: Move[]) => {
  const form = buildRecipe(recipe, plainNumbers, 'M')
  return { ...form, volume: volumeOf(form.solid), faces: facesOf(form.solid) }
}
/** m2 of a body's cut at a height, m */
export const cutArea = (solid: Solid, z: number): number => areaOf(cutAt(solid, z).map((l) => l.points))
export const box = (w: number, d: number): Vec2[] => [
  [0, 0],
  [w, 0],
  [w, d],
  [0, d],
]

/** Corners turned about zero by degrees, and moved, m. */
export const turned = (points: Vec2[], degrees: number, [dx, dy]: Vec2 = [0, 0]): Vec2[] => {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)]
  return points.map(([x, y]) => [c * x - s * y + dx, s * x + c * y + dy])
}

/** m3 by the plates of a body: they are parabolas over the height between its corners, where Gauss's rule with two places is exact */
export function byPlates(solid: Solid): number {
  const { positions: p } = solid
  const zs = [...new Set(Array.from({ length: p.length / 3 }, (_, v) => p[v * 3 + 2] as number))].sort((a, b) => a - b)
  return zs.slice(1).reduce((sum, z, i) => {
    const [from, high] = [zs[i] as number, z - (zs[i] as number)]
    const at = (t: number) => cutArea(solid, from + high * t)
    return sum + (high / 2) * (at(0.5 - Math.sqrt(1 / 12)) + at(0.5 + Math.sqrt(1 / 12)))
  }, 0)
}

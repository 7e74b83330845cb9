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

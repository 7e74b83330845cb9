import { boxOf, faceName, halfSpace, intersect, TOLERANCE, unite, type Solid } from '../solid'
import type { BodyForm } from './kind'
import type { Ranges } from './span'

/**
 * The body with what lies within some heights replaced by what is made of it, and all else as it was. Faces that come to light at the
 * heights are <id>/over and <id>/under.
 */
export function actedWithin(form: BodyForm, id: string, ranges: Ranges, act: (form: BodyForm) => BodyForm): BodyForm {
  const { z0, z1 } = boxOf(form.solid.positions)
  const slice = (from: number, to: number): Solid => {
    const below = to < z1 - TOLERANCE.height ? under(form.solid, to, id, 'over') : form.solid
    return from > z0 + TOLERANCE.height ? above(below, from, id, 'under') : below
  }
  const ends = ranges.map(([from, to]): [number, number] => [Math.max(z0, from), Math.min(z1, to)])
  const [first] = ends
  if (first && ends.length === 1 && first[0] < z0 + TOLERANCE.height && first[1] > z1 - TOLERANCE.height)
    return act(form)
  let from = z0
  let after: BodyForm = form
  const parts: Solid[] = []
  for (const [low, high] of ends) {
    if (low > from + TOLERANCE.height) parts.push(slice(from, low))
    after = act({ ...form, carried: null, solid: slice(low, high) })
    parts.push(after.solid)
    from = high
  }
  if (z1 > from + TOLERANCE.height) parts.push(slice(from, z1))
  return { ...after, carried: null, solid: parts.reduce((all, part) => unite(all, part)) }
}

const level = (z: number) => ({ n: [0, 0, 1] as [number, number, number], d: z })
const under = (solid: Solid, z: number, id: string, own: string) =>
  intersect(solid, halfSpace(level(z), solid, true, faceName(id, own)))
const above = (solid: Solid, z: number, id: string, own: string) =>
  intersect(solid, halfSpace(level(z), solid, false, faceName(id, own)))

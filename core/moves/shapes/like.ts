import type { Num, Numbers } from '../../values'
import { FOOTPRINT_FORMS, type Footprint, type FootprintForm } from './footprint'
import type { OutlineShape } from './list'
import { cornerRadius, type Regular } from './regular'

/** What the two sizes of a ready footprint are to begin with, as shares of its width and depth. */
const BEGINS: Record<FootprintForm, (w: number, d: number) => [number, number]> = {
  L: (w, d) => [0.4 * d, 0.4 * w],
  T: (w, d) => [0.4 * d, 0.3 * w],
  U: (w, d) => [0.4 * w, 0.5 * d],
  H: (w, d) => [0.3 * w, 0.3 * d],
  cross: (w, d) => [0.36 * d, 0.36 * w],
  court: (w, d) => [0.28 * d, 0.28 * w],
}

/** A ready footprint of a width and a depth, m, with sizes to begin with: to a tenth of a metre where that is fine enough. */
export function readyFootprint(
  form: FootprintForm,
  width: Num,
  depth: Num,
  numbers: Pick<Numbers, 'length'>,
): Footprint {
  const round = (v: number) => (v > 1 ? Math.round(v * 10) / 10 : Math.round(v * 1000) / 1000)
  const [a, b] = BEGINS[form](numbers.length(width), numbers.length(depth)).map(round) as [number, number]
  return { kind: 'footprint', form, width, depth, a, b }
}

/** So many equal sides with their corners on a circle. */
export const readyRegular = (radius: Num, sides = 6): Regular => ({
  kind: 'regular',
  sides,
  by: 'corners',
  size: radius,
})

/** What a shape can be changed into where it stands, with its own sizes: by name; its own name first. None where its corners are free. */
export function likeShapes(shape: OutlineShape, numbers: Numbers): { name: string; shape: OutlineShape }[] {
  switch (shape.kind) {
    case 'polygon':
    case 'joined':
      return []
    case 'rectangle':
    case 'footprint': {
      const { width, depth } = shape
      const own = shape.kind === 'footprint' ? shape.form : 'rectangle'
      const all = [
        { name: 'rectangle', shape: { kind: 'rectangle' as const, width, depth } },
        ...FOOTPRINT_FORMS.map((form) => ({
          name: form as string,
          shape: readyFootprint(form, width, depth, numbers),
        })),
      ]
      const others = [
        { name: 'ellipse', shape: { kind: 'ellipse' as const, width, depth } },
        { name: 'by chance', shape: { kind: 'chance' as const, width, depth, seed: 1 } },
        {
          name: 'joined rectangles',
          shape: { kind: 'joined' as const, parts: [{ id: 'a', x: 0, y: 0, width, depth }] },
        },
      ]
      return [{ name: own, shape }, ...all.filter((s) => s.name !== own), ...others]
    }
    case 'chance':
    case 'ellipse':
      return [
        { name: shape.kind === 'chance' ? 'by chance' : 'ellipse', shape },
        { name: 'rectangle', shape: { kind: 'rectangle', width: shape.width, depth: shape.depth } },
      ]
    case 'circle':
      return [
        { name: 'circle', shape },
        { name: 'equal sides', shape: readyRegular(shape.radius) },
      ]
    case 'regular':
      return [
        { name: 'equal sides', shape },
        {
          name: 'circle',
          shape: { kind: 'circle', radius: shape.by === 'corners' ? shape.size : cornerRadius(shape, numbers) },
        },
      ]
  }
}

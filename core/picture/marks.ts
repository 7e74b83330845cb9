import { TOLERANCE } from '../solid'
import { tidy } from '../values'
import { fromPixel, type Scaling } from './calibrate'

/** A height read from a picture: as read, rounded by the stride, and whether another mark was read at the same height before it. */
export interface ReadMark {
  px: [number, number]
  read: number
  height: number
  repeats: number | null
}

/**
 * Heights (m above the datum) of level marks that were clicked in a picture of a section or an elevation. `from` is a pixel of known
 * height. Heights are rounded by `stride` (m; 0: not at all); a mark that comes to the same height as an earlier one says which.
 */
export function readMarks(
  scaling: Scaling,
  from: { px: [number, number]; height: number },
  marks: [number, number][],
  stride: number,
): ReadMark[] {
  const zero = fromPixel(scaling, from.px)[1]
  const heights: number[] = []
  return marks.map((px) => {
    const read = tidy(from.height + fromPixel(scaling, px)[1] - zero)
    const height = stride > 0 ? tidy(Math.round(read / stride) * stride) : read
    const repeats = heights.findIndex((h) => Math.abs(h - height) < TOLERANCE.point)
    heights.push(height)
    return { px, read, height, repeats: repeats < 0 ? null : repeats }
  })
}

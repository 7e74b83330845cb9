import { boxOf, faceName, halfSpace, intersect, TOLERANCE, type Plane, type Solid } from '../solid'
import type { Ranges } from './span'

const level = (z: number): Plane => ({ n: [0, 0, 1], d: z })

/**
 * What of a body that is added, or taken off, lies within some heights (m): a body for each range, ended by <id>/over and <id>/under. All of
 * it where no heights are said.
 */
export function clipped(tool: Solid, ranges: Ranges | null, id: string): Solid[] {
  if (ranges === null) return [tool]
  const { z0, z1 } = boxOf(tool.positions)
  return ranges.flatMap(([from, to]) => {
    if (to <= z0 + TOLERANCE.height || from >= z1 - TOLERANCE.height) return []
    const below =
      to < z1 - TOLERANCE.height ? intersect(tool, halfSpace(level(to), tool, true, faceName(id, 'over'))) : tool
    return [
      from > z0 + TOLERANCE.height
        ? intersect(below, halfSpace(level(from), below, false, faceName(id, 'under')))
        : below,
    ]
  })
}

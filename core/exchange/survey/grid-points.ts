import { MOST_POINTS, refuse } from '../../project'
import type { Vec3 } from '../../solid'
import { READ_LIMITS, tooMany } from '../limits'

/** A grid of heights. `place`: where the value of column i and row j stands; `at`: the height of a cell, NaN where there is none, m. */
export interface Grid {
  nx: number
  ny: number
  place(i: number, j: number): [number, number]
  at(cell: number): number
}

/** Heights of a grid as points; every second or third cell where there are too many, which is added to the remarks. Errors: 'file'. */
export function gridPoints(grid: Grid, name: string, remarks: string[]): Vec3[] {
  if (grid.nx * grid.ny > READ_LIMITS.cells) tooMany('cells', name)
  const step = Math.ceil(Math.sqrt((grid.nx * grid.ny) / (MOST_POINTS / 4)))
  if (step > 1) remarks.push(`Every ${step}. cell of the grid was taken.`)
  const out: Vec3[] = []
  for (let j = 0; j < grid.ny; j += step)
    for (let i = 0; i < grid.nx; i += step) {
      const z = grid.at(j * grid.nx + i)
      if (Number.isFinite(z) && z > -1e5) out.push([...grid.place(i, j), z])
    }
  return out.length ? out : refuse('file', `The grid "${name}" has no heights.`, 'Choose one that covers the site.')
}

import { difference, EndType, FillRule, inflatePaths, JoinType, type Path64, type Paths64 } from 'clipper2-ts'
import { TOLERANCE } from '../values'
import type { Vec2 } from './place'
import type { Region } from './rect'
import { straightened } from './region'
import { loopArea } from './solid'

/** parts of a metre that coordinates are rounded to */
const GRID = 1e8

/**
 * A region (m) without others, in plain JavaScript: for what must be known where no geometry kernel runs. Loops wind once round what they
 * enclose: outer ones counter-clockwise, holes clockwise.
 */
export function lessRegions(region: Region, others: readonly Region[]): Region {
  const grid = gridAt(region[0]?.[0])
  return grid.back(
    difference(
      region.map(grid.path),
      others.flatMap((r) => r.map(grid.path)),
      FillRule.NonZero,
    ),
  )
}

/** A closed line (m, counter-clockwise) set in by a distance, square to its sides, with its corners in their mitres; empty where nothing is left. */
export function insetLoop(loop: readonly Vec2[], by: number): Region {
  const grid = gridAt(loop[0])
  return grid.back(inflatePaths([grid.path(loop)], -by * GRID, JoinType.Miter, EndType.Polygon, LONGEST_MITRE))
}
/** of the distance: how far a mitre reaches at most */
const LONGEST_MITRE = 20

/** The integer grid about a point. */
function gridAt(at: Vec2 | undefined): { path(loop: readonly Vec2[]): Path64; back(paths: Paths64): Region } {
  const [ox, oy] = (at ?? [0, 0]).map(Math.round) as Vec2
  return {
    path: (loop) => loop.map(([x, y]) => ({ x: Math.round((x - ox) * GRID), y: Math.round((y - oy) * GRID) })),
    back: (paths) =>
      paths
        .map((loop) => straightened(loop.map(({ x, y }): Vec2 => [x / GRID + ox, y / GRID + oy])))
        .filter((loop) => loop.length >= 3 && Math.abs(loopArea(loop)) > TOLERANCE.area),
  }
}

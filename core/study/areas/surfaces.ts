import type { MassForm } from '../../form'
import { groupsThatMeet, outerSurface, placeSolid, TOLERANCE } from '../../solid'
import { givesFloor } from '../special'
import type { Study } from '../types'
import { shareBelow } from './below-ground'

/** The eight ways that a facade can look, from true north on, clockwise. */
export const WAYS = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'] as const
export type Way = (typeof WAYS)[number]

/** The outer surface of what stands, m2. */
export interface SurfaceFigures {
  /** all of it, foot and roofs too */
  outer: number
  /** 1/m: outer surface over volume; null where there is no volume */
  compact: number | null
  /** wall-like surface by the way it looks */
  facades: Record<Way, number>
  /** what of the facades lies below the ground: the terrain, or the datum while there is none */
  below: Record<Way, number>
  /** what looks up, and is no wall */
  roofs: number
}

/** The outer surface of a scheme, what masses cover of one another left out, by the ways it looks. */
export function surfacesOf({ project, scheme, forms, context, totals, ground }: Study): SurfaceFigures {
  const built = forms.filter((f) => !scheme.masses[f.id]?.projecting && givesFloor(scheme, f))
  const groups = groupsThatMeet(
    built,
    (f) => f.rect,
    // What stands on another covers its roof.
    (a, b) => a.base < b.top + TOLERANCE.touch && b.base < a.top + TOLERANCE.touch,
  )
  const steep = Math.sin((project.wallLike * Math.PI) / 180)
  const north = (project.location.trueNorth * Math.PI) / 180
  const none = () => Object.fromEntries(WAYS.map((w) => [w, 0])) as Record<Way, number>
  const [facades, below] = [none(), none()]
  let [outer, roofs] = [0, 0]
  for (const group of groups) {
    const [first] = group
    if (!first) continue
    const bits = context.memo.keep(first, 'outer surface', group, () => bitsOf(group))
    const { x, y, z } = first.at
    const under = (px: number, py: number) => (ground.height(px + x, py + y) ?? 0) - z
    for (const { normal, area, corners, round } of bits) {
      const whole = area * (round?.stretch ?? 1)
      outer += whole
      if (Math.abs(normal[2]) > steep) {
        if (normal[2] > 0) roofs += area
        continue
      }
      const sunk = whole * shareBelow(corners, under, ground.tin === null)
      for (const [way, share] of waysOf(Math.atan2(normal[0], normal[1]) - north, round?.angle ?? 0)) {
        facades[way] += whole * share
        below[way] += sunk * share
      }
    }
  }
  return { outer, roofs, facades, below, compact: totals.volume > 0 ? outer / totals.volume : null }
}

/** The ways that a bearing (radians) looks, with the share of each: a facet of an arc looks as the arc that it stands for. */
function waysOf(bearing: number, angle: number): [Way, number][] {
  const eighth = Math.PI / 4
  const wayAt = (k: number) => WAYS[((k % 8) + 8) % 8] as Way
  const [from, to] = [(bearing - angle / 2) / eighth + 0.5, (bearing + angle / 2) / eighth + 0.5]
  if (angle === 0) return [[wayAt(Math.floor(from + TOLERANCE.rounding)), 1]]
  return Array.from({ length: Math.floor(to) - Math.floor(from) + 1 }, (_, i): [Way, number] => {
    const k = Math.floor(from) + i
    return [wayAt(k), (Math.min(to, k + 1) - Math.max(from, k)) / (to - from)]
  })
}

/** The outer surface of masses that may meet, its ways in the world. */
function bitsOf(group: MassForm[]) {
  const { at } = group[0] as MassForm
  const solids = group.map((f) =>
    placeSolid(f.body.solid, { x: f.at.x - at.x, y: f.at.y - at.y, z: f.at.z - at.z, turn: f.at.turn }),
  )
  return outerSurface(solids)
}

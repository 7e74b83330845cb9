import type { MassForm } from '../../form'
import { groupsThatMeet, outerSurface, placeSolid } from '../../solid'
import { givesFloor } from '../special'
import type { Study } from '../types'

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
  /** what looks up, and is no wall */
  roofs: number
}

/** The outer surface of a scheme, what masses cover of one another left out, by the ways it looks. */
export function surfacesOf({ project, scheme, forms, context, totals }: Study): SurfaceFigures {
  const built = forms.filter((f) => !scheme.masses[f.id]?.projecting && givesFloor(scheme, f))
  const groups = groupsThatMeet(
    built,
    (f) => f.rect,
    (a, b) => a.base < b.top && b.base < a.top,
  )
  const steep = Math.sin((project.wallLike * Math.PI) / 180)
  const north = (project.location.trueNorth * Math.PI) / 180
  const facades = Object.fromEntries(WAYS.map((w) => [w, 0])) as Record<Way, number>
  let [outer, roofs] = [0, 0]
  for (const group of groups) {
    const [first] = group
    if (!first) continue
    const bits = context.memo.keep(first, 'outer surface', group, () => bitsOf(group))
    for (const { normal, area } of bits) {
      outer += area
      if (Math.abs(normal[2]) > steep) {
        if (normal[2] > 0) roofs += area
        continue
      }
      const bearing = Math.atan2(normal[0], normal[1]) - north
      const way = WAYS[((Math.round(bearing / (Math.PI / 4)) % 8) + 8) % 8] as Way
      facades[way] += area
    }
  }
  return { outer, roofs, facades, compact: totals.volume > 0 ? outer / totals.volume : null }
}

/** The outer surface of masses that may meet, its ways in the world. */
function bitsOf(group: MassForm[]) {
  const { at } = group[0] as MassForm
  const solids = group.map((f) =>
    placeSolid(f.body.solid, { x: f.at.x - at.x, y: f.at.y - at.y, z: f.at.z - at.z, turn: f.at.turn }),
  )
  return outerSurface(solids)
}

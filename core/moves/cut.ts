import {
  boxOf,
  dotOf,
  faceName,
  intersect,
  halfSpace,
  rectOf,
  subtract,
  TOLERANCE,
  type Plane,
  type Solid,
  type Vec3,
} from '../solid'
import { refuse, type Num } from '../values'
import { clipped } from './clipped'
import { moveKind } from './define'
import { angle, direction, length } from './fields'
import type { BodyForm, MoveBase } from './kind'

export interface CutMove extends MoveBase {
  move: 'cut'
  /** a point of the line that the plane goes through, in the mass's own frame, m; its height counts from the mass's base */
  x: Num
  y: Num
  z: Num
  /** degrees: where the line runs to, from the mass's x axis */
  direction: Num
  /** degrees by which the plane rises to the left of the line: 0 is level, 90 upright */
  rises: Num
  /** what lies below the plane stays, or what lies above it; of an upright one, what lies to the left of the line, or to its right */
  keeps: 'below' | 'above'
}

/** Cuts a body by a plane through a level line, and throws one side away. The new face is <id>/cut; what is left keeps its names. */
export const cut = moveKind<CutMove>({
  move: 'cut',
  called: 'a cut',
  group: 'shape',
  takes: 'body',
  gives: 'body',
  placed: true,
  spans: true,
  fields: {
    x: length('line through x', { hint: 'In the mass\u2019s own frame, from its place.' }),
    y: length('y'),
    z: length('at height', { hint: 'Above its base.' }),
    direction: direction('line runs to', 'mass'),
    rises: angle('rises to the left by', { from: -90, to: 90, hint: '0 is level, 90 upright.' }),
    keeps: {
      is: 'choice',
      label: 'keep',
      options: [
        { value: 'below', label: 'below it, or to the left' },
        { value: 'above', label: 'above it, or to the right' },
      ],
    },
  },
  // An upright cut across the middle, square to the x axis: both sides of it are there to be kept.
  starts: ({ plan }) => {
    const { x0, x1, y0 } = plan.length ? rectOf(plan.map((l) => l.points)) : { x0: 0, x1: 0, y0: 0 }
    const round = (z: number) => Math.round(z * 100) / 100
    return { x: round((x0 + x1) / 2), y: round(y0), z: 0, direction: 90, rises: 90, keeps: 'below' }
  },
  build: (form, m, { numbers, name, ranges }) => {
    const { solid, anchor } = form as BodyForm
    const plane = planeOfCut({
      at: [numbers.length(m.x) - anchor[0], numbers.length(m.y) - anchor[1], numbers.length(m.z)],
      direction: numbers.angle(m.direction),
      rises: numbers.angle(m.rises),
    })
    const { least, most } = reachAlong(solid, plane.n)
    const isBelow = m.keeps === 'below'
    // It touches the body, or misses it: all of it stays, or nothing.
    if (isBelow ? plane.d >= most - TOLERANCE.height : plane.d <= least + TOLERANCE.height) return form
    if (ranges === null && (isBelow ? plane.d <= least + TOLERANCE.height : plane.d >= most - TOLERANCE.height))
      refuse('geometry', `The cut leaves nothing of "${name}".`, 'Move its line, or keep the other side.')
    const face = faceName(m.id, 'cut')
    // On part of its heights, what lies beyond the plane there is taken off.
    const left =
      ranges === null
        ? intersect(solid, halfSpace(plane, solid, isBelow, face))
        : clipped(halfSpace(plane, solid, !isBelow, face), ranges, m.id).reduce(subtract, solid)
    const { z1 } = boxOf(left.positions)
    return {
      ...form,
      carried: null,
      solid: left,
      ridge: form.ridge !== null && z1 < form.ridge - TOLERANCE.height ? null : form.ridge,
    }
  },
})

/** The plane of a cut: its normal looks up, or to the right of the line of an upright one. Lengths in m, angles in degrees. */
export function planeOfCut(cut: { at: Vec3; direction: number; rises: number }): Plane {
  const [d, a] = [(cut.direction * Math.PI) / 180, (cut.rises * Math.PI) / 180]
  const n: Vec3 = [Math.sin(d) * Math.sin(a), -Math.cos(d) * Math.sin(a), Math.cos(a)].map((c) =>
    Math.abs(c) < TOLERANCE.zero ? 0 : c,
  ) as Vec3
  return { n, d: dotOf(n, cut.at) }
}

/** How far a body reaches along a direction, m. */
function reachAlong({ positions: p }: Solid, n: Vec3): { least: number; most: number } {
  let [least, most] = [Infinity, -Infinity]
  for (let i = 0; i < p.length; i += 3) {
    const off = n[0] * (p[i] as number) + n[1] * (p[i + 1] as number) + n[2] * (p[i + 2] as number)
    if (off < least) least = off
    if (off > most) most = off
  }
  return { least, most }
}

import * as v from 'valibot'
import {
  boxOf,
  crossOf,
  dotOf,
  faceName,
  intersect,
  prism,
  TOLERANCE,
  type Plane,
  type Solid,
  type Vec2,
  type Vec3,
} from '../solid'
import { IdSchema, NumSchema, refuse, type Num } from '../values'
import type { BodyForm, MoveBase, MoveKind } from './kind'

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
export const cut: MoveKind<CutMove> = {
  move: 'cut',
  called: 'a cut',
  takes: 'body',
  gives: 'body',
  schema: () =>
    v.strictObject({
      id: IdSchema,
      on: v.boolean(),
      move: v.literal('cut'),
      x: NumSchema,
      y: NumSchema,
      z: NumSchema,
      direction: NumSchema,
      rises: NumSchema,
      keeps: v.picklist(['below', 'above']),
    }),
  numbers: (m) => [
    [m.x, 'length'],
    [m.y, 'length'],
    [m.z, 'length'],
    [m.direction, 'angle'],
    [m.rises, 'angle'],
  ],
  inner: () => null,
  check: (m, { name, numbers }) => {
    const rises = numbers.angle(m.rises)
    if (!(rises >= -90 && rises <= 90))
      refuse(
        'size',
        `The plane that cuts "${name}" rises by ${rises} degrees.`,
        'Type an angle from -90 to 90: 0 is level, 90 upright.',
      )
  },
  build: (form, m, { numbers, name }) => {
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
    if (isBelow ? plane.d <= least + TOLERANCE.height : plane.d >= most - TOLERANCE.height)
      refuse('geometry', `The cut leaves nothing of "${name}".`, 'Move its line, or keep the other side.')
    const left = intersect(solid, halfSpace(plane, solid, isBelow, m.id))
    const { z1 } = boxOf(left.positions)
    return {
      ...form,
      carried: null,
      solid: left,
      ridge: form.ridge !== null && z1 < form.ridge - TOLERANCE.height ? null : form.ridge,
    }
  },
}

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

/** A block on one side of a plane that holds all of a body there, and more. */
function halfSpace({ n, d }: Plane, solid: Solid, isBelow: boolean, id: string): Solid {
  const box = boxOf(solid.positions)
  const middle: Vec3 = [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2, (box.z0 + box.z1) / 2]
  const reach = Math.hypot(box.x1 - box.x0, box.y1 - box.y0, box.z1 - box.z0) + 1
  const off = dotOf(n, middle) - d
  const foot: Vec3 = [middle[0] - off * n[0], middle[1] - off * n[1], middle[2] - off * n[2]]
  const aside: Vec3 = Math.abs(n[2]) > 0.9 ? [1, 0, 0] : [0, 0, 1]
  const across = crossOf(aside, n)
  const l = Math.hypot(...across)
  const u: Vec3 = [across[0] / l, across[1] / l, across[2] / l]
  const w = crossOf(n, u)
  const square: Vec2[] = [
    [-reach, -reach],
    [reach, -reach],
    [reach, reach],
    [-reach, reach],
  ]
  const [cutFace, end] = [faceName(id, 'cut'), faceName(id, 'end')]
  const depth = reach + Math.abs(off)
  const block = isBelow
    ? prism(square, [end, end, end, end], -depth, 0, end, cutFace)
    : prism(square, [end, end, end, end], 0, depth, cutFace, end)
  const turned = (p: ArrayLike<number>, i: number): Vec3 =>
    [0, 1, 2].map(
      (k) =>
        (p[i] as number) * (u[k] as number) +
        (p[i + 1] as number) * (w[k] as number) +
        (p[i + 2] as number) * (n[k] as number),
    ) as Vec3
  const positions = new Float64Array(block.positions.length)
  for (let i = 0; i < positions.length; i += 3) {
    const p = turned(block.positions, i)
    positions.set([p[0] + foot[0], p[1] + foot[1], p[2] + foot[2]], i)
  }
  return {
    ...block,
    positions,
    facets: block.facets.map((f) => {
      // The cut itself lies on the very plane that was asked for.
      const normal: Vec3 = f.name === cutFace ? (isBelow ? n : [-n[0], -n[1], -n[2]]) : turned(f.plane.n, 0)
      return {
        name: f.name,
        plane: { n: normal, d: f.name === cutFace ? (isBelow ? d : -d) : f.plane.d + dotOf(normal, foot) },
      }
    }),
  }
}

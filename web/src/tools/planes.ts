import { levelHeights } from '@geotome/core/levels'
import type { UprightPlane } from '@geotome/core/form'
import type { Frame, Vec2, Vec3 } from '@geotome/core/solid'
import type { CatchEdge } from './catching'
import type { DrawnOn, Taken, World } from './kind'

/** A level plane at a height, m: its axes are those of the world. */
export const levelPlane = (z: number): Frame => ({ origin: [0, 0, z], u: [1, 0, 0], v: [0, 1, 0], w: [0, 0, 1] })

/** The frame of an upright plane: along it, up, and towards whoever stands at its right-hand side. */
export function uprightFrame({ at, direction, foot }: UprightPlane): Frame {
  const [c, s] = [Math.cos((direction * Math.PI) / 180), Math.sin((direction * Math.PI) / 180)]
  return { origin: [at[0], at[1], foot], u: [c, s, 0], v: [0, 0, 1], w: [s, -c, 0] }
}

/** A point of a plane, by the axes of its frame, in the world. */
export const pointIn = ({ origin, u, v }: Frame, [x, y]: Vec2): Vec3 =>
  [0, 1, 2].map((k) => (origin[k] as number) + (u[k] as number) * x + (v[k] as number) * y) as Vec3

/** What the pointer can catch in the plane that a tool draws on. */
export function edgesIn({ on }: Taken, world: World): CatchEdge[] {
  if (!on) return world.edges
  if (on.kind === 'face')
    return on.region.flatMap((l) => l.map((a, i): CatchEdge => ({ kind: 'side', a, b: l[(i + 1) % l.length] ?? a })))
  return levelHeights(world.project, world.scheme).map(({ height, name }): CatchEdge => {
    const z = height - on.plane.foot
    return { kind: 'side', a: [-FAR, z], b: [FAR, z], word: `at ${name}` }
  })
}

/** m that the line of a level runs to either side on an upright plane */
const FAR = 1000

/** What the two axes are called: in the fields of the first corner, and behind "along". */
export const axesOn = (on: DrawnOn | undefined): readonly [string, string] => (on ? ['along', 'up'] : ['east', 'north'])

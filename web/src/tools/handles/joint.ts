import { moveJoint } from '@geotome/core/form'
import { showQuantity } from '@geotome/core/project'
import type { Vec2, Vec3 } from '@geotome/core/solid'
import { atHeight, metresAlong, pixelsOf, toPane } from '../../stage/camera'
import { cornersOf, endsOf } from '../../stage/spots'
import type { MassHandle, OnMass } from './kind'
import { byStride } from './standing'

const UP: Vec3 = [0, 0, 1]

/** The middle of the picked edge, or the picked corner, m from the view's origin. */
const middleOf = ({ spots, shown }: OnMass): Vec3 | null => {
  const [only, more] = spots
  if (!only || more || only.kind === 'face') return null
  const ends = endsOf(cornersOf(shown, only))
  if (ends.length === 0) return null
  return [0, 1, 2].map((k) => ends.reduce((sum, p) => sum + (p[k] as number) / ends.length, 0)) as Vec3
}

/** A picked edge or corner is moved in plan by its dot, and up or down by its arrow. */
export const joint: MassHandle = {
  name: 'joint',
  help: ['drag a picked edge or corner', 'moves it in plan by its dot, up by its arrow'],
  spots: (on) => {
    const middle = middleOf(on)
    if (!middle) return []
    const at = toPane(on.view, on.size, middle)
    const [, y] = pixelsOf(on.view, UP)
    return [
      { key: 'joint', at, glyph: 'dot' },
      ...(Math.abs(y) > 0.15 * on.view.scale
        ? [{ key: 'joint up', at: [at[0], at[1] - 9] as Vec2, glyph: 'arrow' as const, toward: [0, -30] as Vec2 }]
        : []),
    ]
  },
  begin: (on, spot, from) => {
    const middle = middleOf(on)
    const { project } = on.world
    const { length } = project.stride
    const made = crypto.randomUUID()
    const faces = on.spots[0]?.faces ?? []
    return {
      label: `shift ${on.mass.name}`,
      slack: 3,
      answer: ({ at }) => {
        if (!middle) return null
        const by = spot === 1 ? upBy(on, from, at, length) : asideBy(on, middle, from, at, length)
        if (by.every((d) => d === 0)) return null
        return {
          say: [saidOf(by, (d) => showQuantity(d, 'length', project))],
          edit: (now) => moveJoint(now.project, now.scheme, () => made, on.mass.id, faces, by),
        }
      },
    }
  },
}

const AXES = ['east', 'north', 'up'] as const

/** A way in words: "east 0.40 m, up 1.20 m". */
export const saidOf = (by: Vec3, length: (d: number) => string): string =>
  by.flatMap((d, k) => (d ? [`${AXES[k]} ${length(d)}`] : [])).join(', ')

const upBy = ({ view }: OnMass, from: Vec2, to: Vec2, stride: number): Vec3 => [
  0,
  0,
  byStride(metresAlong(view, UP, [to[0] - from[0], to[1] - from[1]]), stride),
]

/** m in plan that the pointer leads a point by, at that point's height. */
export function asideBy(on: OnMass, middle: Vec3, from: Vec2, to: Vec2, stride: number): Vec3 {
  const point = (p: Vec2) => atHeight(on.view, on.size, [p[0] - on.corner[0], p[1] - on.corner[1]], middle[2])
  const [a, b] = [point(from), point(to)]
  return [byStride(b[0] - a[0], stride), byStride(b[1] - a[1], stride), 0]
}

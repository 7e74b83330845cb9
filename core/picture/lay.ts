import { TOLERANCE, type Vec2, type Vec3 } from '../solid'
import { refuse, type Numbers } from '../values'
import { fromPixel, scalingOf, toPixel } from './calibrate'
import { circleThrough, pointsOf } from './measure'
import type { Anchor, KeptMeasure, Picture, Stand } from './schema'

/** What a laid picture needs of the model: heights of levels, and places of masses; null where such a thing is not there. */
export interface Model {
  numbers: Numbers
  pictures: Record<string, Picture>
  measures: Record<string, KeptMeasure>
  height(level: string): number | null
  mass(id: string): { centre: Vec2; corners: Vec2[]; base: number } | null
}

/** The plane that a picture is laid in: where its upper left pixel is in the world, and the world's directions of right and up in it (unit length). */
export interface Laid {
  stand: Stand
  corner: Vec3
  right: Vec3
  up: Vec3
  /** m, of the whole picture's four corners from the upper left one, clockwise */ corners: Vec3[]
  /** as `corners`, of what the crop leaves */ shown: Vec3[]
  /** picture coordinates (0 to 1, down) of what the crop leaves */ part: [number, number, number, number]
}

/** Directions in an upright plane that faces a viewer at an azimuth (degrees): right is to his right. */
export function uprightAxes(azimuth: number): { right: Vec3; up: Vec3; toward: Vec3 } {
  const a = (azimuth * Math.PI) / 180
  const [c, s] = [
    Math.abs(Math.cos(a)) < TOLERANCE.zero ? 0 : Math.cos(a),
    Math.abs(Math.sin(a)) < TOLERANCE.zero ? 0 : Math.sin(a),
  ]
  return { right: [-s, c, 0], up: [0, 0, 1], toward: [c, s, 0] }
}

/** How a picture is laid at one of its stands. */
export function lay(picture: Picture, stand: Stand, model: Model, seen = new Set<string>()): Laid {
  const scaling = scalingOf(picture, model.numbers)
  const pin = anchorAt(picture.pin.to, model, new Set([...seen, picture.id]))
  const [pu, pw] = fromPixel(scaling, picture.pin.px)
  const { lies } = stand
  const frame =
    lies.kind === 'plan'
      ? {
          right: [1, 0, 0] as Vec3,
          up: [0, 1, 0] as Vec3,
          at: [pin[0], pin[1], (lies.level ? model.height(lies.level) : null) ?? 0] as Vec3,
        }
      : (() => {
          const { right, up, toward } = uprightAxes(model.numbers.angle(lies.azimuth))
          const by = model.numbers.length(lies.toward)
          return { right, up, at: [pin[0] + by * toward[0], pin[1] + by * toward[1], pin[2]] as Vec3 }
        })()
  const rise = lies.kind === 'plan' ? model.numbers.length(lies.above) : 0
  const at = (u: number, w: number): Vec3 =>
    [0, 1, 2].map(
      (k) =>
        (frame.at[k] ?? 0) + (u - pu) * (frame.right[k] ?? 0) + (w - pw) * (frame.up[k] ?? 0) + (k === 2 ? rise : 0),
    ) as Vec3
  const quad = (x0: number, y0: number, x1: number, y1: number) =>
    (
      [
        [x0, y0],
        [x1, y0],
        [x1, y1],
        [x0, y1],
      ] as Vec2[]
    ).map((px) => at(...fromPixel(scaling, px)))
  const { width, height, crop } = picture
  const c: [number, number, number, number] = crop ?? [0, 0, width, height]
  return {
    stand,
    corner: at(0, 0),
    right: frame.right,
    up: frame.up,
    corners: quad(0, 0, width, height),
    shown: quad(...c),
    part: [c[0] / width, c[1] / height, c[2] / width, c[3] / height],
  }
}

/** The world point that an anchor stands for, m. Errors: 'unknown-id', 'formula-circle'. */
export function anchorAt(anchor: Anchor, model: Model, seen = new Set<string>()): Vec3 {
  switch (anchor.kind) {
    case 'point':
      return [model.numbers.length(anchor.x), model.numbers.length(anchor.y), model.numbers.length(anchor.z)]
    case 'centre':
    case 'corner': {
      const mass = model.mass(anchor.mass)
      // A mass that is gone leaves the picture where zero is, rather than nowhere.
      if (!mass) return [0, 0, 0]
      const at =
        anchor.kind === 'centre'
          ? mass.centre
          : (mass.corners[anchor.corner % Math.max(1, mass.corners.length)] ?? mass.centre)
      return [at[0], at[1], mass.base]
    }
    case 'axis': {
      const measure = model.measures[anchor.measure]
      const picture = measure?.picture ? model.pictures[measure.picture] : undefined
      if (!measure || measure.kind !== 'radius') return [0, 0, 0]
      const { centre } = circleThrough(
        ...(pointsOf(measure, model.pictures, model.numbers) as [Vec3, Vec3, Vec3]),
        measure.name,
      )
      if (!picture) return centre
      if (seen.has(picture.id))
        refuse(
          'formula-circle',
          `The pictures are tied to each other in a circle, by way of "${picture.name}".`,
          'Tie one of them to a point.',
        )
      const stand = picture.stands[0]
      if (!stand) return [centre[0], 0, centre[2]]
      return worldOf(
        lay(picture, stand, model, seen),
        scalingOf(picture, model.numbers),
        toPixel(scalingOf(picture, model.numbers), [centre[0], centre[2]]),
      )
    }
  }
}

/** The world point of a pixel of a laid picture. */
export function worldOf(laid: Laid, scaling: ReturnType<typeof scalingOf>, px: readonly number[]): Vec3 {
  const [u, w] = fromPixel(scaling, px)
  return [0, 1, 2].map((k) => (laid.corner[k] ?? 0) + u * (laid.right[k] ?? 0) + w * (laid.up[k] ?? 0)) as Vec3
}

/** The pixel under a world point, seen at a right angle to the picture's plane. */
export function pixelOf(laid: Laid, scaling: ReturnType<typeof scalingOf>, p: Vec3): Vec2 {
  const d = [p[0] - laid.corner[0], p[1] - laid.corner[1], p[2] - laid.corner[2]] as const
  const along = (axis: Vec3) => d[0] * axis[0] + d[1] * axis[1] + d[2] * axis[2]
  return toPixel(scaling, [along(laid.right), along(laid.up)])
}

import { crossOf as cross, dotOf as dot, lessOf as less, type Vec3, TOLERANCE } from '../solid'
import { refuse, type Numbers } from '../values'
import { fromPixel, scalingOf } from './calibrate'
import { MEASURES, type KeptMeasure, type Picture } from './schema'

/** The value of a measure in m, m2 or degrees: on a picture by its calibration, on the model by world points. Errors: 'geometry', 'unknown-id'. */
export function measured(measure: KeptMeasure, pictures: Record<string, Picture>, numbers: Numbers): number {
  return valueOf(measure.kind, pointsOf(measure, pictures, numbers), measure.name)
}

/** The points of a measure in metres: in the picture's plane (right, up, 0), or in the world. */
export function pointsOf(
  measure: Pick<KeptMeasure, 'picture' | 'points' | 'name'>,
  pictures: Record<string, Picture>,
  numbers: Numbers,
): Vec3[] {
  if (measure.picture === null) return measure.points.map(([x = 0, y = 0, z = 0]): Vec3 => [x, y, z])
  const picture =
    pictures[measure.picture] ??
    refuse(
      'unknown-id',
      `The picture of "${measure.name}" is not there.`,
      'Remove the measure, or bring the picture back.',
    )
  const scaling = scalingOf(picture, numbers)
  // Seen upright: right is x, up is z.
  return measure.points.map((p): Vec3 => {
    const [u, w] = fromPixel(scaling, p)
    return [u, 0, w]
  })
}

/** What points measure. On a picture the rise is up; in the world it is along z: both keep it in the third coordinate. */
export function valueOf(kind: KeptMeasure['kind'], points: Vec3[], name = 'The measure'): number {
  const [least, most] = MEASURES[kind].points
  if (points.length < least || points.length > most)
    refuse(
      'geometry',
      `${name} has ${points.length} points.`,
      least === most ? `It takes ${least}.` : `It takes at least ${least}.`,
    )
  const [a, b, c] = points as [Vec3, Vec3, Vec3]
  switch (kind) {
    case 'distance':
      return length(less(b, a))
    case 'rise':
      return b[2] - a[2]
    case 'angle': {
      const [p, q] = [less(a, b), less(c, b)]
      if (length(p) < TOLERANCE.rounding || length(q) < TOLERANCE.rounding)
        refuse(
          'geometry',
          `${name} has two points at one place.`,
          'Pick the end of one leg, the corner, and the end of the other leg.',
        )
      return (Math.atan2(length(cross(p, q)), dot(p, q)) * 180) / Math.PI
    }
    case 'radius':
      return circleThrough(a, b, c, name).r
    case 'area':
      return length(
        points.slice(1, -1).reduce<Vec3>(
          (sum, p, i) => {
            const n = cross(less(p, a), less(points[i + 2] as Vec3, a))
            return [sum[0] + n[0] / 2, sum[1] + n[1] / 2, sum[2] + n[2] / 2]
          },
          [0, 0, 0],
        ),
      )
  }
}

/** The circle through three points. Errors: 'geometry' where they lie in a line. */
export function circleThrough(a: Vec3, b: Vec3, c: Vec3, name = 'The circle'): { centre: Vec3; r: number } {
  const [p, q] = [less(b, a), less(c, a)]
  const n = cross(p, q)
  const nn = dot(n, n)
  if (nn < TOLERANCE.rounding ** 2 * dot(p, p) * dot(q, q) || nn === 0)
    refuse('geometry', `${name} has three points in a line.`, 'Pick three points that lie apart on the curve.')
  const m = cross(n, p)
  const k = cross(q, n)
  const [dp, dq] = [dot(p, p), dot(q, q)]
  const centre: Vec3 = [
    a[0] + (dq * m[0] + dp * k[0]) / (2 * nn),
    a[1] + (dq * m[1] + dp * k[1]) / (2 * nn),
    a[2] + (dq * m[2] + dp * k[2]) / (2 * nn),
  ]
  return { centre, r: length(less(centre, a)) }
}

const length = (a: Vec3): number => Math.sqrt(dot(a, a))

import {
  inOrder,
  MEASURES,
  namesOf,
  nextOrder,
  numberedName,
  numbersOf,
  pointsOf,
  Refusal,
  valueOf,
  type MeasureKind,
} from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { labelled, type BenchAnswer, type BenchWorld, type Picking, type Task } from './kind'

export interface Measuring extends Picking {
  kind: MeasureKind
  /** a radius by centre and rim, not by three points */
  fromCentre: boolean
}

const WANTS: Record<MeasureKind, string> = {
  distance: 'Click two points',
  rise: 'Click the lower, then the higher point',
  angle: 'Click the end of a leg, the corner, the end of the other leg',
  radius: 'Click three points on the circle',
  area: 'Click the corners in turn, Enter keeps it',
}

/** Lengths, heights, angles, radii and areas on a picture; each is kept under a name that every field takes. */
export const measureTask: Task<Measuring> = {
  name: 'measure',
  label: 'Measure',
  begin: () => ({ points: [], kind: 'distance', fromCentre: false }),
  answer: (s, event, world) => {
    switch (event.kind) {
      case 'pick': {
        const centre = s.points[0]
        if (isRound(s) && centre) return kept(s, aroundCentre(centre, event.at), world)
        const all = [...s.points, event.at]
        return s.kind !== 'area' && all.length === MEASURES[s.kind].points[1]
          ? kept(s, all, world)
          : { state: { ...s, points: all } }
      }
      case 'accept':
        return isComplete(s) ? kept(s, s.points, world) : { state: s }
      case 'change':
        return { state: { ...s, points: [], ...event.set } }
      case 'key':
        return null
    }
  },
  hint: (s, { picture }) =>
    `${picture.pairs.length === 0 ? 'The picture is not calibrated: what is measured means nothing yet. ' : ''}${
      isRound(s) ? 'Click the centre of the circle, then a point on it' : WANTS[s.kind]
    }. Escape goes back`,
  lines: (_, { project, picture }) =>
    inOrder(project.measures)
      .filter((m) => m.picture === picture.id)
      .map((m) => ({
        points: m.points.map(([x = 0, y = 0]): Vec2 => [x, y]),
        closed: m.kind === 'area',
        tone: 'kept',
        label: m.name,
      })),
}

const isRound = (s: Measuring) => s.kind === 'radius' && s.fromCentre
/** Returns true when the points picked so far are a measure. */
export const isComplete = ({ kind, points }: Measuring): boolean =>
  points.length >= MEASURES[kind].points[0] && points.length <= MEASURES[kind].points[1]

/** What the points picked so far measure; null while they measure nothing. */
export function measuredOf(s: Measuring, world: BenchWorld): number | null {
  if (s.points.length < MEASURES[s.kind].points[0]) return null
  try {
    return valueAt(s.kind, s.points, world)
  } catch (e) {
    if (e instanceof Refusal) return null
    throw e
  }
}

const valueAt = (kind: MeasureKind, points: Vec2[], { project, picture }: BenchWorld) =>
  valueOf(
    kind,
    pointsOf({ name: 'The measure', picture: picture.id, points }, project.pictures, numbersOf(project, null)),
  )

/** Keeps a measure; points that give none (three in a line have no circle) are refused, and picked anew. */
function kept(s: Measuring, points: Vec2[], world: BenchWorld): BenchAnswer<Measuring> {
  const state = { ...s, points: [] }
  try {
    valueAt(s.kind, points, world)
  } catch (e) {
    if (e instanceof Refusal) return { state, refused: e.message }
    throw e
  }
  const { project, picture } = world
  const thing = {
    id: world.mint(),
    name: numberedName(s.kind, namesOf(project.measures), 1, '_'),
    order: nextOrder(project.measures),
    kind: s.kind,
    picture: picture.id,
    points,
    same: null,
  }
  const edit = () => ({ edit: 'measure.add' as const, thing })
  return { state, made: { label: labelled(`measure ${s.kind} on`, picture), edit, then: state } }
}

/** A circle drawn from its centre, as three points on it. */
const aroundCentre = ([x, y]: Vec2, rim: Vec2): Vec2[] =>
  [0, 1, 2].map((i): Vec2 => {
    const [c, s] = [Math.cos((i * 2 * Math.PI) / 3), Math.sin((i * 2 * Math.PI) / 3)]
    const [dx, dy] = [rim[0] - x, rim[1] - y]
    return [x + c * dx - s * dy, y + s * dx + c * dy]
  })

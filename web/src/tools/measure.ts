import {
  MEASURES,
  namesOf,
  nextOrder,
  numberedName,
  Refusal,
  showQuantity,
  tidy,
  valueOf,
  type MeasureKind,
} from '@geotome/core/project'
import type { Vec3 } from '@geotome/core/solid'
import type { Answer, Mark, Tool, World } from './kind'
import { levelPlane } from './planes'

interface MeasureState {
  kind: MeasureKind
  points: Vec3[]
  next: { point: Vec3; isCorner: boolean } | null
}

const HINTS: Record<MeasureKind, string> = {
  distance: 'Click two points, in any view: corners are caught. Escape goes back',
  rise: 'Click a lower and a higher point: their difference in height is kept',
  angle: 'Click the end of one leg, the corner, and the end of the other leg',
  radius: 'Click three points on the curve',
  area: 'Click the corners in turn, Enter closes',
}

/** Measuring by points picked on the model: corners are caught; a measure with all its points is kept under a name of its own. */
export const measureTool: Tool<MeasureState> = {
  name: 'measure',
  aims: 'space',
  help: [],
  plane: () => levelPlane(0),
  begin: () => ({ kind: 'distance', points: [], next: null }),
  answer: (s, event, world) => {
    switch (event.kind) {
      case 'move':
        return { state: { ...s, next: event.at.spot && { ...event.at.spot, point: tidied(event.at.spot.point) } } }
      case 'press': {
        if (!s.next) return { state: s }
        const all = [...s.points, s.next.point]
        return s.kind !== 'area' && all.length === MEASURES[s.kind].points[1]
          ? kept(s, all, world)
          : { state: { ...s, points: all } }
      }
      case 'accept':
        return s.kind === 'area' && s.points.length >= 3 ? kept(s, s.points, world) : { state: s }
      case 'choose':
        return { state: { ...s, kind: event.choice as MeasureKind, points: [] } }
      case 'back':
        return s.points.length ? { state: { ...s, points: s.points.slice(0, -1) } } : { state: s, end: true }
      case 'type':
      case 'hold':
      case 'size':
        return { state: s }
    }
  },
  hint: (s) => HINTS[s.kind],
  step: (s) => `${s.kind} ${s.points.length}`,
  fields: () => [],
  choices: (s) => ({ label: 'What is measured', options: Object.keys(HINTS), chosen: s.kind, key: null, where: 'bar' }),
  marks: (s, world) => {
    const all = s.next ? [...s.points, s.next.point] : s.points
    const value = all.length >= MEASURES[s.kind].points[0] ? valueSafely(s.kind, all) : null
    const middle = all.reduce<Vec3>(
      (sum, p) => [sum[0] + p[0] / all.length, sum[1] + p[1] / all.length, sum[2] + p[2] / all.length],
      [0, 0, 0],
    )
    const closed = s.kind === 'area' && all.length > 2
    return [
      ...(all.length ? [{ kind: 'path' as const, points: all, closed, filled: false }] : []),
      ...all.map((at): Mark => ({ kind: 'dot', at })),
      ...(value === null
        ? []
        : [
            {
              kind: 'figure' as const,
              at: middle,
              text: showQuantity(value, MEASURES[s.kind].quantity, world.project),
            },
          ]),
      ...(s.next ? [{ kind: 'ring' as const, at: s.next.point, word: s.next.isCorner ? 'corner' : null }] : []),
    ]
  },
}

/** Points are kept to a hundredth of a millimetre. */
const tidied = (p: Vec3): Vec3 => p.map((v) => tidy(Math.round(v * 1e5) / 1e5)) as unknown as Vec3

/** Keeps a measure; points that give none (three in a line have no circle) are refused, and picked anew. */
function kept(s: MeasureState, points: Vec3[], { project, id }: World): Answer<MeasureState> {
  const state = { ...s, points: [] }
  try {
    valueOf(s.kind, points)
  } catch (e) {
    if (e instanceof Refusal) return { state, refused: e.message }
    throw e
  }
  const thing = {
    id: id(0),
    name: numberedName(s.kind, namesOf(project.measures), 1, '_'),
    order: nextOrder(project.measures),
    kind: s.kind,
    picture: null,
    points,
    same: null,
  }
  return { state, made: { label: `measure ${s.kind}`, edit: () => ({ edit: 'measure.add', thing }), then: state } }
}

function valueSafely(kind: MeasureKind, points: Vec3[]): number | null {
  try {
    return valueOf(kind, points)
  } catch (e) {
    if (e instanceof Refusal) return null
    throw e
  }
}

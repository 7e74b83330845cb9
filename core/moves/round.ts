import {
  arcBetween,
  arcPoints,
  gapOf,
  loopArea,
  spanned,
  TOLERANCE,
  wayOf,
  type Arc,
  type Outline,
  type Vec2,
} from '../solid'
import { refuse, type Num } from '../values'
import { moveKind } from './define'
import { length } from './fields'
import type { Form, MoveBase } from './kind'
import { outlineOf } from './outline'

export interface RoundMove extends MoveBase {
  move: 'round'
  as: 'round' | 'chamfer'
  /** m: the radius, or what a chamfer takes off either side */ by: Num
  which: 'all' | 'outer' | 'inner'
}

/**
 * Rounds the corners of the outline between straight sides, or cuts them off. Sides keep their names; what comes at a corner is
 * corner-<edge>, by the side that begins there.
 */
export const round = moveKind<RoundMove>({
  move: 'round',
  called: 'a rounding of corners',
  title: 'round corners',
  group: 'plan',
  takes: 'plan',
  gives: 'plan',
  fields: {
    as: {
      is: 'choice',
      label: 'corners are',
      options: [
        { value: 'round', label: 'rounded' },
        { value: 'chamfer', label: 'cut off' },
      ],
    },
    by: length('by', { from: TOLERANCE.least, hint: 'The radius, or what is cut off either side.' }),
    which: {
      is: 'choice',
      label: 'which',
      options: [
        { value: 'all', label: 'all corners' },
        { value: 'outer', label: 'those that stand out' },
        { value: 'inner', label: 'those that lie in' },
      ],
    },
  },
  starts: ({ plan }) =>
    plan.some((l) => l.arcs.some((a) => a === null)) ? { as: 'round', by: 1, which: 'all' } : null,
  check: (m, { form, numbers, name }) => void rounded(form(), m, numbers.length(m.by), name),
  build: (form, m, { numbers, name }) => rounded(form, m, numbers.length(m.by), name),
})

function rounded(form: Form, m: RoundMove, by: number, name: string): Form {
  return { ...form, outline: outlineOf(form).map((line, l) => roundedLine(line, m, by, name, l === 0 ? 1 : -1)) }
}

/** A closed line with its corners between straight sides rounded; `sense`: 1 for an outer line, -1 for a hole. */
function roundedLine(line: Outline, m: RoundMove, by: number, name: string, sense: 1 | -1): Outline {
  const { points, edges, arcs } = line
  const n = points.length
  const at = (i: number) => points[(i + n) % n] as Vec2
  const cuts = points.map((p, i) => {
    if (arcs[i] || arcs[(i + n - 1) % n]) return 0
    const [u, w] = [wayOf(at(i - 1), p), wayOf(p, at(i + 1))]
    const cross = spanned(u, w)
    if (Math.abs(cross) < TOLERANCE.slope) return 0
    // A hole is run clockwise: its corners that stand out of the body turn left too.
    const isOuter = cross > 0
    if (m.which !== 'all' && (m.which === 'outer') !== isOuter) return 0
    const half = Math.atan2(Math.abs(cross), u[0] * w[0] + u[1] * w[1]) / 2
    return m.as === 'round' ? by * Math.tan(half) : by
  })
  points.forEach((p, i) => {
    if ((cuts[i] as number) + (cuts[(i + 1) % n] as number) > gapOf(p, at(i + 1)) - TOLERANCE.point && !arcs[i])
      refuse('geometry', `A side of "${name}" is too short for corners of ${by} m.`, 'Round them by less.')
  })
  const out: Outline = { points: [], edges: [], arcs: [] }
  const put = (p: Vec2, edge: string, arc: Arc | null) => {
    out.points.push(p)
    out.edges.push(edge)
    out.arcs.push(arc)
  }
  points.forEach((p, i) => {
    const cut = cuts[i] as number
    if (cut === 0) {
      put(p, edges[i] ?? '', arcs[i] ?? null)
      return
    }
    const [u, w] = [wayOf(at(i - 1), p), wayOf(p, at(i + 1))]
    const [a, b]: [Vec2, Vec2] = [
      [p[0] - u[0] * cut, p[1] - u[1] * cut],
      [p[0] + w[0] * cut, p[1] + w[1] * cut],
    ]
    const edge = `corner-${edges[i] ?? ''}`.replaceAll('/', '-')
    const turn = Math.atan2(spanned(u, w), u[0] * w[0] + u[1] * w[1])
    const arc = m.as === 'round' ? arcBetween(a, b, Math.tan(turn / 4)) : null
    if (arc) for (const q of arcPoints(arc).slice(0, -1)) put(q, inLine(edges[i] ?? '', edge), arc)
    else put(a, inLine(edges[i] ?? '', edge), null)
    put(b, edges[i] ?? '', null)
  })
  return Math.sign(loopArea(out.points)) === sense
    ? out
    : refuse(
        'geometry',
        `Rounded by ${by} m, nothing is left of the outline of "${name}".`,
        'Round its corners by less.',
      )
}

/** The name of a corner's edge: one of a hole stays one of the hole. */
const inLine = (beside: string, edge: string): string => {
  const [hole] = beside.split('/')
  return beside.includes('/') ? `${hole}/${edge}` : edge
}

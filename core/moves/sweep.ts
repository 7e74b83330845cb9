import { boxOf, faceName, pathBody, pathCrosses, pathStations, type Outline, type Vec2 } from '../solid'
import { refuse, tidy, type Num, type Numbers } from '../values'
import { moveKind } from './define'
import { profileLine, profileText } from './profile'
import { length } from './fields'
import type { MoveBase } from './kind'
import { checkShape, shifted, singleLine } from './outline'
import type { OutlineShape } from './shapes/list'

/** A corner of a path in plan, m in the mass's frame; `round`: the radius that it is turned with, 0 for a mitre. */
export interface PathPoint {
  id: string
  x: Num
  y: Num
  round: Num
}

export interface SweepMove extends MoveBase {
  move: 'sweep'
  /** m: where the section's own zero lies to the right of the path, and above the mass's base */ across: Num
  up: Num
  section: OutlineShape
  /** the profile that is carried instead, kept by name */ profile?: string | null
  path: PathPoint[]
  ends: 'open' | 'closed'
}

/**
 * Carries an upright section along a path in plan, mitred or turned with a radius at its corners. Faces: <id>/<edge>/<corner> for the
 * section's edge along the path from a corner, <id>/start and <id>/end.
 */
export const sweep = moveKind<SweepMove>({
  move: 'sweep',
  called: 'a section along a path',
  title: 'sweep',
  group: 'shape',
  takes: 'nothing',
  gives: 'body',
  fields: {
    profile: { is: 'profile', label: 'section', otherwise: 'a shape of its own', absent: null },
    section: { is: 'shape', label: 'section', when: (m: SweepMove) => !m.profile },
    across: length('to the right of the path by', { hint: 'Where the section begins, looking along the path.' }),
    up: length('up by'),
    path: {
      is: 'list',
      label: 'path in plan',
      one: 'corner',
      least: 2,
      most: 200,
      item: {
        x: length('x'),
        y: length('y'),
        round: length('turns with a radius of', { from: 0, hint: '0 is a mitre.' }),
      },
      next: (items, { numbers }) => {
        const last = items.at(-1) as unknown as PathPoint
        return { x: tidy(numbers.length(last.x) + 5), y: last.y, round: 0 }
      },
    },
    ends: {
      is: 'choice',
      label: 'path',
      options: [
        { value: 'open', label: 'has two ends' },
        { value: 'closed', label: 'comes back to its beginning' },
      ],
    },
  },
  starts: ({ plan, height }) => {
    const points = plan[0]?.points ?? []
    const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])]
    const [wide, deep] = points.length
      ? [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)]
      : [12, 8]
    return {
      section: { kind: 'rectangle', width: tidy(deep), depth: tidy(height) },
      across: tidy(-deep / 2),
      up: 0,
      path: [
        { id: 'p1', x: 0, y: tidy(deep / 2), round: 0 },
        { id: 'p2', x: tidy(wide), y: tidy(deep / 2), round: 0 },
      ],
      ends: 'open',
    }
  },
  dependsOn: (m, numbers) => profileText(m.profile, numbers),
  check: (m, { name, numbers }) => {
    if (!m.profile) checkShape(m.section, `the section of "${name}"`, numbers)
    if (m.ends === 'closed' && m.path.length < 3)
      refuse(
        'geometry',
        `The path of "${name}" comes back after two corners.`,
        'Give it a third, or let it have two ends.',
      )
    if (
      pathCrosses(
        pathOf(m, numbers).map((c) => c.at),
        m.ends === 'closed',
      )
    )
      refuse('geometry', `The path of "${name}" crosses or touches itself.`, 'Move its corners apart.')
    pathStations(sectionOf(m, numbers), pathOf(m, numbers), m.ends === 'closed')
  },
  build: (form, m, { numbers }) => {
    const solid = made(m, numbers)
    return { ...form, solid, eaves: boxOf(solid.positions).z1 }
  },
})

function pathOf(m: SweepMove, numbers: Numbers): { id: string; at: Vec2; round: number }[] {
  return m.path.map((p) => ({
    id: p.id,
    at: [numbers.length(p.x), numbers.length(p.y)],
    round: numbers.length(p.round),
  }))
}

function sectionOf(m: SweepMove, numbers: Numbers): Outline {
  const line = m.profile ? profileLine(m.profile, numbers) : singleLine(m.section, numbers, 'The section')
  return shifted(line, [numbers.length(m.across), numbers.length(m.up)])
}

function made(m: SweepMove, numbers: Numbers) {
  return pathBody(sectionOf(m, numbers), pathOf(m, numbers), m.ends === 'closed', {
    side: (edge, leg) => faceName(m.id, edge, leg),
    start: faceName(m.id, 'start'),
    end: faceName(m.id, 'end'),
  })
}

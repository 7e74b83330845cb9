import { asOne, boxOf, faceName, pathBody, pathStations, type Outline, type PathCorner, type Solid } from '../solid'
import type { Num, Numbers } from '../values'
import { moveKind } from './define'
import { length } from './fields'
import type { Form, MoveBase } from './kind'
import { checkShape, outlineOf, shifted, singleLine } from './outline'
import { profileLine, profileText } from './profile'
import type { OutlineShape } from './shapes/list'

export interface EdgingMove extends MoveBase {
  move: 'edging'
  /** the profile that goes round, kept by name; null: a shape of its own */ profile: string | null
  section: OutlineShape
  /** m: where the section's own zero lies out from the outline, and above the mass's base */ out: Num
  up: Num
}

/**
 * Lets an upright section go round the outline and its courts, mitred at the corners: x runs out from what the outline
 * encloses, y up. Faces:
 * <id>/<the section's edge>/<the outline's edge>. Errors: those of `pathBody`; 'stale' where the profile is gone.
 */
export const edging = moveKind<EdgingMove>({
  move: 'edging',
  called: 'a profile round the outline',
  group: 'shape',
  takes: 'plan',
  gives: 'body',
  fields: {
    profile: { is: 'profile', label: 'profile', otherwise: 'a shape of its own' },
    section: { is: 'shape', label: 'shape', when: (m: EdgingMove) => m.profile === null },
    out: length('out from the outline by'),
    up: length('up by'),
  },
  starts: ({ plan }) =>
    plan.length ? { profile: null, section: { kind: 'rectangle', width: 0.4, depth: 0.3 }, out: 0, up: 0 } : null,
  dependsOn: (m, numbers) => profileText(m.profile, numbers),
  check: (m, { form, name, numbers }) => {
    if (m.profile === null) checkShape(m.section, `the section of "${name}"`, numbers)
    const section = sectionOf(m, numbers)
    for (const line of outlineOf(form())) pathStations(section, cornersOf(line), true)
  },
  build: (form: Form, m, { numbers }) => {
    const section = sectionOf(m, numbers)
    const round = (line: Outline): Solid =>
      pathBody(section, cornersOf(line), true, {
        side: (edge, side) => faceName(m.id, edge, side),
        start: faceName(m.id, 'start'),
        end: faceName(m.id, 'end'),
      })
    const solid = asOne(outlineOf(form).map(round))
    return { ...form, carried: null, outline: null, solid, eaves: boxOf(solid.positions).z1 }
  },
})

const sectionOf = (m: EdgingMove, numbers: Numbers): Outline =>
  shifted(m.profile === null ? singleLine(m.section, numbers, 'The section') : profileLine(m.profile, numbers), [
    numbers.length(m.out),
    numbers.length(m.up),
  ])

/** The facets of an outline as a path that comes back; those of one arc are one face each time it is carried. */
const cornersOf = ({ points, edges, arcs }: Outline): PathCorner[] =>
  points.map((at, i) => ({ id: edges[i] ?? '', at, round: 0, bent: arcs[i] !== null }))

import { cornersOn, faceLabel, type Vec3 } from '../solid'
import { refuse, type Num } from '../values'
import { moveKind } from './define'
import { length } from './fields'
import type { BodyForm, MoveBase } from './kind'
import { shiftedForm } from './shift-face'

export interface ShiftCornerMove extends MoveBase {
  move: 'shift-corner'
  /** the faces that meet at it, by their names: two for an edge, three for a corner */
  a: string
  b: string
  c: string | null
  /** m along the axes of the mass */
  x: Num
  y: Num
  z: Num
}

/**
 * Moves a corner or an edge of a body, told by the faces that meet there. Faces that do not stay flat are folded; all keep their names.
 * Errors: left out with a sentence, where those faces meet no longer, or are bent there.
 */
export const shiftCorner = moveKind<ShiftCornerMove>({
  move: 'shift-corner',
  called: 'a shift of an edge or a corner',
  title: 'shift an edge or a corner',
  group: 'shape',
  takes: 'body',
  gives: 'body',
  fields: {
    a: { is: 'face', label: 'where face' },
    b: { is: 'face', label: 'meets' },
    c: { is: 'face', label: 'and', otherwise: 'no third: an edge' },
    x: length('along x by'),
    y: length('along y by'),
    z: length('up by'),
  },
  starts: ({ plan, faces }) => {
    const side = plan[0]?.edges[0]
    const [a, b] = [
      faces.find((f) => f.endsWith('/top')),
      faces.find((f) => side !== undefined && f.endsWith(`/${side}`)),
    ]
    return a === undefined || b === undefined ? null : { a, b, c: null, x: 0, y: 0, z: 1 }
  },
  build: (form, m, { numbers, name }) => {
    const { solid } = form as BodyForm
    const by: Vec3 = [numbers.length(m.x), numbers.length(m.y), numbers.length(m.z)]
    const faces = [m.a, m.b, ...(m.c === null ? [] : [m.c])]
    const corners = cornersOn(solid, faces)
    if (corners.length === 0)
      refuse(
        'unknown-id',
        `${faces.map((f) => faceLabel(f)).join(', ')} of "${name}" do not meet.`,
        'Choose faces that have an edge or a corner in common.',
      )
    if (by.every((d) => d === 0)) return form
    return shiftedForm(form as BodyForm, new Map(corners.map((v) => [v, by])), m.id, name, by[0] === 0 && by[1] === 0)
  },
})

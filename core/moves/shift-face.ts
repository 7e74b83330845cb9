import { bodyFault, boxOf, faceMoves, parseFaceName, TOLERANCE, withCornersMoved, type Vec3 } from '../solid'
import { refuse, type Num } from '../values'
import { moveKind } from './define'
import { length } from './fields'
import type { BodyForm, MoveBase, Note } from './kind'
import { flatFrame } from './patch'

export interface ShiftFaceMove extends MoveBase {
  move: 'shift-face'
  /** by its name */ face: string
  /** m out, square to it; below zero in */ out: Num
  /** m within its own plane: to the right and up as seen from outside, on a level one along x and y */
  along: Num
  up: Num
}

/**
 * Moves a flat face of a body: out or in parallel to itself, while the faces beside it keep their planes; and within its plane, where
 * they lean along. All faces keep their names. Errors: left out with a sentence.
 */
export const shiftFace = moveKind<ShiftFaceMove>({
  move: 'shift-face',
  called: 'a shift of a face',
  title: 'shift a face',
  group: 'shape',
  takes: 'body',
  gives: 'body',
  fields: {
    face: { is: 'face', label: 'face' },
    out: length('out by', { hint: 'Square to it; below zero in.' }),
    along: length('to its right by', { hint: 'Within its plane, as seen from outside.' }),
    up: length('upwards by', { hint: 'Within its plane.' }),
  },
  starts: ({ faces }) => (faces[0] === undefined ? null : { face: faces[0], out: 1, along: 0, up: 0 }),
  build: (form, m, { numbers, name }) => {
    const { solid } = form as BodyForm
    const [out, along, up] = [numbers.length(m.out), numbers.length(m.along), numbers.length(m.up)]
    if (out === 0 && along === 0 && up === 0) return form
    const { u, v, w } = flatFrame(solid, m.face, name)
    const moves = faceMoves(solid, m.face, out, name)
    for (const [corner, by] of moves)
      moves.set(
        corner,
        [0, 1, 2].map((k) => (by[k] as number) + (u[k] as number) * along + (v[k] as number) * up) as Vec3,
      )
    const isSide =
      form.outline?.some((l) => l.edges.includes(parseFaceName(m.face).own)) && Math.abs(w[2]) < TOLERANCE.slope
    const isLevel = along === 0 && up === 0 && !isSide
    return shiftedForm(form as BodyForm, moves, m.id, name, isLevel)
  },
})

/** The form with corners of its body moved. `standing`: whether its sides stand on its outline still. */
export function shiftedForm(
  form: BodyForm,
  moves: ReadonlyMap<number, Vec3>,
  id: string,
  name: string,
  standing: boolean,
): BodyForm {
  const { solid, folded } = withCornersMoved(form.solid, moves, name)
  const fault = bodyFault(solid)
  if (fault) refuse('geometry', `"${name}" would pass through itself.`, 'Move it by less.')
  const notes: Note[] = folded.length
    ? [
        {
          id,
          say: `${folded.length === 1 ? 'A face' : `${folded.length} faces`} of "${name}" could not stay flat: folded along the lines that divide ${folded.length === 1 ? 'it' : 'them'}.`,
          remedy: 'Move both ends of an edge alike, or leave it folded.',
          set: null,
          about: 'folds' as const,
        },
      ]
    : []
  const { z1 } = boxOf(solid.positions)
  const wasTop = Math.abs(boxOf(form.solid.positions).z1 - form.eaves) < TOLERANCE.height
  return {
    ...form,
    carried: null,
    solid,
    outline: standing ? form.outline : null,
    eaves: wasTop ? z1 : form.eaves,
    notes: [...form.notes, ...notes],
  }
}

import {
  faceLabel,
  faceName,
  frameOfFace,
  inFrame,
  subtract,
  sweepBody,
  TOLERANCE,
  unite,
  type Frame,
  type Outline,
  type Solid,
} from '../solid'
import { refuse, type Num } from '../values'
import { moveKind } from './define'
import { length } from './fields'
import type { BodyForm, MoveBase } from './kind'
import { checkShape, shifted, singleLine } from './outline'
import type { OutlineShape } from './shapes/list'

export interface PatchMove extends MoveBase {
  move: 'patch'
  /** the face that it is drawn on, by its name */ face: string
  /** m along the face from its left end, and up from its lowest point, as seen from outside; on a level one along x and y */
  along: Num
  up: Num
  shape: OutlineShape
  /** m out of the face; below zero into it */ by: Num
}

/**
 * Draws an outline on a flat face of a body, and lets it stand out, or recess. Faces: <id>/front, and <id>/<edge> round it. Errors: left
 * out with a sentence, where the face is gone or bent.
 */
export const patch = moveKind<PatchMove>({
  move: 'patch',
  called: 'a patch on a face',
  title: 'patch',
  group: 'shape',
  takes: 'body',
  gives: 'body',
  placed: true,
  fields: {
    face: { is: 'face', label: 'on the face' },
    along: length('from its left end'),
    up: length('up from its foot'),
    shape: { is: 'shape', label: 'outline' },
    by: length('out by', { hint: 'Below zero it recesses.' }),
  },
  starts: ({ faces }) => {
    const face = faces[0]
    return face === undefined
      ? null
      : { face, along: 1, up: 1, shape: { kind: 'rectangle', width: 2, depth: 1.5 }, by: -0.5 }
  },
  check: (m, { name, numbers }) => checkShape(m.shape, `the patch on "${name}"`, numbers),
  build: (form, m, { numbers, name }) => {
    const { solid } = form as BodyForm
    const by = numbers.length(m.by)
    if (by === 0) return form
    const frame = flatFrame(solid, m.face, name)
    const line = shifted(singleLine(m.shape, numbers, `The patch on "${name}"`), [
      numbers.length(m.along),
      numbers.length(m.up),
    ])
    const block = blockOver(line, by, m.id)
    const there = inFrame(block, frame)
    return { ...form, carried: null, solid: by > 0 ? unite(solid, there) : subtract(solid, there) }
  },
})

/** m: what a patch reaches beyond its face, so that nothing thin is left */
const OVER = 10 * TOLERANCE.least

function blockOver(line: Outline, by: number, id: string): Solid {
  const front = faceName(id, 'front')
  const back = faceName(id, 'back')
  const side = (edge: string) => faceName(id, edge)
  return by > 0
    ? sweepBody({ low: [line], high: [line], z0: -OVER, z1: by, twist: null }, { base: back, top: front, side })
    : sweepBody({ low: [line], high: [line], z0: by, z1: OVER, twist: null }, { base: front, top: back, side })
}

/** The frame of a flat face of a form; see `frameOfFace`. Errors: 'unknown-id' where there is none. */
export const flatFrame = (solid: Solid, face: string, name: string): Frame =>
  frameOfFace(solid, face) ??
  refuse('unknown-id', `"${name}" has no flat face "${faceLabel(face)}" any more.`, 'Choose one of its faces.')

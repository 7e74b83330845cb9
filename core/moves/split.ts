import { dotOf, faceLabel, faceName, parseFaceName, splitFace, type Vec3 } from '../solid'
import { refuse, type Num } from '../values'
import { moveKind } from './define'
import { angle, length } from './fields'
import type { BodyForm, MoveBase } from './kind'
import { flatFrame } from './patch'

export interface SplitMove extends MoveBase {
  move: 'split'
  /** the face that is parted, by its name */ face: string
  /** m along the face from its left end, and up from its lowest point, as seen from outside: where the line goes through */
  along: Num
  up: Num
  /** degrees: where it runs to, from level to the right */
  direction: Num
}

/**
 * Parts a flat face by a straight line: two faces in one plane, each with fabric and materials of its own. What lies
 * to the right of the line
 * is <id>/<face>, the rest keeps its name. Errors: left out with a sentence, where the line misses the face, or that is gone or bent.
 */
export const split = moveKind<SplitMove>({
  move: 'split',
  called: 'a split of a face',
  title: 'split a face',
  group: 'shape',
  takes: 'body',
  gives: 'body',
  placed: true,
  fields: {
    face: { is: 'face', label: 'face' },
    along: length('through, from its left end'),
    up: length('up from its foot'),
    direction: angle('the line runs to', { hint: '0 level to the right, 90 up.' }),
  },
  starts: ({ faces }) => (faces[0] === undefined ? null : { face: faces[0], along: 1, up: 0, direction: 90 }),
  build: (form, m, { numbers, name }) => {
    const { solid } = form as BodyForm
    const { origin, u, v } = flatFrame(solid, m.face, name)
    const [x, y, a] = [numbers.length(m.along), numbers.length(m.up), (numbers.angle(m.direction) * Math.PI) / 180]
    const mix = (p: number, q: number): Vec3 =>
      [0, 1, 2].map((k) => (u[k] as number) * p + (v[k] as number) * q) as Vec3
    const n = mix(Math.sin(a), -Math.cos(a))
    const d = dotOf(n, origin) + dotOf(n, mix(x, y))
    const parted = splitFace(solid, m.face, { n, d }, faceName(m.id, parseFaceName(m.face).own))
    if (!parted)
      return refuse(
        'geometry',
        `The line does not cross ${faceLabel(m.face)} of "${name}".`,
        'Let it go through a point within the face.',
      )
    return { ...form, carried: null, solid: parted }
  },
})

import {
  bodyFault,
  bodyOfCage,
  boxOf,
  cageOf,
  faceName,
  halfSpace,
  intersect,
  isWhole,
  mirroredCage,
  parseFaceName,
  rawName,
  softened,
  stillToMove,
  thickenedCage,
  TOLERANCE,
  type Cage,
  type Solid,
  type Vec3,
} from '../solid'
import { refuse, tidy, type Num, type Numbers } from '../values'
import { moveKind } from './define'
import { length, times, type Item } from './fields'
import type { BodyForm, Form, MoveBase } from './kind'

export interface SoftMove extends MoveBase {
  move: 'soft'
  edges: 'smooth' | 'crisp'
  /** steps of refinement; null: by the tolerance */ steps: Num | null
  /** edges that are otherwise, by the two faces that meet there: for how many steps they stay crisp */
  own: (Item & { a: string; b: string; degree: Num })[]
  /** faces that are open */ open: (Item & { face: string })[]
  /** m: how thick the skin is where faces are open */ thick: Num
  /** whether what lies beyond a plane is the image of what lies before it: a plane across the mass's x or y axis, at so many m */
  symmetric?: 'no' | 'x' | 'y'
  about?: Num
}

/** steps, at most: a block has 6 * 4^5 quadrilaterals then */
const MOST = 5
/** m that a step by the tolerance may still move */
const FINE = 5 * TOLERANCE.curve
/** a degree from which an edge stays crisp for ever */
const ALWAYS = 10

/**
 * Makes a soft form of a body: its faces are the cage, which is pulled, cut and split by the moves before this one.
 * Edges are smooth, or crisp by a
 * degree. Where faces are left open, the rest is a skin of a thickness. Faces keep their names; the inner skin is
 * <id>/<face>, rims are <id>/rim.
 */
export const soft = moveKind<SoftMove>({
  move: 'soft',
  called: 'a soft form',
  group: 'shape',
  takes: 'body',
  gives: 'body',
  fields: {
    edges: {
      is: 'choice',
      label: 'edges are',
      options: [
        { value: 'smooth', label: 'smooth' },
        { value: 'crisp', label: 'crisp' },
      ],
    },
    steps: times('refined', { otherwise: 'by the tolerance', from: 0, to: MOST, hint: 'Steps, from 0 to 5.' }),
    own: {
      is: 'list',
      label: 'edges of their own',
      one: 'edge',
      most: 200,
      item: {
        a: { is: 'face', label: 'between' },
        b: { is: 'face', label: 'and' },
        degree: times('crisp by', { from: 0, to: 100, hint: '0 smooth, 10 always crisp.' }),
      },
      next: (items, { faces }) => ({
        a: faces[0] ?? 'top',
        b: faces[(items.length + 1) % Math.max(1, faces.length)] ?? 'base',
        degree: ALWAYS,
      }),
    },
    open: {
      is: 'list',
      label: 'open faces',
      one: 'face',
      most: 200,
      item: { face: { is: 'face', label: 'face' } },
      next: (items, { faces }) => ({ face: faces[items.length % Math.max(1, faces.length)] ?? 'base' }),
    },
    thick: length('skin, where faces are open', { from: TOLERANCE.least, when: (m) => m.open.length > 0 }),
    symmetric: {
      is: 'choice',
      label: 'symmetric',
      options: [
        { value: 'no', label: 'no' },
        { value: 'x', label: 'along its x: the far half is the image of the near one' },
        { value: 'y', label: 'along its y: the far half is the image of the near one' },
      ],
      absent: 'no',
    },
    about: length('about', {
      absent: 0,
      hint: 'Where the middle plane crosses that axis.',
      when: (m) => m.symmetric === 'x' || m.symmetric === 'y',
    }),
  },
  starts: ({ height, plan }) => {
    const xs = plan.flatMap((l) => l.points.map((p) => p[0]))
    const about = xs.length ? tidy((Math.min(...xs) + Math.max(...xs)) / 2) : 0
    return height > 0 ? { edges: 'smooth', steps: null, own: [], open: [], thick: 0.2, symmetric: 'no', about } : null
  },
  check: (m, { numbers }) => {
    const steps = m.steps === null ? 0 : numbers.value(m.steps, 'number')
    if (!Number.isInteger(steps)) refuse('size', `A number of steps is ${steps}.`, 'Type a whole number from 0 to 5.')
  },
  build: (form, m, { numbers, name }) => {
    const { solid } = form as BodyForm
    const drawn = cageOf(solid, name)
    const beyond = beyondOf(form, m, numbers)
    const image = (face: string) => faceName(m.id, 'image', parseFaceName(face).own)
    const whole = beyond ? symmetric(solid, beyond, image, name) : drawn
    // What is said of a face holds for its image.
    const drawnName = new Map(whole.faces.map((f) => [rawName(image(f.name)), rawName(f.name)]))
    const own = (face: string) => drawnName.get(rawName(face)) ?? rawName(face)
    const open = new Set(m.open.map((o) => rawName(o.face)))
    const cage: Cage = { ...whole, faces: whole.faces.filter((f) => !open.has(own(f.name))) }
    if (cage.faces.length === 0)
      return refuse('geometry', `All faces of "${name}" are open.`, 'Leave at least one of them.')
    const pair = (a: string, b: string) => [own(a), own(b)].sort().join(' ')
    const degrees = new Map(m.own.map((o) => [pair(o.a, o.b), numbers.value(o.degree, 'number')]))
    const usual = m.edges === 'crisp' ? Infinity : 0
    const sharp = (a: string, b: string) => {
      const own = degrees.get(pair(a, b))
      return own === undefined ? usual : own >= ALWAYS ? Infinity : own
    }
    const steps = m.steps === null ? stepsFor(cage, sharp) : numbers.value(m.steps, 'number')
    const skin = softened(cage, steps, sharp)
    const closed =
      open.size > 0
        ? thickenedCage(
            skin,
            numbers.length(m.thick),
            (face) =>
              drawnName.has(rawName(face))
                ? faceName(m.id, 'image', 'inside', own(face).split('/').slice(1).join('/'))
                : faceName(m.id, parseFaceName(face).own),
            faceName(m.id, 'rim'),
          )
        : skin
    const body = bodyOfCage(closed)
    const fault = open.size > 0 ? bodyFault(body) : null
    if (!isWhole(body) || fault)
      return refuse(
        'geometry',
        `Softened so, "${name}" passes through itself.`,
        'Make its skin thinner, or its cage less folded.',
      )
    const notes = form.notes.filter((n) => n.about !== 'folds')
    return { ...form, notes, carried: null, outline: null, solid: body, cage: { ...drawn, by: m.id, beyond } }
  },
})

/** The plane beyond which a form is the image of what lies before it, in the form's own frame; null: none. */
function beyondOf({ anchor }: Form, m: SoftMove, numbers: Numbers): { axis: 0 | 1; at: number } | null {
  if (m.symmetric !== 'x' && m.symmetric !== 'y') return null
  const axis = m.symmetric === 'x' ? 0 : 1
  return { axis, at: numbers.length(m.about ?? 0) - anchor[axis] }
}

/** The cage of what lies before a plane, and of its image. Errors: 'geometry' where nothing reaches the plane from there. */
function symmetric(
  solid: Solid,
  { axis, at }: { axis: 0 | 1; at: number },
  image: (face: string) => string,
  name: string,
): Cage {
  const n: Vec3 = axis === 0 ? [1, 0, 0] : [0, 1, 0]
  const box = boxOf(solid.positions)
  const [from, to] = axis === 0 ? [box.x0, box.x1] : [box.y0, box.y1]
  const half = to <= at ? solid : from < at ? intersect(solid, halfSpace({ n, d: at }, solid, true, 'plane')) : null
  return (
    (half && mirroredCage(cageOf(half, name), axis, at, image)) ??
    refuse('geometry', `"${name}" does not reach the plane that it is symmetric about.`, 'Move the plane into it.')
  )
}

/** As many steps as bring the corners of a cage to rest, within the tolerance; at least two, and not more than can be drawn. */
function stepsFor(cage: Cage, sharp: (a: string, b: string) => number): number {
  for (let steps = 2; steps < 4; steps++)
    if (stillToMove(softened(cage, steps, sharp), () => 0) < FINE || cage.faces.length * 4 ** steps > 6000) return steps
  return cage.faces.length > 30 ? 3 : 4
}

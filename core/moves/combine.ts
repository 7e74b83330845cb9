import { intersect, subtract, unite, type Solid } from '../solid'
import { Refusal } from '../values'
import { clipped } from './clipped'
import { moveKind } from './define'
import { metWith, placedIn, type How } from './join'
import type { BodyForm, Form, MoveBase } from './kind'

export interface CombineMove extends MoveBase {
  move: 'combine'
  /** the other mass, by its id */ mass: string
  how: How
  /** with what repeats make of it, or that mass alone */ copies?: 'one' | 'all'
}

/**
 * Makes one body with another mass, takes that off, or keeps what both have in common. The other stays a mass of its own: whatever becomes
 * of it, this one follows, until it is detached. Faces keep their names.
 */
export const combine = moveKind<CombineMove>({
  move: 'combine',
  called: 'a combination with a mass',
  title: 'combine',
  group: 'with others',
  takes: 'body',
  gives: 'body',
  placed: true,
  spans: true,
  fields: {
    how: {
      is: 'choice',
      label: 'it',
      options: [
        { value: 'less', label: 'leaves out' },
        { value: 'join', label: 'takes in' },
        { value: 'common', label: 'keeps what it shares with' },
        { value: 'under', label: 'stops under' },
      ],
    },
    mass: { is: 'mass', label: 'the mass' },
    copies: {
      is: 'choice',
      label: 'and',
      options: [
        { value: 'one', label: 'that alone' },
        { value: 'all', label: 'all its repeats' },
      ],
      absent: 'one',
    },
  },
  starts: ({ others }) => {
    const first = others[0]
    return first ? { how: 'less', mass: first.id, copies: 'one' } : null
  },
  copies: (m) => m.copies === 'all',
  build: (form, m, { other, copies, ranges }) => {
    if (!other) return form
    const all = [other, ...copies]
    // What is shared with all of them is not what is shared with each.
    const isShared = m.how === 'common' && copies.length > 0
    if (m.how === 'under' || (ranges === null && !isShared))
      return all.reduce<Form>((made, o) => metWith(made, o.body, o.at, m.how, m.id), form)
    const { solid } = form as BodyForm
    const theirs = all.map((o) => placedIn(form, o.body, o.at)).reduce(unite)
    if (ranges === null) return { ...form, carried: null, solid: intersect(solid, theirs) }
    // What both share is what is left when all else is taken off there.
    const tools =
      m.how === 'common'
        ? clipped(solid, ranges, m.id).flatMap((s) => without(s, theirs))
        : clipped(theirs, ranges, m.id)
    return { ...form, carried: null, solid: tools.reduce(m.how === 'join' ? unite : subtract, solid) }
  },
})

/** The first body without the second, where anything is left of it. */
function without(a: Solid, b: Solid): Solid[] {
  try {
    return [subtract(a, b)]
  } catch (e) {
    if (e instanceof Refusal) return []
    throw e
  }
}

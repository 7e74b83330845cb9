import { subtract, unite, type Solid } from '../solid'
import { Refusal } from '../values'
import { clipped } from './clipped'
import { moveKind } from './define'
import { metWith, placedIn, type How } from './join'
import type { BodyForm, MoveBase } from './kind'

export interface CombineMove extends MoveBase {
  move: 'combine'
  /** the other mass, by its id */ mass: string
  how: How
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
  },
  starts: ({ others }) => {
    const first = others[0]
    return first ? { how: 'less', mass: first.id } : null
  },
  build: (form, m, { other, ranges }) => {
    if (!other) return form
    if (ranges === null || m.how === 'under') return metWith(form, other.body, other.at, m.how, m.id)
    const { solid } = form as BodyForm
    const theirs = placedIn(form, other.body, other.at)
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

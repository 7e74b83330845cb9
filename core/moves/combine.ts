import { moveKind } from './define'
import { metWith, type How } from './join'
import type { MoveBase } from './kind'

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
  spans: 'within',
  fields: {
    how: {
      is: 'choice',
      label: 'it',
      options: [
        { value: 'less', label: 'leaves out' },
        { value: 'join', label: 'takes in' },
        { value: 'common', label: 'keeps what it shares with' },
      ],
    },
    mass: { is: 'mass', label: 'the mass' },
  },
  starts: ({ others }) => {
    const first = others[0]
    return first ? { how: 'less', mass: first.id } : null
  },
  build: (form, m, { other }) => (other ? metWith(form, other.body, other.at, m.how) : form),
})

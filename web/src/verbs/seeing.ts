import { BoxSelect, Eye, EyeOff, Focus, Lock, MousePointer2, Unlock } from 'lucide-react'
import { massesLocked, picked, picksChosen, showsChanged, thingsHidden, type ViewState } from '../app/view-slice'
import type { Verb } from './kind'

const needsPick: Verb['off'] = ({ masses }) => (masses.length ? null : 'Pick a mass first')

/** What a click on the stage can pick. */
export const PICKS: readonly { picks: ViewState['picks']; label: string }[] = [
  { picks: 'mass', label: 'masses' },
  { picks: 'face', label: 'faces' },
  { picks: 'edge', label: 'edges' },
  { picks: 'corner', label: 'corners' },
]

/** What is seen and picked: in this view only, nothing of the project changes. */
export const SEEING_VERBS: readonly Verb[] = [
  {
    label: 'Hide what is picked',
    icon: EyeOff,
    key: 'Q',
    desks: 'all',
    help: 'hide what is picked, in this view',
    off: needsPick,
    run: ({ masses, view, dispatch }) => {
      dispatch(thingsHidden([...new Set([...view.hidden, ...masses.map((m) => m.id)])]))
      dispatch(picked({ kind: 'nothing' }))
    },
  },
  {
    label: 'Show only what is picked',
    icon: Focus,
    key: 'O',
    desks: 'all',
    help: 'show only what is picked, or all again',
    off: ({ masses, view }) => (masses.length || view.hidden.length ? null : 'Pick a mass first'),
    run: ({ masses, view, dispatch }) => {
      const ids = masses.map((m) => m.id)
      const others = (view.study?.masses ?? []).map((m) => m.id).filter((id) => !ids.includes(id))
      // Where it shows only that already, all comes back.
      const isAlone = masses.length === 0 || others.every((id) => view.hidden.includes(id))
      dispatch(thingsHidden(isAlone ? [] : others))
    },
  },
  {
    label: 'Show what is hidden',
    icon: Eye,
    desks: 'all',
    help: '',
    off: ({ view }) => (view.hidden.length ? null : 'Nothing is hidden'),
    run: ({ dispatch }) => void dispatch(thingsHidden([])),
  },
  {
    label: 'Pick all of its use',
    icon: BoxSelect,
    desks: 'all',
    help: '',
    off: needsPick,
    run: ({ scheme, masses, dispatch }) => {
      const uses = masses.map((m) => m.use)
      const ids = Object.values(scheme.masses).flatMap((m) => (uses.includes(m.use) ? [m.id] : []))
      dispatch(picked({ kind: 'mass', ids }))
    },
  },
  {
    label: 'Pick all with the same moves',
    icon: BoxSelect,
    desks: 'all',
    help: '',
    off: needsPick,
    run: ({ scheme, masses, dispatch }) => {
      const shape = (recipe: readonly { move: string }[]) => recipe.map((m) => m.move).join()
      const shapes = masses.map((m) => shape(m.recipe))
      const ids = Object.values(scheme.masses).flatMap((m) => (shapes.includes(shape(m.recipe)) ? [m.id] : []))
      dispatch(picked({ kind: 'mass', ids }))
    },
  },
  {
    label: 'Pick masses, faces, edges or corners',
    icon: MousePointer2,
    key: 'E',
    desks: ['form'],
    help: 'goes on from picking masses to faces, edges, corners',
    run: ({ view, dispatch }) => {
      const at = PICKS.findIndex((p) => p.picks === view.picks)
      dispatch(picksChosen(PICKS[(at + 1) % PICKS.length]?.picks ?? 'mass'))
    },
  },
  {
    label: 'Lock what is picked',
    icon: Lock,
    desks: 'all',
    help: '',
    off: needsPick,
    run: ({ masses, view, dispatch }) => {
      dispatch(massesLocked([...new Set([...view.locked, ...masses.map((m) => m.id)])]))
      dispatch(picked({ kind: 'nothing' }))
    },
  },
  {
    label: 'Unlock all',
    icon: Unlock,
    desks: 'all',
    help: '',
    off: ({ view }) => (view.locked.length ? null : 'Nothing is locked'),
    run: ({ dispatch }) => void dispatch(massesLocked([])),
  },
  {
    label: 'See through the masses, or not',
    icon: Eye,
    key: 'K',
    desks: 'all',
    help: 'see through the masses, or not',
    run: ({ view, dispatch }) =>
      void dispatch(showsChanged({ masses: view.shows.masses === 'see-through' ? 'solid' : 'see-through' })),
  },
]

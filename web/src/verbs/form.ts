import { Spline, Trash2 } from 'lucide-react'
import { deleteGrown } from './delete-grown'
import { deleteMasses } from './delete-masses'
import type { Verb } from './kind'
import { MOVE_VERBS } from './moves'
import { DRAWING_VERBS, OUTLINE, OUTLINE_VERBS } from './outlines'
import { RULE_VERBS } from './rules'

/** All verbs of the Form desk; those that are under another one open with it. */
export const FORM_VERBS: readonly Verb[] = [
  ...DRAWING_VERBS,
  { label: OUTLINE, icon: Spline, desks: ['form'], help: '', opens: () => [], run: () => {} },
  ...OUTLINE_VERBS,
  ...MOVE_VERBS,
  ...RULE_VERBS,
  {
    label: 'Delete',
    icon: Trash2,
    key: 'Delete',
    desks: ['form'],
    help: 'delete what is picked',
    off: ({ masses, view }) =>
      masses.length || view.picked.kind === 'rule' || view.picked.kind === 'repeat' ? null : 'Pick a mass first',
    run: (now) => (now.masses.length ? void deleteMasses(now.masses.map((m) => m.id)) : void deleteGrown(now)),
  },
]

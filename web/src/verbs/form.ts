import { Spline, Trash2 } from 'lucide-react'
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
    off: ({ masses }) => (masses.length ? null : 'Pick a mass first'),
    run: ({ masses }) => void deleteMasses(masses.map((m) => m.id)),
  },
]

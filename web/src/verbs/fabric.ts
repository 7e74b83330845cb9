import { Building2, Ruler } from 'lucide-react'
import { usualChoices } from '@geotome/core/fabric'
import { makeComputedEdit } from '../app/study-loop'
import { proposed } from '../app/view-slice'
import { studyWorker } from '../worker/client'
import type { Now, Verb } from './kind'

const drifted = ({ view }: Now) =>
  view.study?.parts.filter((p) => p.bond.status === 'drifted' && !p.bond.left).length ?? 0

export const FABRIC_VERBS: readonly Verb[] = [
  {
    label: 'Make building',
    icon: Building2,
    key: 'B',
    desks: ['fabric'],
    on: ({ view }) => view.proposing !== null,
    off: ({ view }) => (view.study?.masses.length ? null : 'Draw a mass at the Form desk first'),
    run: ({ view, masses, project, dispatch }) =>
      void dispatch(
        proposed(
          view.proposing
            ? null
            : { masses: masses.length ? masses.map((m) => m.id) : null, choices: usualChoices(project) },
        ),
      ),
  },
  {
    label: (now) => (drifted(now) ? `Bring ${drifted(now)} in line` : 'Bring in line'),
    icon: Ruler,
    key: 'I',
    desks: ['fabric'],
    off: (now) => (drifted(now) ? null : 'No part has drifted'),
    run: (now) =>
      void makeComputedEdit(`bring ${drifted(now)} parts in line`, () => studyWorker.bringInLine(now.scheme.id, null)),
  },
]

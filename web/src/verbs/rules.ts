import { Sprout } from 'lucide-react'
import { newRule, ruleOfMass, trimRule } from '@geotome/core/form'
import { levelHeights } from '@geotome/core/levels'
import { capital, inOrder, numbersOf } from '@geotome/core/project'
import { READY_RULES } from '@geotome/core/rules'
import { makeEdit } from '../app/session'
import { picked } from '../app/view-slice'
import type { Now, Verb } from './kind'

const RULE = 'Rule'

/** Where a new rule stands: on the lowest storey that is not below the datum, in the middle of the site, or of what stands. */
function stands({ project, scheme, view }: Now) {
  const levels = levelHeights(project, scheme).filter((l) => l.kind === 'storey')
  const level = levels.find((l) => l.height > -0.5) ?? levels[0]
  const numbers = numbersOf(project, null)
  const corners = project.site?.corners.map((c) => [numbers.length(c.x), numbers.length(c.y)] as const)
  const origin = view.study?.origin ?? [0, 0]
  const around = corners ?? (view.study?.masses ?? []).map((m) => [m.at.x + origin[0], m.at.y + origin[1]] as const)
  const middle = (k: 0 | 1) => {
    const all = around.map((p) => p[k])
    return all.length ? Math.round((Math.min(...all) + Math.max(...all)) / 2) : 0
  }
  return { use: inOrder(project.uses)[0]?.id ?? '', level: level?.id ?? '', at: [middle(0), middle(1)] as const }
}

function begin(now: Now, ready: string | null): void {
  // The rule's own id is the last that is made.
  let last = ''
  const mint = () => (last = crypto.randomUUID())
  if (makeEdit('new rule', () => newRule(now.project, now.scheme, mint, stands(now), ready)))
    now.dispatch(picked({ kind: 'rule', ids: [last], one: null }))
}

const under = { icon: Sprout, under: RULE, desks: ['form'], help: '' } as const

export const RULE_VERBS: readonly Verb[] = [
  { label: RULE, icon: Sprout, desks: ['form'], help: '', opens: () => [], run: () => {} },
  ...READY_RULES.map((r): Verb => ({ ...under, label: capital(r.called), run: (now) => begin(now, r.ready) })),
  { ...under, label: 'From a plan, step by step', run: (now) => begin(now, null) },
  ...(['bands', 'fins'] as const).map((what): Verb => ({
    ...under,
    label: what === 'bands' ? 'Bands round the picked mass' : 'Fins on the picked mass',
    off: ({ masses }) => (masses.length === 1 ? null : 'Pick one mass first'),
    run: ({ scheme, masses: [mass], dispatch }) => {
      const ids: string[] = []
      const mint = () => ids[ids.push(crypto.randomUUID()) - 1] as string
      if (mass && makeEdit(`${what} of ${mass.name}`, () => trimRule(scheme, mint, mass.id, what)))
        dispatch(picked({ kind: 'rule', ids: [ids[0] ?? ''], one: null }))
    },
  })),
  {
    ...under,
    label: 'Of the picked mass',
    off: ({ masses, scheme }) =>
      masses.length !== 1
        ? 'Pick one mass first'
        : Object.values(scheme.parts).some((p) => p.host.mass === masses[0]?.id)
          ? 'Fabric stands on it'
          : null,
    run: (now) => {
      const [mass] = now.masses
      const id = crypto.randomUUID()
      if (mass && makeEdit(`rule of ${mass.name}`, () => ruleOfMass(now.project, now.scheme, () => id, mass.id)))
        now.dispatch(picked({ kind: 'rule', ids: [id], one: null }))
    },
  },
]

import { duplicateScheme } from '../groundwork'
import { inOrder, type Project } from '../project'
import { schemeOf } from './make'
import { anyOf, type Step } from './work-pick'

/** Steps that change names, uses and orders among few values, so that what was changed is often changed back, beside a kept study. */
export const NAME_STEPS: Step[] = [
  (p, pick) => ({
    edit: 'mass.change',
    scheme: schemeOf(p).id,
    id: anyOf(schemeOf(p).masses, pick),
    set: pick(2) ? { name: `Mass ${'ABC'[pick(3)]}` } : { order: pick(3) },
  }),
  (p, pick) => ({
    edit: 'mass.change',
    scheme: schemeOf(p).id,
    id: anyOf(schemeOf(p).masses, pick),
    set: { use: inOrder(p.uses)[pick(2)]?.id ?? 'none' },
  }),
  (p, pick) => ({
    edit: 'level.change',
    scheme: schemeOf(p).id,
    id: anyOf(schemeOf(p).levels, pick),
    set: { name: `Floor ${'ABC'[pick(3)]}` },
  }),
  (p, pick) => ({ edit: 'use.change', id: anyOf(p.uses, pick), set: { name: `use ${'ABC'[pick(3)]}` } }),
  (p, pick) => ({ edit: 'build-up.change', id: anyOf(p.buildUps, pick), set: { name: `layers ${'ABC'[pick(3)]}` } }),
  (p, pick, mint) =>
    pick(8) === 0 && Object.keys(p.schemes).length < 4
      ? duplicateScheme(p, schemeOf(p), mint(), `Copy ${mint()}`)
      : null,
]

const lately: Project[] = []
/** Brings back the project as it was a step or two before, things and all, as an undo does: what was kept for it may be asked again. */
export const BACK_STEP: Step = (p, pick) => {
  lately.push(p)
  if (lately.length > 3) lately.shift()
  const before = lately[pick(lately.length)]
  return before && before.id === p.id && before !== p ? { edit: 'whole.set', project: before } : null
}

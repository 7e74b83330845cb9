import { bodyFault } from '../../solid'
import { finding, type Check } from '../types'

/** A body from a file that is open, or passes through itself: its areas and volume cannot be trusted. */
export const faultyBody: Check = {
  kind: 'open or self-crossing body',
  run: ({ scheme, context, forms }) => forms.filter((f) => scheme.masses[f.id]?.recipe.some((m) => m.move === 'body')).flatMap((form) => {
    const fault = context.memo.of(form.body, 'fault', [], () => bodyFault(form.body.solid))
    if (!fault) return []
    const [x, y, z] = fault.at.map((c) => c.toFixed(2))
    return [finding('open or self-crossing body', form.id, `The body of ${form.name} ${fault.fault === 'open' ? 'is not closed' : 'passes through itself'} near ${x}, ${y}, ${z}`, 'Its areas and volume cannot be trusted. Mend it where it was drawn and import it again, or keep it as context.', {
      masses: [form.id], fix: { label: 'Keep it as context', edit: () => ({ edit: 'mass.change', scheme: scheme.id, id: form.id, set: { context: true } }) },
    })]
  }),
}

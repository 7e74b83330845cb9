import { changeRecipe } from '../../form'
import { withMove } from '../../moves'
import { tidy } from '../../project'
import { finding, type Check } from '../types'

/** A mass that rises over the permitted height: a mark of that name. */
export const overPermitted: Check = {
  kind: 'over the permitted mark',
  run: ({ scheme, context, levels, forms }) => {
    const mark = levels.find((l) => l.kind === 'mark' && /permitted/i.test(l.name))
    if (!mark) return []
    return forms.filter((f) => f.top > mark.height + 1e-5).flatMap((form) => {
      const mass = scheme.masses[form.id]
      if (!mass) return []
      const over = tidy(form.top - mark.height)
      const raise = mass.recipe.find((m) => m.move === 'raise')
      const height = raise ? tidy(form.body.eaves - over) : 0
      return [finding('over the permitted mark', form.id, `${form.name} rises ${over.toFixed(2)} m over ${mark.name}`, `Its top is at ${form.top.toFixed(2)} m, the mark at ${mark.height.toFixed(2)} m. Lower the mass, or ask for more height.`, {
        level: mark.id, masses: [form.id],
        fix: raise && height > 0.1 ? {
          label: `Lower it by ${over.toFixed(2)} m`,
          edit: () => changeRecipe(scheme, mass, (r) => withMove(r, raise, raise.upTo ? { upTo: { ...raise.upTo, above: tidy(context.numbers.length(raise.upTo.above) - over) } } : { height })),
        } : null,
      })]
    })
  },
}

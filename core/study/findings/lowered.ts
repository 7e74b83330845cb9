import type { FabricContext } from '../../fabric'
import { changeRecipe, type MassForm } from '../../form'
import { withMove } from '../../moves'
import { showExact, tidy, type Scheme } from '../../project'
import type { Finding } from '../finding'

/** A remedy that lowers a mass by so much (m), where it has a raise to be lowered; null where little would be left of it. */
export function lowered(scheme: Scheme, context: FabricContext, form: MassForm, over: number): Finding['fix'] {
  const mass = scheme.masses[form.id]
  const raise = mass?.recipe.find((m) => m.move === 'raise')
  const height = tidy(form.body.eaves - over)
  if (!mass || !raise || height <= 0.1) return null
  return {
    label: `Lower it by ${showExact(over, 'length', context.project)}`,
    edit: () =>
      changeRecipe(scheme, mass, (r) =>
        withMove(
          r,
          raise,
          raise.upTo
            ? { upTo: { ...raise.upTo, above: tidy(context.numbers.length(raise.upTo.above) - over) } }
            : { height },
        ),
      ),
  }
}

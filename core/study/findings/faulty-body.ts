import { bodyFault } from '../../solid'
import type { Move } from '../../moves'
import { showQuantity } from '../../project'
import { type Check } from '../types'
import { finding } from '../finding'

const SAY = { open: 'is not closed', 'inside out': 'looks inwards', crossing: 'passes through itself' }

/** A body that is open, inside out, or passes through itself: its areas and volume cannot be trusted. Those that cannot cross are looked at for their edges only. */
export const faultyBody: Check = {
  kind: 'open or self-crossing body',
  why: 'Areas and volumes of such a body cannot be trusted.',
  run: ({ project, scheme, context, forms }) =>
    forms.flatMap((form) => {
      const mass = scheme.masses[form.id]
      const read = mass?.recipe.some(fromFile) ?? false
      const fault = context.memo.keep(form.body, 'fault', [], () =>
        bodyFault(form.body.solid, mass?.recipe.some(mayCross) ? undefined : 'edges'),
      )
      if (!fault || !mass) return []
      const [x, y, z] = fault.at.map((c) => showQuantity(c, 'length', project))
      return [
        finding(
          'open or self-crossing body',
          form.id,
          `The body of ${form.name} ${SAY[fault.fault]} near ${x}, ${y}, ${z}`,
          `Its areas and volume cannot be trusted, and it is counted by itself. ${read ? 'Mend it where it was drawn and import it again' : 'Change its outline or the last of its moves'}, or keep it as context.`,
          {
            masses: [form.id],
            fix: {
              label: 'Keep it as context',
              edit: () => ({ edit: 'mass.change', scheme: scheme.id, id: form.id, set: { context: true } }),
            },
          },
        ),
      ]
    }),
}

/** Moves whose bodies may pass through themselves; those of the others cannot. */
const MAY_CROSS: readonly Move['move'][] = ['body', 'loft', 'sweep']
const mayCross = (move: Move): boolean =>
  MAY_CROSS.includes(move.move) || (move.move === 'join' && move.recipe.some(mayCross))
const fromFile = (move: Move): boolean => move.move === 'body' || (move.move === 'join' && move.recipe.some(fromFile))

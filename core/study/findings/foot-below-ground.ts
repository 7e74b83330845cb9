import { showQuantity, tidy } from '../../project'
import { TOLERANCE } from '../../solid'
import { finding } from '../finding'
import type { Check } from '../types'

/** m: a foot this far in the ground is meant, as a plinth on a slope is */
const MEANT = 1

/** A mass whose foot lies in the ground all along, while it stands on no level below the datum. On a slope one end may, and nothing is said. */
export const footBelowGround: Check = {
  kind: 'foot below ground',
  why: 'Floor that stands in the ground needs excavation, and has no daylight there.',
  run: ({ project, scheme, forms, ground, levels }) =>
    forms.flatMap((form) => {
      const foot = ground.feet.get(form.id)
      const mass = scheme.masses[form.id]
      const base = levels.find((l) => l.id === mass?.base.level)
      if (!foot || !mass || mass.gives === 'void' || !base || base.height < -TOLERANCE.height) return []
      const under = tidy(foot.lowest - form.base)
      if (under <= MEANT) return []
      return [
        finding(
          'foot below ground',
          form.id,
          `All of the foot of ${form.name} lies in the ground, at least ${showQuantity(under, 'length', project)}`,
          'Raise it, let it begin on a higher level, or leave it where a basement is meant.',
          {
            masses: [form.id],
            fix:
              typeof mass.base.above === 'number'
                ? {
                    label: `Raise it by ${showQuantity(under, 'length', project)}`,
                    edit: () => ({
                      edit: 'mass.change',
                      scheme: scheme.id,
                      id: mass.id,
                      set: { base: { ...mass.base, above: tidy((mass.base.above as number) + under) } },
                    }),
                  }
                : null,
          },
        ),
      ]
    }),
}

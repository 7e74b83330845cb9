import { TOLERANCE } from '../../solid'
import { LIMITS } from '../../fabric'
import { showQuantity } from '../../project'
import { type Check } from '../types'
import { finding } from '../finding'

/** A mass whose top lies just above a storey that it takes: that storey cuts a roof space or a thin slice, hardly a floor. */
export const peakAboveLevel: Check = {
  kind: 'roof peak just above a level',
  why: 'A hair more or less of height adds or loses a whole floor there.',
  run: ({ project, scheme, floors, forms }) => {
    // Few tops lie just above a floor: those are looked for, not all plates.
    const close = floors.map((floor) =>
      forms.filter((form) => {
        const over = form.top - floor.level.height
        return over > TOLERANCE.touch && over < LIMITS.leastUpright && floor.level.height > form.base + TOLERANCE.touch
      }),
    )
    return floors.flatMap((floor, i) =>
      (close[i]?.length ? floor.plates : []).flatMap((plate) => {
        const form = close[i]?.find((f) => f.id === plate.mass)
        const mass = scheme.masses[plate.mass]
        if (!form || !mass) return []
        const over = form.top - floor.level.height
        const { kind, levels } = mass.takes
        return [
          finding(
            'roof peak just above a level',
            `${floor.level.id}:${mass.id}`,
            `The top of ${mass.name} lies only ${showQuantity(over, 'length', project)} above ${floor.level.name}`,
            'The level cuts a thin slice there that is hardly a floor. Let the mass not take it, or move one of the two.',
            {
              level: floor.level.id,
              masses: [mass.id],
              area: plate.area,
              region: plate.region,
              fix: {
                label: `Let ${mass.name} not take it`,
                edit: () => ({
                  edit: 'mass.change',
                  scheme: scheme.id,
                  id: mass.id,
                  set: {
                    takes: {
                      kind,
                      levels:
                        kind === 'only' ? levels.filter((l) => l !== floor.level.id) : [...levels, floor.level.id],
                    },
                  },
                }),
              },
            },
          ),
        ]
      }),
    )
  },
}

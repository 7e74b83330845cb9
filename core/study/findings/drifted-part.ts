import { attach, bringInLine, placesFor, removeParts } from '../../fabric'
import { type Check } from '../types'
import { finding } from '../finding'

/** Parts whose form has changed since they were made, and parts whose face is gone. */
export const driftedPart: Check = {
  kind: 'drifted part',
  why: 'Parts that are not on their faces give wrong quantities, and stand in or out of the form.',
  run: ({ context, parts }) =>
    parts
      .filter((p) => p.bond.status !== 'bonded' && !p.bond.left)
      .map((p) => {
        const drifted = p.bond.status === 'drifted'
        const [place] = drifted ? [] : placesFor(context, p.part, 1)
        return finding(
          'drifted part',
          p.id,
          `${p.part.name} has ${drifted ? 'drifted' : 'come loose'}: ${p.bond.why ?? ''}`,
          drifted
            ? 'Bring it in line; its name and build-up stay.'
            : 'Attach it to another face, keep it as it is, or remove it.',
          {
            level: p.part.base?.level ?? null,
            masses: [p.part.host.mass],
            parts: [p.id],
            fix: drifted
              ? { label: 'Bring in line', edit: () => bringInLine(context, [p]) }
              : place
                ? { label: `Attach to ${place.label}`, edit: () => attach(context, p.part, place) }
                : { label: 'Remove', edit: () => removeParts(context, [p.id]) },
          },
        )
      }),
}

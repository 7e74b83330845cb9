import { bringInLine, removeParts } from '../../fabric'
import { finding, type Check } from '../types'

/** Parts whose form has changed since they were made, and parts whose face is gone. */
export const driftedPart: Check = {
  kind: 'drifted part',
  run: ({ context, parts }) => parts.filter((p) => p.bond.status !== 'bonded').map((p) => {
    const drifted = p.bond.status === 'drifted'
    return finding('drifted part', p.id, `${p.part.name} has ${drifted ? 'drifted' : 'come loose'}: ${p.bond.why ?? ''}`, drifted ? 'Bring it in line; its name and build-up stay.' : 'Remove it, or undo what took its face away.', {
      level: p.part.base?.level ?? null, masses: [p.part.host.mass], parts: [p.id],
      fix: drifted ? { label: 'Bring in line', edit: () => bringInLine(context, [p]) } : { label: 'Remove', edit: () => removeParts(context, [p.id]) },
    })
  }),
}

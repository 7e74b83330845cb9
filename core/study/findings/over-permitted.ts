import { TOLERANCE } from '../../solid'
import { showQuantity, tidy } from '../../project'
import { permittedHeight } from '../permitted'
import { type Check } from '../types'
import { givesFloor } from '../special'
import { finding } from '../finding'
import { lowered } from './lowered'

/** A mass that rises over the permitted height, where a mark says it; a site's own limit is said with the envelope. */
export const overPermitted: Check = {
  kind: 'over the permitted mark',
  why: 'What stands above the permitted height is not permitted.',
  run: ({ project, scheme, context, ground, levels, forms }) => {
    const say = (m: number) => showQuantity(m, 'length', project)
    const mark = permittedHeight(ground.envelope, levels)?.mark
    if (!mark) return []
    return forms
      .filter((f) => f.top > mark.height + TOLERANCE.height && givesFloor(scheme, f))
      .flatMap((form) => {
        const over = tidy(form.top - mark.height)
        return [
          finding(
            'over the permitted mark',
            form.id,
            `${form.name} rises ${say(over)} over ${mark.name}`,
            `Its top is at ${say(form.top)}, the mark at ${say(mark.height)}. Lower the mass, or ask for more height.`,
            { level: mark.id, masses: [form.id], fix: lowered(scheme, context, form, over) },
          ),
        ]
      })
  },
}

import { TOLERANCE } from '../../solid'
import { showQuantity, showVolume, type LimitFigure, type Shown } from '../../project'
import { type Check } from '../types'
import { givesFloor } from '../special'
import { finding } from '../finding'
import { lowered } from './lowered'

/** A mass that passes the envelope: the permitted height, a setback or the boundary, a sloping limit. */
export const overEnvelope: Check = {
  kind: 'over the envelope',
  why: 'What stands beyond the envelope is not permitted.',
  run: ({ project, scheme, context, ground, forms }) =>
    forms.flatMap((form) => {
      const fit = ground.fits.get(form.id)
      const passed = fit?.limits.filter((l) => l.over > TOLERANCE.touch) ?? []
      if (!fit || passed.length === 0 || fit.over <= 0 || !givesFloor(scheme, form)) return []
      const height = passed.find((l) => l.limit === 'height')
      return [
        finding(
          'over the envelope',
          form.id,
          `${form.name} is over ${passed.map((l) => sayLimit(l, project)).join(', ')}`,
          `${showVolume(fit.over, project)} of it lie outside of the envelope. Lower it, move it in, or ask for more.`,
          { masses: [form.id], fix: height ? lowered(scheme, context, form, height.over) : null },
        ),
      ]
    }),
}

/** "the permitted height by 0.300 m", "the setback of the south side by 1.200 m" */
export function sayLimit(l: LimitFigure, shown: Shown): string {
  const what =
    l.limit === 'height'
      ? 'the permitted height'
      : `the ${l.limit === 'slope' ? 'sloping limit' : 'setback'} of the ${l.name ?? `side ${l.side}`}`
  return `${what} by ${showQuantity(Math.abs(l.over), 'length', shown)}`
}

import { TOLERANCE } from '../../solid'
import type { LimitFigure } from '../../project'
import { type Check } from '../types'
import { givesFloor } from '../special'
import { finding } from '../finding'
import { lowered } from './lowered'

/** A mass that passes the envelope: the permitted height, a setback or the boundary, a sloping limit. */
export const overEnvelope: Check = {
  kind: 'over the envelope',
  why: 'What stands beyond the envelope is not permitted.',
  run: ({ scheme, context, ground, forms }) =>
    forms.flatMap((form) => {
      const fit = ground.fits.get(form.id)
      const passed = fit?.limits.filter((l) => l.over > TOLERANCE.touch) ?? []
      if (!fit || passed.length === 0 || fit.over <= 0 || !givesFloor(scheme, form)) return []
      const height = passed.find((l) => l.limit === 'height')
      return [
        finding(
          'over the envelope',
          form.id,
          `${form.name} is over ${passed.map(sayLimit).join(', ')}`,
          `${fit.over.toFixed(2)} m³ of it lie outside of the envelope. Lower it, move it in, or ask for more.`,
          { masses: [form.id], fix: height ? lowered(scheme, context, form, height.over) : null },
        ),
      ]
    }),
}

/** "the permitted height by 0.30 m" */
export function sayLimit(l: LimitFigure): string {
  const what =
    l.limit === 'height'
      ? 'the permitted height'
      : l.limit === 'slope'
        ? `the sloping limit of side ${l.side}`
        : `the setback of side ${l.side}`
  return `${what} by ${Math.abs(l.over).toFixed(2)} m`
}

import { changeRecipe, faceTitle } from '../../form'
import { withMove } from '../../moves'
import { TOLERANCE, warpOf } from '../../solid'
import { showNumber, showQuantity } from '../../project'
import type { Check } from '../types'
import { finding } from '../finding'

/** Faces of a loft that are not flat: how far their fourth corner is off, whichever way they were folded. */
export const warpedFace: Check = {
  kind: 'warped face',
  why: 'Faces that are not flat cost more to build, or need facets.',
  run: ({ project, scheme, forms, around }) =>
    [...forms, ...around].flatMap((form) => {
      const mass = scheme.masses[form.id]
      const loft = mass?.recipe.find((m) => m.move === 'loft' && m.on)
      if (!mass || loft?.move !== 'loft' || loft.faces !== 'warped') return []
      const warps = form.body.faces().flatMap(({ name, surface }) => {
        if (surface?.kind !== 'ruled') return []
        const { right, left } = warpOf(surface)
        return Math.max(right, left) < TOLERANCE.least ? [] : [{ name, right, left }]
      })
      if (warps.length === 0) return []
      const most = (way: 'right' | 'left') => Math.max(...warps.map((w) => w[way]))
      const better = most('right') <= most('left') ? 'right' : 'left'
      const said = warps.map(
        (w) =>
          `${faceTitle(form, w.name)} ${showNumber(w.right, 'length', project)} or ${showQuantity(w.left, 'length', project)}`,
      )
      return [
        finding(
          'warped face',
          form.id,
          `${warps.length === 1 ? 'A face' : `${warps.length} faces`} of ${form.name} ${warps.length === 1 ? 'is' : 'are'} not flat: the fourth corner is off by ${said.join(', ')} if folded, rising to the right or to the left`,
          'What either does to floors and volume stands with the loft in the details. Fold them, or leave them warped.',
          {
            masses: [form.id],
            fix: {
              label: `Fold all, rising to the ${better}`,
              edit: () => changeRecipe(scheme, mass, (recipe) => withMove(recipe, loft, { faces: better })),
            },
          },
        ),
      ]
    }),
}

import { removeMass } from '../../form'
import type { MassForm } from '../../form'
import { type Check } from '../types'
import { finding } from '../finding'

/** Two masses of one form in one place: a copy that was left behind. */
export const duplicateBody: Check = {
  kind: 'duplicate bodies',
  why: 'One of the two is counted with the other, and hides behind it.',
  run: ({ scheme, forms }) => {
    const places = new Map<string, MassForm>()
    return forms.flatMap((form) => {
      const { x0, y0, x1, y1 } = form.rect
      const key = [x0, y0, x1, y1, form.base, form.top, form.body.volume].map((v) => Math.round(v * 1000)).join()
      const first = places.get(key)
      if (!first) {
        places.set(key, form)
        return []
      }
      return [
        finding(
          'duplicate bodies',
          `${first.id}+${form.id}`,
          `${form.name} lies in the same place as ${first.name}`,
          'Its floors are counted once. Remove one of the two, or move it.',
          {
            masses: [first.id, form.id],
            fix: { label: `Remove ${form.name}`, edit: () => removeMass(scheme, form.id, true) },
          },
        ),
      ]
    })
  },
}

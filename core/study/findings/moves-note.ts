import { changeRecipe } from '../../form'
import type { Move } from '../../moves'
import type { Check } from '../types'
import { finding } from '../finding'
import { sayingOnce } from './saying-once'

/** What a move has to say of what it made. */
export const movesNote: Check = {
  kind: 'worth knowing of a form',
  why: 'A move made something that is worth a look.',
  run: ({ scheme, forms, around, growth }) =>
    sayingOnce([...forms, ...around], growth).flatMap((form) =>
      form.body.notes.map(({ id, say, remedy, set }) => {
        const mass = scheme.masses[form.id]
        const own = mass?.recipe.some((m) => m.id === id)
        const fix =
          mass && own && set
            ? {
                label: set.label,
                edit: () =>
                  changeRecipe(scheme, mass, (recipe) =>
                    recipe.map((m): Move => (m.id === id ? ({ ...m, ...set.fields } as Move) : m)),
                  ),
              }
            : null
        return finding('worth knowing of a form', `${form.id}:${id}`, say, remedy, { masses: [form.id], fix })
      }),
    ),
}

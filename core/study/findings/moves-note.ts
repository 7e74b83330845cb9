import { changeRecipe, withTitles } from '../../form'
import type { Move } from '../../moves'
import { sayInUnits } from '../../project'
import type { Check } from '../types'
import { finding } from '../finding'
import { sayingOnce } from './saying-once'

/** What a move has to say of what it made. */
export const movesNote: Check = {
  kind: 'worth knowing of a form',
  why: 'A move made something that is worth a look.',
  run: ({ project, scheme, forms, around, growth }) =>
    sayingOnce([...forms, ...around], growth).flatMap((form) =>
      form.body.notes.map(({ id, say, remedy, set }) => {
        const mass = scheme.masses[form.id]
        const own = mass?.recipe.some((m) => m.id === id)
        const fix =
          mass && own && set
            ? {
                label: sayInUnits(set.label, project),
                edit: () =>
                  changeRecipe(scheme, mass, (recipe) =>
                    recipe.map((m): Move => (m.id === id ? ({ ...m, ...set.fields } as Move) : m)),
                  ),
              }
            : null
        const said = (text: string) => sayInUnits(withTitles(form, text), project)
        return finding('worth knowing of a form', `${form.id}:${id}`, said(say), said(remedy), {
          masses: [form.id],
          fix,
        })
      }),
    ),
}

import { changeRecipe, withTitles } from '../../form'
import type { Move } from '../../moves'
import { sayInUnits } from '../../project'
import { type Check } from '../types'
import { finding } from '../finding'
import { sayingOnce } from './saying-once'

/** A move that the form does not allow, or a mass that cannot be built at all: it is left out, and everything else is computed. */
export const leftOutMove: Check = {
  kind: 'cannot be built',
  why: 'A form without one of its moves is not what was meant, and its areas are those of what is left.',
  run: ({ project, scheme, forms, around, growth, unbuilt }) => [
    ...unbuilt.map(({ mass, say, remedy }) =>
      finding(
        'cannot be built',
        mass.id,
        `${mass.name} cannot be built, and is counted nowhere: ${sayInUnits(say, project)}`,
        sayInUnits(remedy, project) || 'Change its recipe, or undo the last change.',
        { masses: [mass.id] },
      ),
    ),
    ...sayingOnce([...forms, ...around], growth).flatMap((form) =>
      form.body.leftOut.map(({ id, say, remedy }) => {
        const mass = scheme.masses[form.id]
        const own = mass?.recipe.some((m) => m.id === id)
        return finding(
          'cannot be built',
          `${form.id}:${id}`,
          `A move of ${form.name} is left out: ${sayInUnits(withTitles(form, say), project)}`,
          sayInUnits(remedy, project) || 'Change it in the recipe, or switch it off.',
          {
            masses: [form.id],
            fix:
              mass && own
                ? {
                    label: 'Switch the move off',
                    edit: () =>
                      changeRecipe(scheme, mass, (recipe) =>
                        recipe.map((m): Move => (m.id === id ? { ...m, on: false } : m)),
                      ),
                  }
                : null,
          },
        )
      }),
    ),
  ],
}

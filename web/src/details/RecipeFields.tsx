import type { ComponentType } from 'react'
import type { Move } from '@geotome/core/moves'
import { numbersOf } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import type { MoveNamed, MoveProps, RecipeProps } from './moves/kind'
import { MOVES_ON_PAGE } from './moves/list'

/** A recipe, move by move. What can still be added stands below. */
export function RecipeFields({
  recipe,
  change,
  attempt,
  apart = null,
}: RecipeProps & { apart?: ((join: MoveNamed<'join'>) => void) | null }) {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  const adds = Object.values(MOVES_ON_PAGE).flatMap(({ add }) => {
    const next = add?.to(recipe, numbers)
    return add && next ? [{ label: add.label, next }] : []
  })
  return (
    <>
      {recipe.map((move) => {
        const Fields = MOVES_ON_PAGE[move.move].Fields as ComponentType<MoveProps<Move['move']>>
        return (
          <Fields
            key={move.id}
            move={move}
            recipe={recipe}
            change={change}
            attempt={attempt}
            apart={apart}
            Recipe={RecipeFields}
          />
        )
      })}
      {adds.length > 0 && (
        <div className="mb-1.5 flex flex-wrap items-center gap-1.5">
          <span className="text-[12px] text-ink2">add</span>
          {adds.map((a) => (
            <button
              key={a.label}
              className="btn btn-sm h-7 grow px-2 text-[12px]"
              onClick={() => change(a.label.toLowerCase(), a.next)}
            >
              {a.label}
            </button>
          ))}
        </div>
      )}
    </>
  )
}

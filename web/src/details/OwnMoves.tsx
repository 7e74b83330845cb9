import { offers, type Move } from '@geotome/core/moves'
import { inOrder, numbersOf, refuse } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { ChoiceField } from '../common/fields'
import { mint, type Change } from './moves/kind'
import { MoveFields } from './moves/MoveFields'
import { RecipeFields } from './RecipeFields'

interface Props {
  recipe: Move[]
  own: Move[]
  set: (moves: () => Move[]) => boolean
  attempt: (moves: (() => Move[]) | null) => void
}

/** The moves that one of a repeat or a rule has of its own, behind those that all have (`recipe`). */
export function OwnMoves({ recipe, own, set, attempt }: Props) {
  const { project, scheme } = useProject()
  const all = [...recipe, ...own]
  const fit = offers(all, numbersOf(project, scheme), mint, { others: inOrder(scheme.masses), faces: [] }).flatMap(
    ({ title, move, to }) => {
      const next = to(all)
      const last = next.at(-1)
      return last?.move === move && next.length === all.length + 1 ? [{ title, move: last }] : []
    },
  )
  const behind = (change: Change) => (): Move[] => {
    const next = change(all)
    return recipe.every((m, i) => next[i]?.id === m.id)
      ? next.slice(recipe.length)
      : refuse('geometry', 'It would stand before the moves that all have.', 'Change the original, or leave it behind.')
  }
  return (
    <>
      {own.map((move) => (
        <MoveFields
          key={move.id}
          move={move}
          recipe={all}
          change={(_, change) => set(behind(change))}
          attempt={(change) => attempt(change && behind(change))}
          apart={null}
          Recipe={RecipeFields}
        />
      ))}
      <ChoiceField
        label="of its own"
        value=""
        options={[{ value: '', label: 'a move ...' }, ...fit.map((o) => ({ value: o.move.move, label: o.title }))]}
        onChange={(kind) => {
          const chosen = fit.find((o) => o.move.move === kind)
          if (chosen) set(() => [...own, chosen.move])
        }}
      />
    </>
  )
}

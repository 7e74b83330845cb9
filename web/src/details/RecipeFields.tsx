import { levelHeights } from '@geotome/core/levels'
import { offers } from '@geotome/core/moves'
import { capital, inOrder, numbersOf } from '@geotome/core/project'
import { usePickedMasses, useProject, useViewState } from '../app/hooks'
import { mint, type MoveNamed, type RecipeProps } from './moves/kind'
import { useFlatFaces } from './moves/choices'
import { MoveFields } from './moves/MoveFields'

const GROUPS = ['plan', 'shape', 'roof', 'with others'] as const

/** A recipe, move by move. What can still be added stands below, by what it is about. */
export function RecipeFields({
  recipe,
  change,
  attempt,
  apart = null,
}: RecipeProps & { apart?: ((join: MoveNamed<'join'>) => void) | null }) {
  const { project, scheme } = useProject()
  const [own] = usePickedMasses()
  const others = inOrder(scheme.masses).filter((m) => m.id !== own?.id)
  const { storeys, spots } = useViewState('storeys', 'spots')
  const first = spots.filter((s) => s.kind === 'face' && s.mass === own?.id).flatMap((s) => s.faces)
  const faces = [...new Set([...first, ...useFlatFaces()])]
  const fit = offers(recipe, numbersOf(project, scheme), mint, { others, faces, storeys })
  return (
    <>
      {recipe.map((move) => (
        <MoveFields
          key={move.id}
          move={move}
          recipe={recipe}
          change={change}
          attempt={attempt}
          apart={apart}
          Recipe={RecipeFields}
        />
      ))}
      {storeys.length > 0 && (
        <p className="mb-1.5 text-[12px] text-ink2" role="status">
          A new move acts on the {storeys.length === 1 ? 'storey' : `${storeys.length} storeys`} chosen in the spine
          {': '}
          {levelHeights(project, scheme)
            .filter((l) => storeys.includes(l.id))
            .map((l) => l.name)
            .join(', ')}
          .
        </p>
      )}
      {GROUPS.map((group) => {
        const some = fit.filter((o) => o.group === group)
        return (
          some.length > 0 && (
            <div key={group} role="group" aria-label={`add, ${group}`} className="mb-1 flex gap-1.5">
              <span className="w-10 shrink-0 pt-1 text-[11px] leading-tight text-ink2">{group}</span>
              <div className="flex grow flex-wrap gap-1">
                {some.map((o) => (
                  <button
                    key={o.move}
                    className="btn btn-sm h-6 px-2 text-[12px]"
                    onClick={() => change(o.title, o.to)}
                  >
                    {capital(o.title)}
                  </button>
                ))}
              </div>
            </div>
          )
        )
      })}
    </>
  )
}

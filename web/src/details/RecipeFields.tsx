import { ridgeAlongOf } from '@geotome/core/form'
import { withMove, withPitch, type Move } from '@geotome/core/moves'
import { numbersOf } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { NumField } from '../common/NumField'
import { BodyFields, mint, PitchFields, RaiseFields, TaperFields, TwistFields } from './MoveFields'
import { LinkButton } from '../common/LinkButton'
import { type Change } from './recipe-props'
import { OutlineFields } from './OutlineFields'
import type { RecipeProps } from './recipe-props'

type Join = Extract<Move, { move: 'join' }>
/** A recipe, move by move; a joined body's own recipe unfolds within it. What can still be added stands below. */
export function RecipeFields({
  recipe,
  change,
  attempt,
  apart,
}: RecipeProps & { /** takes a joined body off */ apart?: (join: Join) => void }) {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  const has = (move: Move['move']) => recipe.some((m) => m.move === move)
  const fields = (move: Move) => {
    const props = { key: move.id, recipe, change, attempt }
    switch (move.move) {
      case 'outline':
        return <OutlineFields {...props} key={move.id} outline={move} />
      case 'body':
        return <BodyFields key={move.id} body={move} />
      case 'raise':
        return <RaiseFields {...props} key={move.id} raise={move} pitched={has('pitch')} />
      case 'taper':
        return <TaperFields {...props} key={move.id} taper={move} />
      case 'twist':
        return <TwistFields {...props} key={move.id} twist={move} />
      case 'pitch':
        return <PitchFields {...props} key={move.id} pitch={move} />
      case 'join':
        return (
          <details key={move.id} className="mb-1.5 rounded-md border border-line px-2.5 py-1.5">
            <summary className="cursor-pointer">
              <span className="text-ink2">joined: </span>
              {move.name}
              {move.on ? '' : ', switched off'}
            </summary>
            <div className="mt-2">
              <RecipeFields
                recipe={move.recipe}
                change={(label, next) =>
                  change(`${label} of ${move.name}`, (r) => withMove(r, move, { recipe: next(move.recipe) }))
                }
                attempt={(next) => attempt(next && ((r) => withMove(r, move, { recipe: next(move.recipe) })))}
              />
              {(['x', 'y'] as const).map((key) => (
                <NumField
                  key={key}
                  label={`${key} from its corner`}
                  value={move.place[key]}
                  onAccept={(num) =>
                    change('place', (r) => withMove(r, move, { place: { ...move.place, [key]: num } }))
                  }
                />
              ))}
              <NumField
                label="above its base by"
                value={move.lift}
                onAccept={(lift) => change('lift', (r) => withMove(r, move, { lift }))}
              />
              <p className="flex gap-4">
                <LinkButton onClick={() => change('join', (r) => withMove(r, move, { on: !move.on }))}>
                  {move.on ? 'Switch off' : 'Switch on'}
                </LinkButton>
                {apart && <LinkButton onClick={() => apart(move)}>Take it apart</LinkButton>}
              </p>
            </div>
          </details>
        )
    }
  }
  const behindRaise = (move: Move) => (r: Move[]) => {
    const at = r.findIndex((m) => m.move === 'raise') + 1
    const after = move.move === 'twist' && r[at]?.move === 'taper' ? at + 1 : at
    return [...r.slice(0, after), move, ...r.slice(after)]
  }
  const swept = has('raise') && !has('pitch')
  const adds: { label: string; off: boolean; next: Change }[] = [
    {
      label: 'Taper',
      off: !swept || has('taper'),
      next: behindRaise({ id: mint(), move: 'taper', on: true, by: { kind: 'scale', scale: 0.8 } }),
    },
    {
      label: 'Twist',
      off: !swept || has('twist'),
      next: behindRaise({ id: mint(), move: 'twist', on: true, angle: 30, from: 0, to: null }),
    },
    {
      label: 'Pitch',
      off: !has('raise') || has('pitch') || has('taper') || has('twist'),
      next: (r) => withPitch(r, mint, { angle: 35, direction: ridgeAlongOf(r, numbers) }),
    },
  ]
  return (
    <>
      {recipe.map(fields)}
      {adds.some((a) => !a.off) && (
        <div className="mb-1.5 flex items-center gap-1.5">
          <span className="text-[12px] text-ink2">add</span>
          {adds
            .filter((a) => !a.off)
            .map((a) => (
              <button
                key={a.label}
                className="act h-7 flex-1 text-[12px]"
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

import { withMove } from '@geotome/core/moves'
import { LinkButton } from '../../common/LinkButton'
import { NumField } from '../../common/NumField'
import type { MoveOnPage, MoveProps } from './kind'

export const join: MoveOnPage<'join'> = { Fields: JoinFields }

const HOW = { join: 'joined', less: 'left out', common: 'shared with', under: 'stopped under' }

/** A joined body: its own recipe unfolds within it. */
function JoinFields({ move, change, attempt, apart, Recipe }: MoveProps<'join'>) {
  return (
    <details className="mb-1.5 rounded-md border border-line px-2.5 py-1.5">
      <summary className="cursor-pointer">
        <span className="text-ink2">{HOW[move.how ?? 'join']}: </span>
        {move.name}
        {move.on ? '' : ', switched off'}
      </summary>
      <div className="mt-2">
        <Recipe
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
            onAccept={(num) => change('place', (r) => withMove(r, move, { place: { ...move.place, [key]: num } }))}
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

import type { SingleEdit } from '@geotome/core/edits'
import { kindOfMove, moveTitle, type Fielded, type Fields, type Move } from '@geotome/core/moves'
import { outlineMove, type Cell, type Rule, type Step } from '@geotome/core/rules'
import { makeEdit } from '../../app/session'
import { useProject } from '../../app/hooks'
import { withoutStep } from '@geotome/core/form'
import { worldNow } from '../../tools/at-work'
import { RecipeFields } from '../RecipeFields'
import { MoveFields } from '../moves/MoveFields'
import { SpanFields } from '../moves/SpanFields'
import { saysFields, Sentence } from './Sentence'

interface Props {
  rule: Rule
  step: Extract<Step, { step: 'move' }>
  /** the first of what it acts on */ first: Cell | undefined
  sides: readonly { value: string; label: string }[]
  change: (set: object, also?: SingleEdit[]) => boolean
  attempt: (set: object | null) => void
}

/** A move of a recipe as a step: a sentence by its fields, or the form that it has in a recipe. */
export function MoveStep({ rule, step, first, sides, change, attempt }: Props) {
  const { scheme } = useProject()
  const { move } = step
  const kind = kindOfMove(move)
  const fields = kind.fields as Fields<never>
  const title = moveTitle(move)
  if (move.move === 'raise' && !move.upTo)
    return (
      <Sentence
        says="raise by {height}"
        fields={{ height: { is: 'number', quantity: 'length', label: 'height' } } as Fields<never>}
        thing={move as unknown as Fielded}
        sides={sides}
        set={(to, also) => change({ move: { ...move, ...to } }, also)}
        attempt={(to) => attempt(to && { move: { ...move, ...to } })}
      />
    )
  if (Object.keys(fields).length > 0 && !Object.values(fields).some((f) => f.is === 'list' || f.is === 'shape'))
    return (
      <>
        <Sentence
          says={saysFields(title, fields, move as unknown as Fielded)}
          fields={fields}
          thing={move as unknown as Fielded}
          sides={sides}
          set={(to, also) => change({ move: { ...move, ...to } }, also)}
          attempt={(to) => attempt(to && { move: { ...move, ...to } })}
        />
        {kind.spans && move.span && (
          <SpanFields
            span={move.span}
            set={(span) => change({ move: { ...move, span } })}
            attempt={(span) => attempt(span === null ? null : { move: { ...move, span } })}
          />
        )}
      </>
    )
  // In its recipe it is found by its id; what the form makes of it there is what the step is to say.
  const recipe: Move[] = [...(first ? [outlineMove(first), ...first.moves.filter((m) => m.id !== step.id)] : []), move]
  const of = (made: Move[]) => made.find((m) => m.id === move.id) ?? null
  return (
    <MoveFields
      move={move}
      recipe={recipe}
      apart={null}
      Recipe={RecipeFields}
      change={(_, next) => {
        const made = of(next(recipe))
        if (made) return change({ move: { ...made, on: true }, on: made.on })
        return makeEdit(`step out of ${rule.name}`, () => withoutStep(worldNow()?.scheme ?? scheme, rule.id, step.id))
      }}
      attempt={(next) => attempt(next && { move: of(next(recipe)) ?? move })}
    />
  )
}

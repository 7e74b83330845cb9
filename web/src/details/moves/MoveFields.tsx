import { moveTitle, withMove, withoutMove, kindOfMove, type Fielded, type Fields, type Move } from '@geotome/core/moves'
import { FieldList } from './FieldList'
import type { MoveProps } from './kind'
import { MoveBox } from './MoveBox'
import { MOVES_ON_PAGE } from './list'
import { SpanFields } from './SpanFields'
import type { ComponentType } from 'react'

/** A move in the details: as its kind says, with what the page adds for it, or by a form of its own. */
export function MoveFields(props: MoveProps<Move['move']>) {
  const { move, recipe, change, attempt } = props
  const onPage = MOVES_ON_PAGE[move.move]
  if (onPage?.Fields) {
    const Own = onPage.Fields as ComponentType<MoveProps<Move['move']>>
    return <Own {...props} />
  }
  const kind = kindOfMove(move)
  const title = moveTitle(move)
  const changed = (fields: object) => (r: Move[]) => withMove(r, move, fields as Partial<Move>)
  const tried = (fields: object | null) => attempt(fields && changed(fields))
  const More = onPage?.More as ComponentType<MoveProps<Move['move']>> | undefined
  return (
    <MoveBox move={move} recipe={recipe} title={title} change={change} off={(r) => withoutMove(r, move)}>
      <FieldList
        fields={kind.fields as Fields<never>}
        thing={move as unknown as Fielded}
        recipe={recipe}
        set={(fields) => change(title, changed(fields))}
        attempt={tried}
      />
      {kind.spans && (
        <SpanFields
          span={move.span}
          set={(span) => change(title, changed({ span }))}
          attempt={(span) => tried(span === null ? null : { span })}
        />
      )}
      {More && <More {...props} />}
    </MoveBox>
  )
}

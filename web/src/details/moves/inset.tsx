import { withMove } from '@geotome/core/moves'
import { NumField } from '../../common/NumField'
import { mint, placed, type MoveOnPage, type MoveProps } from './kind'
import { MoveBox } from './MoveBox'

export const inset: MoveOnPage<'inset'> = {
  Fields: InsetFields,
  add: { label: 'Inset', to: (recipe) => placed(recipe, { id: mint(), move: 'inset', on: true, by: 1 }) },
}

function InsetFields({ move: inset, change, attempt }: MoveProps<'inset'>) {
  return (
    <MoveBox move={inset} title="inset" change={change} off={(r) => r.filter((m) => m.id !== inset.id)}>
      <NumField
        label="every side in by"
        value={inset.by}
        hint="Square to each side; below zero out."
        onAccept={(by) => change('inset', (r) => withMove(r, inset, { by }))}
        onTry={(by) => attempt(by === null ? null : (r) => withMove(r, inset, { by }))}
      />
    </MoveBox>
  )
}

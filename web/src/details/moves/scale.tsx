import { withMove } from '@geotome/core/moves'
import { NumField } from '../../common/NumField'
import { mint, placed, type MoveOnPage, type MoveProps } from './kind'
import { MoveBox } from './MoveBox'

export const scale: MoveOnPage<'scale'> = {
  Fields: ScaleFields,
  add: { label: 'Scale', to: (recipe) => placed(recipe, { id: mint(), move: 'scale', on: true, by: 1.1 }) },
}

function ScaleFields({ move: scale, change, attempt }: MoveProps<'scale'>) {
  return (
    <MoveBox move={scale} title="scale" change={change} off={(r) => r.filter((m) => m.id !== scale.id)}>
      <NumField
        label="plan times"
        quantity="number"
        value={scale.by}
        hint="About the middle of its area; heights stay."
        onAccept={(by) => change('scale', (r) => withMove(r, scale, { by }))}
        onTry={(by) => attempt(by === null ? null : (r) => withMove(r, scale, { by }))}
      />
    </MoveBox>
  )
}

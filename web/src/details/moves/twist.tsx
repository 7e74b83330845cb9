import { withMove } from '@geotome/core/moves'
import { ChoiceField } from '../../common/fields'
import { NumField } from '../../common/NumField'
import { has, isSwept, mint, placed, type MoveOnPage, type MoveProps } from './kind'
import { MoveBox } from './MoveBox'

export const twist: MoveOnPage<'twist'> = {
  Fields: TwistFields,
  add: {
    label: 'Twist',
    to: (recipe) =>
      isSwept(recipe) && !has(recipe, 'twist')
        ? placed(recipe, { id: mint(), move: 'twist', on: true, angle: 30, from: 0, to: null })
        : null,
  },
}

function TwistFields({ move: twist, change, attempt }: MoveProps<'twist'>) {
  return (
    <MoveBox move={twist} title="twist" change={change} off={(r) => r.filter((m) => m.id !== twist.id)}>
      <NumField
        label="turns by"
        quantity="angle"
        value={twist.angle}
        onAccept={(angle) => change('twist', (r) => withMove(r, twist, { angle }))}
        onTry={(angle) => attempt(angle === null ? null : (r) => withMove(r, twist, { angle }))}
      />
      <NumField
        label="from"
        value={twist.from}
        hint="Above its base."
        onAccept={(from) => change('twist', (r) => withMove(r, twist, { from }))}
      />
      <ChoiceField
        label="to"
        value={twist.to === null ? 'top' : 'height'}
        options={[
          { value: 'top' as const, label: 'its top' },
          { value: 'height' as const, label: 'a height' },
        ]}
        onChange={(to) => change('twist', (r) => withMove(r, twist, { to: to === 'top' ? null : 6 }))}
      />
      {twist.to !== null && (
        <NumField
          label="height"
          value={twist.to}
          onAccept={(to) => change('twist', (r) => withMove(r, twist, { to }))}
        />
      )}
    </MoveBox>
  )
}

import { withMove, type Move } from '@geotome/core/moves'
import { NumField } from '../../common/NumField'
import { LevelChoice, SideChoice, sidesOf } from './choices'
import { has, mint, placed, type MoveNamed, type MoveOnPage, type MoveProps } from './kind'
import { MoveBox } from './MoveBox'

export const pull: MoveOnPage<'pull'> = {
  Fields: PullFields,
  add: {
    label: 'Pull',
    to: (recipe, numbers) => {
      const [side] = sidesOf(recipe, numbers)
      const ends = { from: 0, fromLevel: null, to: null, toLevel: null }
      return side !== undefined && has(recipe, 'raise') && !has(recipe, 'taper') && !has(recipe, 'twist')
        ? placed(recipe, { id: mint(), move: 'pull', on: true, side, by: 1, ...ends })
        : null
    },
  },
}

function PullFields({ recipe, move: pull, change, attempt }: MoveProps<'pull'>) {
  const set = (fields: Partial<MoveNamed<'pull'>>) => (r: Move[]) => withMove(r, pull, fields)
  return (
    <MoveBox move={pull} title="pull" change={change} off={(r) => r.filter((m) => m.id !== pull.id)}>
      <SideChoice recipe={recipe} side={pull.side} onChange={(side) => side && change('pull', set({ side }))} />
      <NumField
        label="out by"
        value={pull.by}
        hint="Square to the side; below zero in."
        onAccept={(by) => change('pull', set({ by }))}
        onTry={(by) => attempt(by === null ? null : set({ by }))}
      />
      <LevelChoice
        label="from"
        at={pull.fromLevel}
        otherwise="a height"
        onChange={(fromLevel) => change('pull', set({ fromLevel }))}
      />
      {pull.fromLevel === null && (
        <NumField
          label="from height"
          value={pull.from}
          hint="Above its base."
          onAccept={(from) => change('pull', set({ from }))}
          onTry={(from) => attempt(from === null ? null : set({ from }))}
        />
      )}
      <LevelChoice
        label="up to"
        at={pull.toLevel}
        otherwise={pull.to === null ? 'its top' : 'a height'}
        onChange={(toLevel) => change('pull', set({ toLevel, to: null }))}
      />
    </MoveBox>
  )
}

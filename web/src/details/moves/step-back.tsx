import { withMove, type Move } from '@geotome/core/moves'
import { NumField } from '../../common/NumField'
import { mint, has, placed, type MoveNamed, type MoveOnPage, type MoveProps } from './kind'
import { LevelChoice, SideChoice } from './choices'
import { MoveBox } from './MoveBox'

export const stepBack: MoveOnPage<'step-back'> = {
  Fields: StepBackFields,
  add: {
    label: 'Step back',
    to: (recipe) =>
      has(recipe, 'raise') && !has(recipe, 'taper') && !has(recipe, 'twist')
        ? placed(recipe, { id: mint(), move: 'step-back', on: true, side: null, by: 1.5, from: 3, level: null })
        : null,
  },
}

function StepBackFields({ recipe, move: step, change, attempt }: MoveProps<'step-back'>) {
  const set = (fields: Partial<MoveNamed<'step-back'>>) => (r: Move[]) => withMove(r, step, fields)
  return (
    <MoveBox move={step} title="step back" change={change} off={(r) => r.filter((m) => m.id !== step.id)}>
      <LevelChoice
        label="from"
        at={step.level}
        otherwise="a height"
        onChange={(level) => change('step back', set({ level }))}
      />
      {step.level === null && (
        <NumField
          label="height"
          value={step.from}
          hint="Above its base."
          onAccept={(from) => change('step back', set({ from }))}
          onTry={(from) => attempt(from === null ? null : set({ from }))}
        />
      )}
      <SideChoice recipe={recipe} side={step.side} all="all" onChange={(side) => change('step back', set({ side }))} />
      <NumField
        label="back by"
        value={step.by}
        onAccept={(by) => change('step back', set({ by }))}
        onTry={(by) => attempt(by === null ? null : set({ by }))}
      />
    </MoveBox>
  )
}

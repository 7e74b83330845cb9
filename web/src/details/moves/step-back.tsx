import { levelHeights } from '@geotome/core/levels'
import { planOf, withMove, type Move } from '@geotome/core/moves'
import { heightsOf, numbersOf, showNumber } from '@geotome/core/project'
import { faceLabel } from '@geotome/core/solid'
import { usePickedMasses, useProject } from '../../app/hooks'
import { ChoiceField } from '../../common/fields'
import { NumField } from '../../common/NumField'
import { mint, has, placed, type MoveNamed, type MoveOnPage, type MoveProps } from './kind'
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
  const { project, scheme } = useProject()
  const [mass] = usePickedMasses()
  const numbers = numbersOf(project, scheme)
  const heights = heightsOf(scheme, numbers)
  const base = mass ? (heights.get(mass.base.level) ?? 0) + numbers.length(mass.base.above) : 0
  const levels = levelHeights(project, scheme).filter((l) => l.height > base + 1e-3)
  const sides = [...new Set(planOf(recipe, numbers).flatMap((l) => l.edges))]
  const set = (fields: Partial<MoveNamed<'step-back'>>) => (r: Move[]) => withMove(r, step, fields)
  return (
    <MoveBox move={step} title="step back" change={change} off={(r) => r.filter((m) => m.id !== step.id)}>
      <ChoiceField
        label="from"
        value={step.level?.level ?? ''}
        options={[
          { value: '', label: 'a height' },
          ...[...levels]
            .reverse()
            .map((l) => ({ value: l.id, label: `${l.name}  ${showNumber(l.height, 'length', project)}` })),
        ]}
        onChange={(level) => change('step back', set({ level: level === '' ? null : { level, above: 0 } }))}
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
      <ChoiceField
        label="side"
        value={step.side ?? ''}
        options={[
          { value: '', label: 'all' },
          ...sides.map((edge) => ({ value: edge, label: faceLabel(`${step.id}/${edge}`) })),
        ]}
        onChange={(side) => change('step back', set({ side: side === '' ? null : side }))}
      />
      <NumField
        label="back by"
        value={step.by}
        onAccept={(by) => change('step back', set({ by }))}
        onTry={(by) => attempt(by === null ? null : set({ by }))}
      />
    </MoveBox>
  )
}

import { planOf, raisedBy, ridgeHeight, withMove, withPitch } from '@geotome/core/moves'
import { heightsOf, numbersOf, showQuantity } from '@geotome/core/project'
import { usePickedMasses, useProject } from '../../app/hooks'
import { Figure } from '../../common/fields'
import { DirectionField } from '../../common/DirectionField'
import { NumField } from '../../common/NumField'
import { mint, type MoveOnPage, type MoveProps } from './kind'
import { MoveBox } from './MoveBox'

export const pitch: MoveOnPage<'pitch'> = { Fields: PitchFields }

function PitchFields({ recipe, move: pitch, change, attempt }: MoveProps<'pitch'>) {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  const [mass] = usePickedMasses()
  const heights = heightsOf(scheme, numbers)
  const base = mass ? (heights.get(mass.base.level) ?? 0) + numbers.length(mass.base.above) : 0
  const [plan] = planOf(recipe, numbers, mass?.name)
  const raise = recipe.find((m) => m.move === 'raise')
  const ridge =
    plan && raise
      ? ridgeHeight(
          plan.points,
          raisedBy(raise, { ...numbers, base, heights }),
          numbers.angle(pitch.angle),
          numbers.angle(pitch.direction),
        )
      : null
  return (
    <MoveBox move={pitch} recipe={recipe} title="pitch" change={change} off={(r) => withPitch(r, mint, null)}>
      <NumField
        label="roof angle"
        quantity="angle"
        value={pitch.angle}
        onAccept={(angle) => change('roof angle', (r) => withMove(r, pitch, { angle }))}
        onTry={(angle) => attempt(angle === null ? null : (r) => withMove(r, pitch, { angle }))}
      />
      <DirectionField
        label="ridge direction"
        kept={pitch.direction}
        turn={mass ? numbers.angle(mass.place.turn) : 0}
        onAccept={(direction) => change('ridge direction', (r) => withMove(r, pitch, { direction }))}
        onTry={(direction) => attempt(direction === null ? null : (r) => withMove(r, pitch, { direction }))}
      />
      {ridge !== null && pitch.on && (
        <Figure label="ridge height">
          <span data-figure="ridge">{showQuantity(ridge, 'length', project)}</span>
        </Figure>
      )}
    </MoveBox>
  )
}

import { keepRest } from '@geotome/core/form'
import { planOf, withMove, type Move } from '@geotome/core/moves'
import type { Num, Numbers } from '@geotome/core/project'
import { rectOf } from '@geotome/core/solid'
import { usePickedMasses, useProject } from '../../app/hooks'
import { makeEdit } from '../../app/session'
import { ChoiceField } from '../../common/fields'
import { LinkButton } from '../../common/LinkButton'
import { NumField } from '../../common/NumField'
import { mint, placed, type MoveNamed, type MoveOnPage, type MoveProps } from './kind'
import { MoveBox } from './MoveBox'

export const cut: MoveOnPage<'cut'> = {
  Fields: CutFields,
  add: { label: 'Cut', to: (recipe, numbers) => placed(recipe, across(recipe, numbers)) },
}

/** An upright cut across the middle, square to the x axis: both sides of it are there to be kept. */
function across(recipe: Move[], numbers: Numbers): Move {
  const plan = planOf(recipe, numbers).map((l) => l.points)
  const { x0, x1, y0 } = plan.length ? rectOf(plan) : { x0: 0, x1: 0, y0: 0 }
  const round = (v: number) => Math.round(v * 100) / 100
  return {
    id: mint(),
    move: 'cut',
    on: true,
    x: round((x0 + x1) / 2),
    y: round(y0),
    z: 0,
    direction: 90,
    rises: 90,
    keeps: 'below',
  }
}

function CutFields({ move: cut, change, attempt }: MoveProps<'cut'>) {
  const { scheme } = useProject()
  const [mass] = usePickedMasses()
  const field = (label: string, key: 'x' | 'y' | 'z' | 'direction' | 'rises', hint?: string) => {
    const set = (num: Num) => (r: Move[]) => withMove(r, cut, { [key]: num } as Partial<MoveNamed<'cut'>>)
    return (
      <NumField
        label={label}
        quantity={key === 'direction' || key === 'rises' ? 'angle' : 'length'}
        value={cut[key]}
        hint={hint}
        onAccept={(num) => change('cut', set(num))}
        onTry={(num) => attempt(num === null ? null : set(num))}
      />
    )
  }
  const inRecipe = mass?.recipe.some((m) => m.id === cut.id)
  return (
    <MoveBox move={cut} title="cut" change={change} off={(r) => r.filter((m) => m.id !== cut.id)}>
      {field('line through x', 'x', 'In the mass\u2019s own frame, from its place.')}
      {field('y', 'y')}
      {field('at height', 'z', 'Above its base.')}
      {field('line runs to', 'direction', '0 along its x axis, 90 to the left of it.')}
      {field('rises to the left by', 'rises', '0 is level, 90 upright.')}
      <ChoiceField
        label="keep"
        value={cut.keeps}
        options={[
          { value: 'below', label: 'below it, or to the left' },
          { value: 'above', label: 'above it, or to the right' },
        ]}
        onChange={(keeps) => change('cut', (r) => withMove(r, cut, { keeps }))}
      />
      {mass && inRecipe && cut.on && (
        <LinkButton
          onClick={() => makeEdit(`keep the rest of ${mass.name}`, () => keepRest(scheme, mint, mass.id, cut.id))}
        >
          Keep the rest as a mass
        </LinkButton>
      )}
    </MoveBox>
  )
}

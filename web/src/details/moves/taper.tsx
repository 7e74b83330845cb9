import { withMove, type TaperBy } from '@geotome/core/moves'
import { ChoiceField } from '../../common/fields'
import { NumField } from '../../common/NumField'
import type { Change, MoveOnPage, MoveProps } from './kind'
import { SpanFields } from './SpanFields'
import { MoveBox } from './MoveBox'

export const taper: MoveOnPage<'taper'> = { Fields: TaperFields }

function TaperFields({ move: taper, recipe, change, attempt }: MoveProps<'taper'>) {
  const set =
    (by: TaperBy): Change =>
    (r) =>
      withMove(r, taper, { by })
  const kinds = [
    { value: 'scale' as const, label: 'to a scale at the top' },
    { value: 'lean' as const, label: 'by an angle, all sides' },
  ]
  return (
    <MoveBox move={taper} recipe={recipe} title="taper" change={change} off={(r) => r.filter((m) => m.id !== taper.id)}>
      <ChoiceField
        label="sides lean"
        value={taper.by.kind}
        options={kinds}
        onChange={(kind) => change('taper', set(kind === 'scale' ? { kind, scale: 0.8 } : { kind, angle: 5 }))}
      />
      {taper.by.kind === 'scale' ? (
        <NumField
          label="scale at the top"
          quantity="number"
          value={taper.by.scale}
          hint="1 is upright, 0 comes to a point"
          onAccept={(scale) => change('taper', set({ kind: 'scale', scale }))}
          onTry={(scale) => attempt(scale === null ? null : set({ kind: 'scale', scale }))}
        />
      ) : (
        <NumField
          label="from upright"
          quantity="angle"
          value={taper.by.angle}
          hint="Above zero leans in, below zero out."
          onAccept={(angle) => change('taper', set({ kind: 'lean', angle }))}
          onTry={(angle) => attempt(angle === null ? null : set({ kind: 'lean', angle }))}
        />
      )}
      {taper.by.kind === 'scale' && (
        <SpanFields
          span={taper.span}
          set={(span) => change('taper', (r) => withMove(r, taper, { span }))}
          attempt={(span) => attempt(span === null ? null : (r) => withMove(r, taper, { span }))}
        />
      )}
    </MoveBox>
  )
}

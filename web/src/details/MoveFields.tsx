import type { ReactNode } from 'react'
import { levelHeights } from '@geotome/core/levels'
import { outlinesOf, raisedBy, ridgeHeight, withMove, withPitch, type Move, type TaperBy } from '@geotome/core/moves'
import { heightsOf, numbersOf, showNumber, showQuantity, tidy } from '@geotome/core/project'
import { usePickedMasses, useProject } from '../app/hooks'
import { ChoiceField, Figure } from '../common/fields'
import { NumField } from '../common/NumField'
import type { Change, RecipeProps } from './recipe-props'
import { LinkButton } from '../common/LinkButton'

type Of<M extends Move['move']> = Extract<Move, { move: M }>
export const mint = () => crypto.randomUUID()
/** A move in its box, with its switch and the way to take it off. */
function MoveBox({
  move,
  title,
  change,
  off,
  children,
}: {
  move: Move
  title: string
  change: RecipeProps['change']
  off: Change
  children: ReactNode
}) {
  return (
    <div className="mt-1 mb-1.5 rounded-md border border-line p-2">
      <p className="mb-1 text-[11px] text-ink2">{title}</p>
      {children}
      <p className="mt-1.5 flex gap-4">
        <LinkButton onClick={() => change(title, (r) => withMove(r, move, { on: !move.on }))}>
          {move.on ? 'Switch off' : 'Switch on'}
        </LinkButton>
        <LinkButton onClick={() => change(title, off)}>Take the {title} off</LinkButton>
      </p>
    </div>
  )
}

/** By a height, or up to a level and so much above it. */
export function RaiseFields({
  raise,
  pitched,
  change,
  attempt,
}: RecipeProps & { raise: Of<'raise'>; pitched: boolean }) {
  const { project, scheme } = useProject()
  const [mass] = usePickedMasses()
  const numbers = numbersOf(project, scheme)
  const heights = heightsOf(scheme, numbers)
  const base = mass ? (heights.get(mass.base.level) ?? 0) + numbers.length(mass.base.above) : 0
  const levels = levelHeights(project, scheme).filter((l) => l.height > base + 1e-3)
  const now = raisedBy(raise, { ...numbers, base, heights })
  const set = (level: string) => {
    if (level === '') {
      change('raise', (r) => withMove(r, raise, { upTo: null, height: tidy(now) }))
      return
    }
    change('raise', (r) => withMove(r, raise, { upTo: { level, above: 0 } }))
  }
  return (
    <>
      <ChoiceField
        label={pitched ? 'eaves, up to' : 'up to'}
        value={raise.upTo?.level ?? ''}
        options={[
          { value: '', label: 'its own height' },
          ...[...levels]
            .reverse()
            .map((l) => ({ value: l.id, label: `${l.name}  ${showNumber(l.height, 'length', project)}` })),
          ...(raise.upTo && !levels.some((l) => l.id === raise.upTo?.level)
            ? [{ value: raise.upTo.level, label: scheme.levels[raise.upTo.level]?.name ?? 'a level' }]
            : []),
        ]}
        onChange={set}
      />
      {raise.upTo ? (
        <NumField
          label="above that level by"
          value={raise.upTo.above}
          hint={`${showQuantity(now, 'length', project)} high; it follows the level`}
          onAccept={(above) =>
            change('height', (r) => withMove(r, raise, { upTo: raise.upTo && { ...raise.upTo, above } }))
          }
        />
      ) : (
        <NumField
          label={pitched ? 'eaves height' : 'height'}
          value={raise.height}
          onAccept={(height) => change('height', (r) => withMove(r, raise, { height }))}
          onTry={(height) => attempt(height === null ? null : (r) => withMove(r, raise, { height }))}
        />
      )}
    </>
  )
}

export function TaperFields({ taper, change, attempt }: RecipeProps & { taper: Of<'taper'> }) {
  const set =
    (by: TaperBy): Change =>
    (r) =>
      withMove(r, taper, { by })
  const kinds = [
    { value: 'scale' as const, label: 'to a scale at the top' },
    { value: 'lean' as const, label: 'by an angle, all sides' },
  ]
  return (
    <MoveBox move={taper} title="taper" change={change} off={(r) => r.filter((m) => m.id !== taper.id)}>
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
    </MoveBox>
  )
}

export function TwistFields({ twist, change, attempt }: RecipeProps & { twist: Of<'twist'> }) {
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

export function PitchFields({ recipe, pitch, change, attempt }: RecipeProps & { pitch: Of<'pitch'> }) {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  const [mass] = usePickedMasses()
  const heights = heightsOf(scheme, numbers)
  const base = mass ? (heights.get(mass.base.level) ?? 0) + numbers.length(mass.base.above) : 0
  const [outline, raise] = [recipe.find((m) => m.move === 'outline'), recipe.find((m) => m.move === 'raise')]
  const ridge =
    outline && raise
      ? ridgeHeight(
          outlinesOf(outline, numbers)[0]?.points ?? [],
          raisedBy(raise, { ...numbers, base, heights }),
          numbers.angle(pitch.angle),
          numbers.angle(pitch.direction),
        )
      : null
  return (
    <MoveBox move={pitch} title="pitch" change={change} off={(r) => withPitch(r, mint, null)}>
      <NumField
        label="roof angle"
        quantity="angle"
        value={pitch.angle}
        onAccept={(angle) => change('roof angle', (r) => withMove(r, pitch, { angle }))}
        onTry={(angle) => attempt(angle === null ? null : (r) => withMove(r, pitch, { angle }))}
      />
      <NumField
        label="ridge direction"
        quantity="angle"
        value={pitch.direction}
        onAccept={(direction) => change('ridge direction', (r) => withMove(r, pitch, { direction }))}
        hint="0 runs east, 90 north"
      />
      {ridge !== null && pitch.on && (
        <Figure label="ridge height">
          <span data-figure="ridge">{showQuantity(ridge, 'length', project)}</span>
        </Figure>
      )}
    </MoveBox>
  )
}

export const BodyFields = ({ body }: { body: Of<'body'> }) => (
  <div className="mb-1.5 rounded-md border border-line p-2">
    <Figure label="body from">{body.file}</Figure>
    <Figure label="faces">{body.faces.length}</Figure>
  </div>
)

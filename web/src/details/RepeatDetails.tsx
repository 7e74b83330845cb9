import { Trash2 } from 'lucide-react'
import {
  beginsOf,
  changeRepeat,
  detachRepeated,
  grown,
  leaveOut,
  ownHeight,
  ownMoves,
  ownUse,
} from '@geotome/core/form'
import type { Fielded, Fields } from '@geotome/core/moves'
import { inOrder, numbersOf, showNumber, type Scheme } from '@geotome/core/project'
import { REPEAT_FIELDS, UP_FIELDS, wayKind, WAYS, type Repeat, type Way } from '@geotome/core/repeats'
import { useProject, useStudy, useUses } from '../app/hooks'
import { makeEdit, tryEdit } from '../app/session'
import { useAppDispatch } from '../app/store'
import { picked } from '../app/view-slice'
import { ChoiceField, Figure, NameField, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { LinkButton } from '../common/LinkButton'
import { worldNow } from '../tools/at-work'
import { FieldList } from './moves/FieldList'
import { mint } from './moves/kind'
import { OwnMoves } from './OwnMoves'
import { PointsSource } from './PointsSource'
import { inUnits } from '../common/tell'

/** A repeat: what it is of, where it leads, its exceptions; and the one of it that is picked, by its key. */
export function RepeatDetails({ repeat, one }: { repeat: Repeat; one: string | null }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const study = useStudy()
  const uses = useUses()
  const own = (study?.masses ?? []).filter((m) => m.grown?.by === 'repeat' && m.grown.id === repeat.id)
  const numbers = numbersOf(project, scheme)
  const set = (label: string, fields: Partial<Omit<Repeat, 'id'>>) =>
    makeEdit(`${label} of ${repeat.name}`, () => changeRepeat(schemeNow(scheme), repeat.id, fields))
  const attempt = (fields: Partial<Omit<Repeat, 'id'>> | null) =>
    tryEdit(fields && (() => changeRepeat(schemeNow(scheme), repeat.id, fields)))
  const masses = repeat.of.flatMap((id) => scheme.masses[id] ?? [])
  const raise = masses[0]?.recipe.find((m) => m.move === 'raise')
  const raised = raise?.move === 'raise' ? (raise.upTo ? null : numbers.length(raise.height)) : null
  const others = inOrder(scheme.masses).flatMap((m) => (repeat.of.includes(m.id) ? [] : [m.id]))
  const detach = (key: string | null, what: string) => {
    const now = worldNow()
    if (!now) return
    const growth = grown(now.project, now.scheme)
    if (makeEdit(what, () => detachRepeated(now.scheme, growth, mint, repeat.id, key)))
      dispatch(picked(key === null ? { kind: 'nothing' } : { kind: 'repeat', ids: [repeat.id], one: null }))
  }
  const bodies = `${own.length} ${own.length === 1 ? 'body' : 'bodies'}`
  return (
    <>
      <p className="eyebrow mb-2">Repeat</p>
      <NameField label="name" value={repeat.name} onAccept={(name) => set('name', { name })} />
      <Figure label="of">{masses.map((m) => m.name).join(', ') || 'masses that are gone'}</Figure>
      <Figure label="makes, besides the original">{bodies}</Figure>
      <div className="mt-2" />
      <ChoiceField
        label="stands"
        value={repeat.way.way}
        options={WAYS.filter((k) => !k.reads || others.length > 0 || k.way === repeat.way.way).map((k) => ({
          value: k.way,
          label: k.called,
        }))}
        onChange={(way) =>
          set('way', { way: { way, ...wayKind({ way }).starts(beginsOf(masses, numbers, others)) } as unknown as Way })
        }
      />
      <FieldList
        fields={wayKind(repeat.way).fields as Fields<never>}
        thing={repeat.way as unknown as Fielded}
        recipe={[]}
        set={(to) => set('way', { way: { ...repeat.way, ...to } as Way })}
        attempt={(to) => attempt(to && { way: { ...repeat.way, ...to } as Way })}
      />
      {repeat.way.way === 'points' && <PointsSource set={(list) => set('points', { way: { way: 'points', list } })} />}
      <FieldList
        fields={REPEAT_FIELDS as Fields<never>}
        thing={repeat as unknown as Fielded}
        recipe={[]}
        set={(to) => set('number', to)}
        attempt={(to) => attempt(to)}
      />
      {wayKind(repeat.way).says?.(repeat.way as never, numbers) && (
        <Figure label="along it">{inUnits(wayKind(repeat.way).says?.(repeat.way as never, numbers) ?? '')}</Figure>
      )}
      <ChoiceField
        label="every other one"
        value={repeat.mirrored ? 'mirrored' : 'alike'}
        options={[
          { value: 'alike', label: 'like the first' },
          { value: 'mirrored', label: 'mirrored' },
        ]}
        onChange={(how) => set('mirroring', { mirrored: how === 'mirrored' })}
      />
      <ChoiceField
        label="the last one is"
        value={repeat.own.last?.use ?? ''}
        options={[{ value: '', label: 'like the others' }, ...uses.map((u) => ({ value: u.id, label: u.name }))]}
        onChange={(use) => makeEdit('use of the last', () => ownUse(schemeNow(scheme), repeat.id, 'last', use || null))}
      />
      <ChoiceField
        label="goes up"
        value={repeat.up ? 'up' : 'no'}
        options={[
          { value: 'no', label: 'on its own storey only' },
          { value: 'up', label: 'the storeys' },
        ]}
        onChange={(how) => set('storeys', { up: how === 'up' ? { storeys: null, high: 'drawn', shift: 0 } : null })}
      />
      {repeat.up && (
        <FieldList
          fields={UP_FIELDS as Fields<never>}
          thing={repeat.up as unknown as Fielded}
          recipe={[]}
          set={(to) => set('storeys', { up: { ...repeat.up, ...to } as Repeat['up'] })}
          attempt={(to) => attempt(to && { up: { ...repeat.up, ...to } as Repeat['up'] })}
        />
      )}
      {one !== null && (
        <Section title="The picked one">
          <Figure label="key">{shortKey(one, scheme)}</Figure>
          <ChoiceField
            label="use"
            value={repeat.own[one]?.use ?? ''}
            options={[{ value: '', label: 'as the original' }, ...uses.map((u) => ({ value: u.id, label: u.name }))]}
            onChange={(use) => makeEdit('use of one', () => ownUse(scheme, repeat.id, one, use || null))}
          />
          {raised !== null && (
            <NumField
              label="height"
              value={repeat.own[one]?.high ?? raised}
              onAccept={(_, high) =>
                makeEdit('height of one', () => ownHeight(schemeNow(scheme), repeat.id, one, high))
              }
            />
          )}
          {masses[0] && (
            <OwnMoves
              recipe={masses[0].recipe}
              own={repeat.own[one]?.moves ?? []}
              set={(moves) => makeEdit('moves of one', () => ownMoves(schemeNow(scheme), repeat.id, one, moves()))}
              attempt={(moves) => tryEdit(moves && (() => ownMoves(schemeNow(scheme), repeat.id, one, moves())))}
            />
          )}
          <div className="flex flex-wrap gap-1">
            <button
              className="btn btn-sm h-7 grow px-2 text-[12px]"
              onClick={() =>
                makeEdit('leave one out', () => leaveOut(scheme, repeat.id, one, true)) &&
                dispatch(picked({ kind: 'repeat', ids: [repeat.id], one: null }))
              }
            >
              Leave it out
            </button>
            <button
              className="btn btn-sm h-7 grow px-2 text-[12px]"
              onClick={() => detach(one, `detach one of ${repeat.name}`)}
            >
              Detach it
            </button>
          </div>
        </Section>
      )}
      {(repeat.out.length > 0 || Object.keys(repeat.own).length > 0) && (
        <Section title="Exceptions">
          <ul>
            {repeat.out.map((key) => (
              <li key={key} className="flex justify-between py-0.5">
                <span>{shortKey(key, scheme)}, left out</span>
                <LinkButton onClick={() => makeEdit('take one back', () => leaveOut(scheme, repeat.id, key, false))}>
                  Take back
                </LinkButton>
              </li>
            ))}
            {Object.entries(repeat.own).map(([key, { use, high, moves }]) => (
              <li key={key} className="flex justify-between py-0.5">
                <span>
                  {shortKey(key, scheme)},{' '}
                  {[
                    use === null ? null : project.uses[use]?.name,
                    high === undefined ? null : `${showNumber(high, 'length', project)} high`,
                    moves ? 'moves of its own' : null,
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </span>
                <LinkButton
                  onClick={() =>
                    makeEdit('take one back', () => {
                      const { [key]: _, ...rest } = schemeNow(scheme).repeats[repeat.id]?.own ?? {}
                      return changeRepeat(schemeNow(scheme), repeat.id, { own: rest })
                    })
                  }
                >
                  Take back
                </LinkButton>
              </li>
            ))}
          </ul>
        </Section>
      )}
      <Section title="Whole">
        <div className="flex flex-wrap gap-1">
          <button
            className="btn btn-sm h-7 grow px-2 text-[12px]"
            onClick={() => dispatch(picked({ kind: 'mass', ids: masses.map((m) => m.id) }))}
          >
            Pick the original: changes {own.length}
          </button>
          <button
            className="btn btn-sm h-7 grow px-2 text-[12px]"
            disabled={own.length === 0}
            onClick={() => detach(null, `detach all of ${repeat.name}`)}
          >
            Detach all {own.length}
          </button>
        </div>
      </Section>
      <button
        className="btn btn-sm w-full text-error"
        onClick={() =>
          makeEdit(`remove ${repeat.name}`, { edit: 'repeat.remove', scheme: scheme.id, id: repeat.id }) &&
          dispatch(picked({ kind: 'nothing' }))
        }
      >
        <Trash2 size={14} /> Remove the repeat, {bodies}
      </button>
    </>
  )
}

/** The scheme without what is tried on it. */
const schemeNow = (shown: Scheme): Scheme => worldNow()?.scheme ?? shown

/** A key as a person reads it: with its storey's name. */
function shortKey(key: string, scheme: Scheme): string {
  const level = Object.values(scheme.levels).find((l) => key.endsWith(`-${l.id}`))
  return level ? `${key.slice(0, -level.id.length - 1)}, ${level.name}` : key
}

import { Plus, X } from 'lucide-react'
import {
  beginningOf,
  type Field,
  type Fielded,
  type Fields,
  type Item,
  type Move,
  type OutlineShape,
} from '@geotome/core/moves'
import { inOrder, numbersOf, type AtLevel, type Num, type Quantity } from '@geotome/core/project'
import { usePickedMasses, useProject } from '../../app/hooks'
import { ChoiceField } from '../../common/fields'
import { LinkButton } from '../../common/LinkButton'
import { DirectionField } from '../../common/DirectionField'
import { NumField } from '../../common/NumField'
import { ShapeFields } from '../OutlineFields'
import { InlineList } from '../rules/inline-choices'
import { FaceChoice, LevelChoice, SideChoice } from './choices'
import { mint } from './kind'

interface Props {
  fields: Fields<never>
  thing: Fielded
  recipe: Move[]
  set: (fields: Fielded) => boolean
  /** tries some while typing; null takes it back */ attempt: (fields: Fielded | null) => void
}

/** The fields of a move, or of a thing in one of its lists, as its kind says them. */
export function FieldList({ fields, ...props }: Props) {
  return (
    <>
      {Object.entries(fields).map(([key, field]) =>
        field.when && !field.when(props.thing as never) ? null : (
          <OneField key={key} name={key} field={field} {...props} />
        ),
      )}
    </>
  )
}

function OneField({
  name: key,
  field,
  thing,
  recipe,
  set,
  attempt,
}: Omit<Props, 'fields'> & { name: string; field: Field }) {
  const { project, scheme } = useProject()
  const [mass] = usePickedMasses()
  const number = (label: string, quantity: Quantity, hint?: string) =>
    field.is === 'number' && field.direction ? (
      <DirectionField
        label={label}
        kept={(thing[key] ?? field.absent) as Num}
        turn={field.direction === 'mass' && mass ? numbersOf(project, scheme).angle(mass.place.turn) : 0}
        of={field.direction === 'rule' ? 'the rule' : ''}
        hint={hint ?? ''}
        onAccept={(num) => set({ [key]: num })}
        onTry={(num) => attempt(num === null ? null : { [key]: num })}
      />
    ) : (
      <NumField
        label={label}
        quantity={quantity}
        value={(thing[key] ?? field.absent) as Num}
        hint={hint}
        onAccept={(num) => set({ [key]: num })}
        onTry={(num) => attempt(num === null ? null : { [key]: num })}
      />
    )
  switch (field.is) {
    case 'number':
      if (field.otherwise === undefined) return number(field.label, field.quantity, field.hint)
      return (
        <>
          <ChoiceField
            label={field.label}
            value={thing[key] === null ? 'none' : 'own'}
            options={[
              { value: 'none' as const, label: field.otherwise },
              { value: 'own' as const, label: field.quantity === 'length' ? 'a height' : 'a number' },
            ]}
            onChange={(which) => set({ [key]: which === 'none' ? null : BEGINS[field.quantity] })}
          />
          {thing[key] !== null && number(field.label, field.quantity, field.hint)}
        </>
      )
    case 'choice':
      return (
        <ChoiceField
          label={field.label}
          value={(thing[key] ?? field.absent) as string}
          options={[...field.options]}
          onChange={(value) => set({ [key]: value })}
        />
      )
    case 'side':
      return (
        <SideChoice
          label={field.label}
          recipe={recipe}
          side={thing[key] as string | null}
          all={field.all}
          onChange={(side) => (side !== null || field.all) && set({ [key]: side })}
        />
      )
    case 'height': {
      const at = thing[field.level] as AtLevel | null
      const isOpen = thing[key] === null
      return (
        <>
          <LevelChoice
            label={field.label}
            at={at}
            others={[
              ...(field.otherwise === undefined ? [] : [{ value: 'none' as const, label: field.otherwise }]),
              { value: 'own' as const, label: 'a height' },
            ]}
            other={isOpen ? 'none' : 'own'}
            onChange={(to) =>
              set(
                to === 'none'
                  ? { [key]: null, [field.level]: null }
                  : to === 'own'
                    ? { [key]: thing[key] ?? BEGINS.length, [field.level]: null }
                    : { [key]: thing[key] ?? 0, [field.level]: to },
              )
            }
          />
          {at
            ? null
            : !isOpen && number(field.label === 'at' ? 'height' : `${field.label} height`, 'length', 'Above its base.')}
        </>
      )
    }
    case 'face':
      return (
        <FaceChoice
          label={field.label}
          face={thing[key] as string | null}
          none={field.otherwise}
          onChange={(face) => (face !== null || field.otherwise) && set({ [key]: face })}
        />
      )
    case 'mass':
      return <MassChoice label={field.label} mass={thing[key] as string} onChange={(mass) => set({ [key]: mass })} />
    case 'shape':
      return (
        <ShapeFields
          shape={thing[key] as OutlineShape}
          set={(_label, shape) => set({ [key]: shape })}
          tried={(shape) => attempt(shape && { [key]: shape })}
          open={false}
        />
      )
    case 'profile':
      return (
        <ProfileChoice
          label={field.label}
          profile={(thing[key] as string | null | undefined) ?? null}
          none={field.otherwise}
          onChange={(profile) => set({ [key]: profile })}
        />
      )
    case 'values':
      return (
        <p className="mb-1.5 text-[12px] text-ink2">
          {field.label}:{' '}
          <InlineList label={field.label} value={thing[key] as number[]} set={(list) => set({ [key]: list })} />
        </p>
      )
    case 'list':
      return (
        <ItemList
          field={field}
          items={thing[key] as Item[]}
          recipe={recipe}
          set={(items) => set({ [key]: items })}
          attempt={(items) => attempt(items && { [key]: items })}
        />
      )
  }
}

/** What a number begins with where it was left open. */
const BEGINS: Record<Quantity, number> = { length: 6, angle: 30, area: 10, number: 1 }

/** Another mass of the scheme. */
function MassChoice({ label, mass, onChange }: { label: string; mass: string; onChange: (mass: string) => void }) {
  const { scheme } = useProject()
  const [own] = usePickedMasses()
  const others = inOrder(scheme.masses).filter((m) => m.id !== own?.id)
  return (
    <ChoiceField
      label={label}
      value={mass}
      options={[
        ...(others.some((m) => m.id === mass) ? [] : [{ value: mass, label: 'one that is gone' }]),
        ...others.map((m) => ({ value: m.id, label: m.name })),
      ]}
      onChange={onChange}
    />
  )
}

/** A profile of the project, by its name. */
function ProfileChoice({
  label,
  profile,
  none,
  onChange,
}: {
  label: string
  profile: string | null
  none: string
  onChange: (profile: string | null) => void
}) {
  const { project } = useProject()
  const all = inOrder(project.profiles)
  return (
    <ChoiceField
      label={label}
      value={profile ?? ''}
      options={[
        { value: '', label: none },
        ...(profile !== null && !project.profiles[profile] ? [{ value: profile, label: 'one that is gone' }] : []),
        ...all.map((p) => ({ value: p.id, label: p.name })),
      ]}
      onChange={(id) => onChange(id || null)}
    />
  )
}

function ItemList({
  field,
  items,
  recipe,
  set,
  attempt,
}: {
  field: Extract<Field, { is: 'list' }>
  items: Item[]
  recipe: Move[]
  set: (items: Item[]) => boolean
  attempt: (items: Item[] | null) => void
}) {
  const { project, scheme } = useProject()
  const changed = (id: string, to: Fielded) => items.map((i) => (i.id === id ? { ...i, ...to } : i))
  return (
    <fieldset className="mb-1.5">
      <legend className="mb-1 text-[11px] text-ink2">{field.label}</legend>
      {items.map((item, i) => (
        <div
          key={item.id}
          role="group"
          aria-label={`${field.one} ${i + 1}`}
          className="mb-1 border-l-2 border-line pl-2"
        >
          <p className="flex items-center justify-between text-[11px] text-ink2">
            <span>
              {field.one} {i + 1}
            </span>
            {items.length > (field.least ?? 0) && (
              <button
                className="btn btn-ghost btn-xs"
                aria-label={`Take ${field.one} ${i + 1} off`}
                onClick={() => set(items.filter((o) => o.id !== item.id))}
              >
                <X size={12} />
              </button>
            )}
          </p>
          <FieldList
            fields={field.item}
            thing={item}
            recipe={recipe}
            set={(to) => set(changed(item.id, to))}
            attempt={(to) => attempt(to && changed(item.id, to))}
          />
        </div>
      ))}
      {items.length < field.most && (
        <LinkButton
          onClick={() =>
            set([
              ...items,
              { id: mint(), ...field.next(items, beginningOf(recipe, numbersOf(project, scheme))) } as Item,
            ])
          }
        >
          <Plus size={12} className="inline" /> {field.one}
        </LinkButton>
      )}
    </fieldset>
  )
}

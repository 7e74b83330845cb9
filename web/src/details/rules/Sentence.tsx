import { Fragment, useContext, type ReactNode } from 'react'
import type { SingleEdit } from '@geotome/core/edits'
import { quantityIn, type Field, type Fielded, type Fields, type OutlineShape } from '@geotome/core/moves'
import { howSaid, inOrder, keptDirection, saidDirection, type Num } from '@geotome/core/project'
import type { Step } from '@geotome/core/rules'
import { useProject, useUses } from '../../app/hooks'
import { RuleScope } from '../../common/NumField'
import { InlinePicture } from './InlinePicture'
import { InlineNumber, InlineWord, useValueOf } from './inline'
import { InlineChoice, InlineList, InlineMaterials } from './inline-choices'

interface Props {
  /** words, with fields in braces by their keys */
  says: string
  fields: Fields<never>
  thing: Fielded
  /** the sides of the outline, where a field asks for one */
  sides: readonly { value: string; label: string }[]
  set: (fields: Fielded, also?: SingleEdit[]) => boolean
  /** tries some while typing; null takes it back */ attempt: (fields: Fielded | null) => void
}

/** A step as a sentence whose numbers and choices are changed where they stand. */
export function Sentence({ says, fields, ...props }: Props) {
  const bits = says.split(/\{(\w+)\}/)
  return (
    <span className="leading-6">
      {bits.map((bit, i) => {
        if (i % 2 === 0) return <Fragment key={i}>{bit}</Fragment>
        const field = fields[bit]
        return field ? <Blank key={bit} name={bit} field={field} {...props} /> : null
      })}
    </span>
  )
}

/** The words of a move by its fields, where its kind has no sentence of its own. */
export function saysFields(title: string, fields: Fields<never>, thing: Fielded): string {
  const asked = Object.entries(fields).filter(([, f]) => f.is !== 'list' && (!f.when || f.when(thing as never)))
  return asked.length ? `${title}: ${asked.map(([key, f]) => `${f.label} {${key}}`).join(', ')}` : title
}

function Blank({
  name: key,
  field,
  thing,
  sides,
  set,
  attempt,
}: Omit<Props, 'says' | 'fields'> & { name: string; field: Field }): ReactNode {
  const { project, scheme } = useProject()
  const uses = useUses()
  const rule = useContext(RuleScope)
  const valueOf = useValueOf()
  const named = { use: uses, material: inOrder(project.materials), profile: inOrder(project.profiles) }
  switch (field.is) {
    case 'number': {
      const quantity = quantityIn(field, thing)
      const isDirection = field.direction !== undefined
      const { directions } = project
      const kept = thing[key] as Num | null
      const num = isDirection && kept !== null ? saidDirection(kept, directions) : kept
      const keep = (said: Num | null) => (isDirection && said !== null ? keptDirection(said, directions) : said)
      return (
        <>
          <InlineNumber
            label={field.label}
            value={num}
            quantity={quantity}
            otherwise={field.otherwise}
            set={(next, also) => set({ [key]: keep(next) }, also)}
            attempt={(next) => attempt(next === null ? null : { [key]: keep(next) })}
          />
          {isDirection && <span className="text-[11px] text-ink2"> ({howSaid(directions, 'the rule')})</span>}
          {num !== null && typeof num !== 'number' && (
            <span className="text-[11px] text-ink2"> ({valueOf(num, quantity)})</span>
          )}
        </>
      )
    }
    case 'choice':
      return (
        <InlineChoice
          label={field.label}
          value={thing[key] as string}
          options={field.options}
          onChange={(value) => set({ [key]: value })}
        />
      )
    case 'word':
      return <InlineWord label={field.label} value={thing[key] as string} set={(word) => set({ [key]: word })} />
    case 'values':
      return <InlineList label={field.label} value={thing[key] as number[]} set={(list) => set({ [key]: list })} />
    case 'use':
    case 'profile':
    case 'material':
      return (
        <InlineChoice
          label={field.label}
          value={(thing[key] as string | null) ?? ''}
          options={[
            { value: '', label: field.otherwise },
            ...named[field.is].map((u) => ({ value: u.id, label: u.name })),
          ]}
          onChange={(id) => set({ [key]: id || null })}
        />
      )
    case 'materials':
      return (
        <InlineMaterials
          label={field.label}
          value={thing[key] as string[]}
          options={inOrder(project.materials)}
          set={(ids) => set({ [key]: ids })}
        />
      )
    case 'named-side':
      return (
        <InlineChoice
          label={field.label}
          value={(thing[key] as string | null) ?? ''}
          options={[{ value: '', label: field.otherwise }, ...namedSides(rule ? scheme.rules[rule]?.steps : [])]}
          onChange={(id) => set({ [key]: id || null })}
        />
      )
    case 'side':
    case 'face':
      return (
        <InlineChoice
          label={field.label}
          value={(thing[key] as string | null) ?? ''}
          options={[
            ...('all' in field && field.all ? [{ value: '', label: field.all }] : []),
            ...('otherwise' in field && field.otherwise ? [{ value: '', label: field.otherwise }] : []),
            ...namedSides(rule ? scheme.rules[rule]?.steps : []),
            ...(field.is === 'side' ? sides : []),
          ]}
          onChange={(id) => set({ [key]: id || null })}
        />
      )
    case 'mass':
      return (
        <InlineChoice
          label={field.label}
          value={(thing[key] as string | null) ?? ''}
          options={[
            ...(field.otherwise === undefined ? [] : [{ value: '', label: field.otherwise }]),
            ...inOrder(scheme.masses).map((m) => ({ value: m.id, label: m.name })),
          ]}
          onChange={(id) => set({ [key]: id || null })}
        />
      )
    case 'picture':
      return (
        <InlinePicture
          label={field.label}
          value={(thing[key] as string | null) ?? null}
          none={field.otherwise}
          set={(id, also) => set({ [key]: id }, also)}
        />
      )
    case 'height': {
      const num = thing[key] as Num | null
      return (
        <InlineNumber
          label={field.label}
          value={num}
          quantity="length"
          otherwise={field.otherwise}
          set={(next, also) => set({ [key]: next, [field.level]: null }, also)}
          attempt={(next) => attempt(next === null ? null : { [key]: next, [field.level]: null })}
        />
      )
    }
    case 'shape':
      return (
        <Outline
          shape={thing[key] as OutlineShape}
          set={(shape, also) => set({ [key]: shape }, also)}
          attempt={(shape) => attempt(shape && { [key]: shape })}
        />
      )
    case 'list':
      return null
  }
}

const numberField = (label: string): Field => ({ is: 'number', quantity: 'length', label })
/** Outlines that are said in a few words; any other is said by its fields, once the step is looked at. */
const SAID: Partial<Record<OutlineShape['kind'], { says: string; fields: Fields<never> }>> = {
  rectangle: {
    says: 'a rectangle {width} by {depth}',
    fields: { width: numberField('width'), depth: numberField('depth') },
  },
  circle: { says: 'a circle of radius {radius}', fields: { radius: numberField('radius') } },
}

function Outline({
  shape,
  set,
  attempt,
}: {
  shape: OutlineShape
  set: (shape: OutlineShape, also?: SingleEdit[]) => boolean
  attempt: (shape: OutlineShape | null) => void
}) {
  const said = SAID[shape.kind]
  if (!said) return 'an outline'
  return (
    <Sentence
      {...said}
      thing={shape as unknown as Fielded}
      sides={[]}
      set={(to, also) => set({ ...shape, ...to } as OutlineShape, also)}
      attempt={(to) => attempt(to && ({ ...shape, ...to } as OutlineShape))}
    />
  )
}

/** The sides that steps of a rule name, as they are called by their place among the steps. */
export const namedSides = (steps: readonly Step[] = []): { value: string; label: string }[] =>
  steps.flatMap((s, i) => (s.step === 'side' ? [{ value: s.id, label: `the side of step ${i + 1}` }] : []))

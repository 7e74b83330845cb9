import { valibotResolver } from '@hookform/resolvers/valibot'
import { useForm } from 'react-hook-form'
import * as v from 'valibot'
import { Plus } from 'lucide-react'
import {
  DIRECTIONS,
  EXAMPLES,
  howSaid,
  inOrder,
  nextOrder,
  PRECISIONS,
  readTyped,
  Refusal,
  showNumber,
  showQuantity,
  usualPrecision,
  type Dial,
  type RatioRule,
  type Unit,
} from '@geotome/core/project'
import { dimensionsOf, type Dimension } from '@geotome/core/form'
import { useProject, useStudy } from '../app/hooks'
import { makeEdit } from '../app/session'
import { useAppDispatch } from '../app/store'
import { picked } from '../app/view-slice'
import { ChoiceField, Figure, NameField, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { DialRow } from './DialRow'
import { Materials } from './Materials'
import { Profiles } from './Profiles'
import { UsesSection } from './UsesSection'
import { Wings } from './Wings'
import { tellFault } from '../common/tell'

export const UNIT_NAMES: { value: Unit; label: string }[] = [
  { value: 'm', label: 'metres' },
  { value: 'mm', label: 'millimetres' },
  { value: 'ft', label: 'feet and inches' },
]

/** All dimensions of the masses; those that are no whole number of strides come first, and lead to their mass. */
function Dimensions() {
  const { project, scheme } = useProject()
  const dispatch = useAppDispatch()
  let all: Dimension[]
  try {
    all = dimensionsOf(project, scheme)
  } catch (e) {
    if (e instanceof Refusal) return null
    throw e
  }
  const off = all.filter((d) => d.off)
  const shown = [...off, ...all.filter((d) => !d.off)].slice(0, 200)
  return (
    <details className="mb-1.5 rounded-md border border-line px-2.5 py-1.5">
      <summary className="cursor-pointer text-ink2">
        dimensions, {off.length} of {all.length} off the stride
      </summary>
      <ul aria-label="dimensions" className="mt-1 max-h-60 overflow-auto">
        {shown.map((d, i) => (
          <li key={i}>
            <button
              className="flex w-full cursor-pointer justify-between gap-2 py-[2px] text-left hover:text-accent"
              onClick={() => dispatch(picked({ kind: 'mass', ids: [d.mass] }))}
            >
              <span className="min-w-0 truncate text-ink2">
                {d.name}, {d.what}
              </span>
              <span className={`shrink-0 tabular-nums ${d.off ? 'font-semibold text-warn' : ''}`}>
                {showNumber(d.value, 'length', project)}
                {d.off ? ' off' : ''}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </details>
  )
}

/** What the desk shows when nothing is picked: the project's own numbers. */
export function ProjectDetails() {
  const { project, scheme } = useProject()
  const study = useStudy()
  const set = (label: string, fields: Partial<typeof project>) =>
    makeEdit(label, { edit: 'project.change', set: fields as never })
  return (
    <>
      <p className="eyebrow mb-2">Project</p>
      <NameField label="name" value={project.name} onAccept={(name) => set('project name', { name })} />
      <NameField
        label="scheme"
        value={scheme.name}
        onAccept={(name) => makeEdit('scheme name', { edit: 'scheme.change', id: scheme.id, set: { name } })}
      />
      <ChoiceField
        label="unit"
        value={project.unit}
        options={UNIT_NAMES}
        onChange={(unit) => set('unit', { unit, precision: usualPrecision(unit) })}
      />
      <ChoiceField
        label="shown to"
        value={String(project.precision)}
        options={PRECISIONS[project.unit].map((o) => ({ value: String(o.value), label: o.label }))}
        onChange={(v) => set('display precision', { precision: Number(v) })}
      />
      <ChoiceField
        label="directions"
        value={project.directions}
        options={DIRECTIONS.map((value) => ({ value, label: howSaid(value) }))}
        onChange={(directions) => set('directions', { directions })}
      />
      {project.site ? (
        <Figure label="site area, by its boundary">
          {showQuantity(study?.ledger.totals.site ?? 0, 'area', project)}
        </Figure>
      ) : project.siteArea === null ? (
        <button className="btn btn-sm mb-1.5 w-full" onClick={() => set('site area', { siteArea: 1000 })}>
          Give the site an area
        </button>
      ) : (
        <NumField
          label="site area"
          quantity="area"
          value={project.siteArea}
          onAccept={(siteArea) => set('site area', { siteArea })}
        />
      )}
      <RatioRuleFields />
      <NumField
        label="headroom"
        value={project.headroom}
        onAccept={(headroom) => set('headroom', { headroom })}
        hint="Floor with less clear height is low and not counted."
      />
      <NumField
        label="smallest area"
        quantity="area"
        value={project.smallestArea}
        onAccept={(smallestArea) => set('smallest area', { smallestArea })}
      />
      <NumField
        label="stride of drags"
        value={project.stride.length}
        onAccept={(_, value) => {
          if (value <= 0) {
            tellFault(`The stride is above zero. Type, for example, ${EXAMPLES[project.unit].stride}.`)
            return false
          }
          return set('stride', { stride: { ...project.stride, length: value } })
        }}
      />
      <NumField
        label="stride of turns"
        quantity="angle"
        value={project.stride.angle}
        onAccept={(_, value) => {
          if (value <= 0) {
            tellFault('The stride is above zero. Type, for example, 5 degrees.')
            return false
          }
          return set('stride', { stride: { ...project.stride, angle: value } })
        }}
      />
      <Dimensions />
      <details className="mb-1.5 rounded-md border border-line px-2.5 py-1.5">
        <summary className="cursor-pointer text-ink2">slopes of faces</summary>
        <div className="mt-1.5">
          <NumField
            label="upright within"
            quantity="angle"
            value={project.upright}
            onAccept={(_, upright) => set('slope of upright faces', { upright })}
          />
          <NumField
            label="wall-like within"
            quantity="angle"
            value={project.wallLike}
            hint="From upright. What leans more is roof-like, or soffit-like where it looks down."
            onAccept={(_, wallLike) => set('slope of walls', { wallLike })}
          />
        </div>
      </details>
      <div className="mt-4" />
      <Dials />
      <Materials />
      <Profiles />
      <Wings />
      <UsesSection />
    </>
  )
}

/** Which storeys count in the floor area ratio, with what each rule gives. */
function RatioRuleFields() {
  const { project, scheme } = useProject()
  const study = useStudy()
  const { ratioRule: rule } = project
  const storeys = Object.values(scheme.levels).filter((l) => l.kind === 'storey')
  const choose = (ratioRule: RatioRule) =>
    makeEdit('rule of the floor area ratio', { edit: 'project.change', set: { ratioRule } })
  const first = storeys[0]?.name ?? ''
  return (
    <div className="mt-2 mb-1.5">
      <ChoiceField
        label="ratio counts"
        value={rule.kind}
        options={[
          { value: 'datum', label: 'from the datum up' },
          { value: 'half', label: 'half above ground' },
          { value: 'level', label: 'from a level up' },
        ]}
        onChange={(kind) => choose(kind === 'level' ? { kind, name: first } : { kind })}
      />
      {rule.kind === 'level' && (
        <ChoiceField
          label="from"
          value={rule.name}
          options={[...new Set([rule.name, ...storeys.map((l) => l.name)])].map((name) => ({
            value: name,
            label: name,
          }))}
          onChange={(name) => choose({ kind: 'level', name })}
        />
      )}
      <ul aria-label="floor area ratio by rule" className="px-1 text-[11px] text-ink2">
        {(study?.ledger.totals.ratios ?? []).map((r) => (
          <li key={r.kind} className={`flex justify-between gap-2 ${r.kind === rule.kind ? 'text-ink' : ''}`}>
            <span>{r.say}</span>
            <span className="tabular-nums">{r.ratio === null ? 'not known' : r.ratio.toFixed(2)}</span>
          </li>
        ))}
      </ul>
    </div>
  )
}

const FilledSchema = v.pipe(v.string(), v.trim(), v.minLength(1))
const DialSchema = v.object({ name: FilledSchema, value: FilledSchema })

/** The scheme's named numbers; a field anywhere takes their names. */
function Dials() {
  const { project, scheme } = useProject()
  const { register, handleSubmit, reset, watch } = useForm({
    defaultValues: { name: '', value: '' },
    resolver: valibotResolver(DialSchema),
  })
  const add = handleSubmit(({ name, value }) => {
    try {
      const { num } = readTyped(value, 'length', project, scheme)
      const thing: Dial = {
        id: crypto.randomUUID(),
        order: nextOrder(scheme.dials),
        name,
        quantity: 'length',
        value: num,
        least: null,
        most: null,
        step: null,
      }
      if (makeEdit(`add dial ${name}`, { edit: 'dial.add', scheme: scheme.id, thing })) reset()
    } catch (e) {
      if (e instanceof Refusal) tellFault(e.message)
      else throw e
    }
  })
  return (
    <Section title="Dials">
      {inOrder(scheme.dials).map((d) => (
        <DialRow key={d.id} dial={d} />
      ))}
      <form className="flex gap-1.5" onSubmit={(e) => void add(e)}>
        <input
          {...register('name')}
          aria-label="new dial's name"
          placeholder="name"
          className="input input-sm w-20 min-w-0 flex-1"
        />
        <input
          {...register('value')}
          aria-label="new dial's value"
          placeholder={`length, ${project.unit}`}
          className="input input-sm w-20 min-w-0 flex-1 text-right"
        />
        <button
          className="btn btn-sm h-8 px-2"
          aria-label="Add dial"
          disabled={!watch('name').trim() || !watch('value').trim()}
        >
          <Plus size={14} />
        </button>
      </form>
    </Section>
  )
}

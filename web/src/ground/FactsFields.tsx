import { Plus, X } from 'lucide-react'
import { useId, useState } from 'react'
import { PRECISIONS, usualPrecision, type Facts, type Location } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { AddByName } from '../common/AddByName'
import { ChoiceField, NameField, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { UNIT_NAMES } from '../details/ProjectDetails'
import { tellFault } from '../common/tell'

const FACTS: { key: 'number' | 'client' | 'address' | 'stage' | 'author'; label: string }[] = [
  { key: 'number', label: 'number' },
  { key: 'client', label: 'client' },
  { key: 'address', label: 'address' },
  { key: 'stage', label: 'stage' },
  { key: 'author', label: 'author' },
]

/** Who and what the project is, its units, and where it lies; entered once, used wherever a file or a drawing needs it. */
export function FactsFields() {
  const { project } = useProject()
  const { facts, location } = project
  const setFacts = (label: string, set: Partial<Facts>) =>
    makeEdit(label, { edit: 'project.change', set: { facts: { ...facts, ...set } } })
  const setLocation = (label: string, set: Partial<Location>) =>
    makeEdit(label, { edit: 'project.change', set: { location: { ...location, ...set } } })
  const degrees = (text: string, most: number): number | null | false => {
    if (!text.trim()) return null
    const parts = /^\s*(-?[\d.]+)\s*°?\s*(?:([\d.]+)\s*['′]?\s*(?:([\d.]+)\s*["″]?)?)?\s*([NSEW])?\s*$/i.exec(text)
    const value = parts
      ? Math.sign(Number(parts[1]) || 1) *
        (Math.abs(Number(parts[1])) + Number(parts[2] ?? 0) / 60 + Number(parts[3] ?? 0) / 3600) *
        (/[sw]/i.test(parts[4] ?? '') ? -1 : 1)
      : NaN
    if (Number.isFinite(value) && Math.abs(value) <= most) return Math.round(value * 1e7) / 1e7
    tellFault(
      `"${text}" is no angle between -${most} and ${most} degrees. Type, for example, 53.5461 or 53° 32' 46" N.`,
    )
    return false
  }
  const zones = useZones()
  return (
    <>
      <Section title="Project data">
        <NameField
          label="name"
          value={project.name}
          onAccept={(name) => makeEdit('project name', { edit: 'project.change', set: { name } })}
        />
        {FACTS.map((f) => (
          <TextField
            key={f.key}
            label={f.label}
            value={facts[f.key]}
            onAccept={(text) => setFacts(f.label, { [f.key]: text })}
          />
        ))}
        {facts.custom.map((c) => (
          <div key={c.id} className="flex items-start gap-1">
            <div className="min-w-0 flex-1">
              <TextField
                label={c.name}
                value={c.text}
                onAccept={(text) =>
                  setFacts(c.name, { custom: facts.custom.map((o) => (o.id === c.id ? { ...o, text } : o)) })
                }
              />
            </div>
            <button
              className="cursor-pointer px-1 pt-2.5 text-ink2"
              aria-label={`Remove ${c.name}`}
              onClick={() => setFacts(`remove ${c.name}`, { custom: facts.custom.filter((o) => o.id !== c.id) })}
            >
              <X size={13} />
            </button>
          </div>
        ))}
        <AddByName
          label="name of a field of your own"
          placeholder="a field of your own"
          most={60}
          add={(name) => {
            if (!facts.custom.some((c) => c.name.toLowerCase() === name.toLowerCase()))
              return setFacts(`field ${name}`, {
                custom: [...facts.custom, { id: crypto.randomUUID(), name, text: '' }],
              })
            tellFault(`There is a field "${name}" already. Choose another name.`)
            return false
          }}
          button={{ show: <Plus size={14} />, className: 'btn btn-sm h-8 px-2', label: 'Add field' }}
        />
      </Section>
      <Section title="Units">
        <ChoiceField
          label="unit"
          value={project.unit}
          options={UNIT_NAMES}
          onChange={(unit) =>
            makeEdit('unit', { edit: 'project.change', set: { unit, precision: usualPrecision(unit) } })
          }
        />
        <ChoiceField
          label="shown to"
          value={String(project.precision)}
          options={PRECISIONS[project.unit].map((o) => ({ value: String(o.value), label: o.label }))}
          onChange={(v) => makeEdit('display precision', { edit: 'project.change', set: { precision: Number(v) } })}
        />
      </Section>
      <Section title="Place and north">
        <TextField
          label="latitude"
          value={location.latitude === null ? '' : String(location.latitude)}
          placeholder="not known yet"
          onAccept={(text) => {
            const latitude = degrees(text, 90)
            return latitude === false ? false : setLocation('latitude', { latitude })
          }}
        />
        <TextField
          label="longitude"
          value={location.longitude === null ? '' : String(location.longitude)}
          placeholder="not known yet"
          onAccept={(text) => {
            const longitude = degrees(text, 180)
            return longitude === false ? false : setLocation('longitude', { longitude })
          }}
        />
        <ChoiceField
          label="time zone"
          value={location.timeZone}
          options={[{ value: '', label: 'not said' }, ...zones.map((z) => ({ value: z, label: z }))]}
          onChange={(timeZone) => setLocation('time zone', { timeZone })}
        />
        <NumField
          label="true north"
          quantity="angle"
          value={location.trueNorth}
          hint="Clockwise from project north, which is up in plan."
          onAccept={(_, trueNorth) => setLocation('true north', { trueNorth })}
        />
        {location.zero && (
          <p className="px-1 text-[12px] text-ink2">
            Zero lies at {location.zero[0].toFixed(2)}, {location.zero[1].toFixed(2)} of the map.{' '}
            <button className="cursor-pointer underline" onClick={() => setLocation('zero on the map', { zero: null })}>
              forget it
            </button>
          </p>
        )}
      </Section>
    </>
  )
}

const useZones = () => useState(() => Intl.supportedValuesOf('timeZone'))[0]

/** A text that may be empty, changed in place. */
export function TextField({
  label,
  value,
  placeholder,
  onAccept,
}: {
  label: string
  value: string
  placeholder?: string
  onAccept: (text: string) => boolean | void
}) {
  const id = useId()
  const [typed, setTyped] = useState<string | null>(null)
  return (
    <label
      htmlFor={id}
      className="mb-1.5 flex h-9 items-center justify-between gap-2 rounded-md border border-line bg-field px-2.5 focus-within:border-ink3"
    >
      <span className="shrink-0 text-ink2">{label}</span>
      <input
        id={id}
        className="min-w-0 flex-1 bg-transparent text-right font-semibold outline-none placeholder:font-normal"
        placeholder={placeholder}
        value={typed ?? value}
        maxLength={400}
        autoComplete="off"
        onFocus={(e) => {
          setTyped(value)
          e.currentTarget.select()
        }}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={() => {
          const text = typed?.trim()
          if (text !== undefined && text !== value && onAccept(text) === false) return
          setTyped(null)
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter') e.currentTarget.blur()
          if (e.key === 'Escape') {
            setTyped(null)
            e.stopPropagation()
            requestAnimationFrame(() => (e.target as HTMLElement).blur())
          }
        }}
      />
    </label>
  )
}

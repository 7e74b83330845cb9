import { Plus, X } from 'lucide-react'
import { removeMaterial } from '@geotome/core/form'
import {
  inOrder,
  nextOrder,
  PartKindSchema,
  type Material,
  type PartKind,
  numberedName,
  namesOf,
} from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { ChoiceField, Section } from '../common/fields'

/** The materials of the project, and what each kind of part is drawn in. */
export function Materials() {
  const { project } = useProject()
  const all = inOrder(project.materials)
  const change = (m: Material, set: Partial<Material>) =>
    makeEdit(`material ${m.name}`, { edit: 'material.change', id: m.id, set })
  const add = () => {
    makeEdit('add a material', {
      edit: 'material.add',
      thing: {
        id: crypto.randomUUID(),
        name: numberedName('material', namesOf(project.materials), all.length + 1),
        order: nextOrder(project.materials),
        colour: '#cfc6b4',
        opacity: 1,
      },
    })
  }
  const options = [{ value: '', label: 'paper' }, ...all.map((m) => ({ value: m.id, label: m.name }))]
  const kind = (k: PartKind, id: string) => {
    const kinds = { ...project.kinds }
    if (id) kinds[k] = id
    else delete kinds[k]
    makeEdit(`material of ${k}s`, { edit: 'project.change', set: { kinds } })
  }
  return (
    <Section
      title="Materials"
      aside={
        <button className="cursor-pointer p-0.5 text-ink2" aria-label="Add a material" onClick={add}>
          <Plus size={14} />
        </button>
      }
    >
      {all.map((m) => (
        <div key={m.id} className="row items-center gap-2">
          <input
            type="color"
            aria-label={`colour of ${m.name}`}
            className="h-4 w-4 shrink-0 cursor-pointer rounded border-0 bg-transparent p-0"
            value={m.colour}
            onChange={(e) => change(m, { colour: e.target.value })}
          />
          <input
            aria-label={`name of ${m.name}`}
            className="min-w-0 flex-1 rounded bg-transparent outline-none focus:bg-field"
            defaultValue={m.name}
            key={m.name}
            maxLength={120}
            onBlur={(e) => {
              const name = e.target.value.trim()
              if (name && name !== m.name) change(m, { name })
            }}
            onKeyDown={(e) => {
              if (e.key === 'Enter') e.currentTarget.blur()
            }}
          />
          <label className="flex items-center gap-1 text-[11px] text-ink2">
            solid
            <input
              type="range"
              aria-label={`opacity of ${m.name}`}
              className="range range-xs w-14"
              min={0.05}
              max={1}
              step={0.05}
              value={m.opacity}
              onChange={(e) => change(m, { opacity: Number(e.target.value) })}
            />
          </label>
          <button
            className="cursor-pointer text-ink2"
            aria-label={`Remove ${m.name}`}
            onClick={() => makeEdit(`remove ${m.name}`, () => removeMaterial(project, m.id))}
          >
            <X size={12} />
          </button>
        </div>
      ))}
      <details className="mt-1.5">
        <summary className="cursor-pointer text-[12px] text-ink2">by kind of part</summary>
        <div className="mt-1.5">
          {PartKindSchema.options.map((k) => (
            <ChoiceField
              key={k}
              label={`${k}s`}
              value={project.kinds[k] ?? ''}
              options={options}
              onChange={(id) => kind(k, id)}
            />
          ))}
        </div>
      </details>
    </Section>
  )
}

import { Plus, X } from 'lucide-react'
import type { Edit } from '@geotome/core/edits'
import { freeName, inOrder, namesOf, nextOrder, type Profile } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit, tryEdit } from '../app/session'
import { NameField, Section } from '../common/fields'
import { LinkButton } from '../common/LinkButton'
import { NumField } from '../common/NumField'
import { AnyShape } from './OutlineFields'

/** Closed outlines that are kept by name: what is carried along a path or cut into a profile uses them, and follows them. */
export function Profiles() {
  const { project } = useProject()
  const change = (id: string, set: Partial<Omit<Profile, 'id'>>): Edit => ({ edit: 'profile.change', id, set })
  const add = () => {
    const thing: Profile = {
      id: crypto.randomUUID(),
      name: freeName('Profile 1', namesOf(project.profiles), (_, n) => `Profile ${n}`),
      order: nextOrder(project.profiles),
      shape: { kind: 'rectangle', width: 0.2, depth: 0.2 },
      x: 0.1,
      y: 0,
    }
    makeEdit(`add ${thing.name}`, { edit: 'profile.add', thing })
  }
  return (
    <Section title="Profiles">
      {inOrder(project.profiles).map((p) => (
        <details key={p.id} className="mb-1.5 rounded-md border border-line px-2.5 py-1.5">
          <summary className="cursor-pointer">{p.name}</summary>
          <div className="mt-1.5">
            <NameField label="name" value={p.name} onAccept={(name) => makeEdit('name', change(p.id, { name }))} />
            <AnyShape
              shape={p.shape}
              set={(label, shape) => makeEdit(`${label} of ${p.name}`, change(p.id, { shape }))}
              tried={(shape) => tryEdit(shape && (() => change(p.id, { shape })))}
            />
            {(['x', 'y'] as const).map((key) => (
              <NumField
                key={key}
                label={key === 'x' ? 'put in place by its point at' : 'up'}
                value={p[key]}
                onAccept={(num) => makeEdit(`insertion point of ${p.name}`, change(p.id, { [key]: num }))}
              />
            ))}
            <button
              className="btn btn-sm h-7 w-full text-[12px] text-error"
              onClick={() => makeEdit(`remove ${p.name}`, { edit: 'profile.remove', id: p.id })}
            >
              <X size={13} /> Remove the profile
            </button>
          </div>
        </details>
      ))}
      <LinkButton onClick={add}>
        <Plus size={12} className="inline" /> profile
      </LinkButton>
    </Section>
  )
}

import { useState } from 'react'
import { inOrder, type Mass } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { ChoiceField, Section } from '../common/fields'
import type { MassView } from '../worker/protocol'

/** What a mass is drawn in, and where single faces differ. */
export function Appearance({
  mass,
  faces,
  set,
}: {
  mass: Mass
  faces: MassView['faces']
  set: (label: string, fields: Partial<Mass>) => boolean
}) {
  const { project } = useProject()
  const [open, setOpen] = useState(false)
  const options = [
    { value: '', label: 'paper' },
    ...inOrder(project.materials).map((m) => ({ value: m.id, label: m.name })),
  ]
  const face = (name: string, id: string) => {
    const own = { ...mass.faces }
    if (id) own[name] = id
    else delete own[name]
    set('material of a face', { faces: own })
  }
  return (
    <Section title="Appearance">
      <ChoiceField
        label="material"
        value={mass.material ?? ''}
        options={options}
        onChange={(id) => set('material', { material: id || null })}
      />
      <details
        className="rounded-md border border-line px-2.5 py-1.5"
        open={open}
        onToggle={(e) => setOpen(e.currentTarget.open)}
      >
        <summary className="cursor-pointer text-ink2">
          face by face{Object.keys(mass.faces).length ? `, ${Object.keys(mass.faces).length} differ` : ''}
        </summary>
        {open && (
          <div className="mt-1.5">
            {faces.map((f) => (
              <ChoiceField
                key={f.name}
                label={f.label}
                value={mass.faces[f.name] ?? ''}
                options={[{ value: '', label: 'as the mass' }, ...options.slice(1)]}
                onChange={(id) => face(f.name, id)}
              />
            ))}
          </div>
        )}
      </details>
    </Section>
  )
}

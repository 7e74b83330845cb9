import { Trash2 } from 'lucide-react'
import { inOrder, type Mass, type PlateEdit } from '@geotome/core/project'
import { levelHeights } from '@geotome/core/levels'
import { useProject, useUses } from '../app/hooks'
import { makeEdit } from '../app/session'
import { ChoiceField, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { StoreyChecks } from './StoreyChecks'

const WHAT = { inset: 'set in', 'leave-out': 'a part is left out', use: 'a part has another use' }

/** Changes of the plates of a mass: what they do, and on which storeys. */
export function PlateChanges({ mass }: { mass: Mass }) {
  const { project, scheme } = useProject()
  const uses = useUses()
  const changes = inOrder(scheme.plateEdits).filter((e) => e.mass === mass.id)
  if (changes.length === 0) return null
  const storeys = levelHeights(project, scheme).filter((l) => l.kind === 'storey')
  const set = (change: PlateEdit, label: string, fields: Partial<PlateEdit>) =>
    makeEdit(`${label} of a plate of ${mass.name}`, {
      edit: 'plate-edit.change',
      scheme: scheme.id,
      id: change.id,
      set: fields,
    })
  return (
    <Section title="Changes of its plates">
      {changes.map((change) => {
        const { does, levels } = change
        return (
          <details key={change.id} className="mb-1.5 rounded-md border border-line px-2.5 py-1.5" data-plate-change>
            <summary className="cursor-pointer">
              {WHAT[does.kind]}
              <span className="text-ink2">
                {' '}
                on {levels.length === 1 ? (scheme.levels[levels[0] ?? '']?.name ?? '') : `${levels.length} storeys`}
              </span>
            </summary>
            <div className="mt-1.5">
              {does.kind === 'inset' && (
                <NumField
                  label="set in by"
                  value={does.by}
                  onAccept={(by) => set(change, 'inset', { does: { kind: 'inset', by } })}
                />
              )}
              {does.kind === 'use' && (
                <ChoiceField
                  label="use"
                  value={does.use}
                  options={uses.map((u) => ({ value: u.id, label: u.name }))}
                  onChange={(use) => set(change, 'use', { does: { ...does, use } })}
                />
              )}
              <StoreyChecks
                label="on these storeys"
                storeys={storeys}
                isIn={(id) => levels.includes(id)}
                isFixed={(id) => levels.length === 1 && levels[0] === id}
                onToggle={(id) =>
                  set(change, 'storeys', {
                    levels: levels.includes(id) ? levels.filter((l) => l !== id) : [...levels, id],
                  })
                }
              />
              <button
                className="btn btn-sm w-full"
                onClick={() =>
                  makeEdit(`take back a change of a plate of ${mass.name}`, {
                    edit: 'plate-edit.remove',
                    scheme: scheme.id,
                    id: change.id,
                  })
                }
              >
                <Trash2 size={14} /> Take it back
              </button>
            </div>
          </details>
        )
      })}
    </Section>
  )
}

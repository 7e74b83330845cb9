import type { Use } from '@geotome/core/project'
import { useProject, useUses } from '../app/hooks'
import { makeEdit } from '../app/session'
import { Section } from '../common/fields'
import { NumField } from '../common/NumField'

/** The uses: their colour, whether they count, how much of them is net, and how thick outer walls are taken to be. */
export function UsesSection() {
  const { project } = useProject()
  const uses = useUses()
  const set = (use: Use, what: string, fields: Partial<Use>) =>
    makeEdit(`${what} of ${use.name}`, { edit: 'use.change', id: use.id, set: fields })
  return (
    <>
      <Section title="Uses">
        {uses.map((u) => (
          <details key={u.id} className="border-b border-line py-1 last:border-0">
            <summary className="row cursor-pointer items-center border-0">
              <span className="inline-flex items-center gap-2">
                <input
                  type="color"
                  aria-label={`colour of ${u.name}`}
                  className="h-4 w-4 cursor-pointer rounded border-0 bg-transparent p-0"
                  value={u.colour}
                  onChange={(e) => set(u, 'colour', { colour: e.target.value })}
                />
                {u.name}
              </span>
              <label className="flex cursor-pointer items-center gap-1.5 text-[12px] text-ink2">
                counts
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={u.counts}
                  onChange={(e) => set(u, 'counting', { counts: e.target.checked })}
                />
              </label>
            </summary>
            <div className="pt-1.5">
              <NumField
                label="net over internal"
                name={`net over internal of ${u.name}`}
                quantity="number"
                value={u.efficiency ?? 1}
                hint="0.85: of what lies within the outer walls and is no core, 85 % are net."
                onAccept={(_, value) => set(u, 'efficiency', { efficiency: value })}
              />
              <NumField
                label="cores, as a share"
                name={`cores of ${u.name}`}
                quantity="number"
                value={u.cores}
                hint="Where none are drawn. 0.12: 12 % of the internal floor."
                onAccept={(_, value) => set(u, 'cores', { cores: value })}
              />
            </div>
          </details>
        ))}
      </Section>
      <Section title="What areas are told by">
        {project.wallAllowance === null ? (
          <button
            className="btn btn-sm mb-1.5 w-full"
            onClick={() =>
              makeEdit('thickness of outer walls', { edit: 'project.change', set: { wallAllowance: 0.4 } })
            }
          >
            Tell internal floor before walls stand
          </button>
        ) : (
          <NumField
            label="outer walls taken as"
            value={project.wallAllowance}
            hint="Until walls stand: floor within them is internal."
            onAccept={(wallAllowance) =>
              makeEdit('thickness of outer walls', { edit: 'project.change', set: { wallAllowance } })
            }
          />
        )}
        {project.deepest === null ? (
          <button
            className="btn btn-sm w-full"
            onClick={() => makeEdit('greatest depth', { edit: 'project.change', set: { deepest: 8 } })}
          >
            Find floor that is too deep
          </button>
        ) : (
          <NumField
            label="no deeper than"
            value={project.deepest}
            hint="From a facade, those of courts too."
            onAccept={(deepest) => makeEdit('greatest depth', { edit: 'project.change', set: { deepest } })}
          />
        )}
      </Section>
    </>
  )
}

import { memo, useState } from 'react'
import { USE_PATTERNS, type Use } from '@geotome/core/project'
import { useOf, useUses } from '../app/hooks'
import { makeEdit } from '../app/session'
import { Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { patternOf, UseMark } from '../common/use-marks'

/** The uses: their colour, whether they count, how much of them is net, and how thick outer walls are taken to be. */
export const UsesSection = memo(function UsesSection() {
  const project = useOf(({ project: { wallAllowance, deepest } }) => ({ wallAllowance, deepest }))
  const uses = useUses()
  return (
    <>
      <Section title="Uses">
        {uses.map((u, i) => (
          <UseRow key={u.id} use={u} order={i} />
        ))}
      </Section>
      <Section title="What areas are told by">
        {project.wallAllowance === null ? (
          <button
            className="btn btn-sm mb-1.5 h-auto min-h-8 w-full py-1 leading-tight"
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
})

function UseRow({ use: u, order }: { use: Use; order: number }) {
  const [isOpen, setOpen] = useState(false)
  const set = (what: string, fields: Partial<Use>) =>
    makeEdit(`${what} of ${u.name}`, { edit: 'use.change', id: u.id, set: fields })
  return (
    <div className="border-b border-line py-1 last:border-0">
      <div className="row items-center border-0">
        <span className="inline-flex items-center gap-2">
          <input
            type="color"
            aria-label={`colour of ${u.name}`}
            className="h-4 w-4 cursor-pointer rounded border-0 bg-transparent p-0"
            value={u.colour}
            onChange={(e) => set('colour', { colour: e.target.value })}
          />
          <button
            className="cursor-pointer"
            aria-expanded={isOpen}
            title="Its pattern, and how much of it is net"
            onClick={() => setOpen(!isOpen)}
          >
            {u.name}
          </button>
        </span>
        <label className="flex cursor-pointer items-center gap-1.5 text-[12px] text-ink2">
          counts
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={u.counts}
            onChange={(e) => set('counting', { counts: e.target.checked })}
          />
        </label>
      </div>
      {isOpen && (
        <div className="pt-1.5">
          <PatternChoice of={u} order={order} choose={(pattern) => set('pattern', { pattern })} />
          <NumField
            label="net over internal"
            quantity="number"
            value={u.efficiency ?? 1}
            hint="0.85: of what lies within the outer walls and is no core, 85 % are net."
            onAccept={(_, value) => set('efficiency', { efficiency: value })}
          />
          <NumField
            label="cores, as a share"
            quantity="number"
            value={u.cores}
            hint="Where none are drawn. 0.12: 12 % of the internal floor."
            onAccept={(_, value) => set('cores', { cores: value })}
          />
        </div>
      )}
    </div>
  )
}

/** What a use is drawn with, as small pieces of it. */
function PatternChoice({ of, order, choose }: { of: Use; order: number; choose: (pattern: Use['pattern']) => void }) {
  const now = patternOf(of, order)
  return (
    <div className="mb-1.5" role="group" aria-label={`pattern of ${of.name}`}>
      <span className="text-[12px] text-ink2">pattern</span>
      <span className="mt-0.5 flex justify-between">
        {USE_PATTERNS.map((pattern) => (
          <button
            key={pattern}
            aria-pressed={pattern === now}
            aria-label={pattern}
            title={pattern}
            className={`grid h-6 w-6 cursor-pointer place-items-center rounded border ${pattern === now ? 'border-ink' : 'border-transparent'}`}
            onClick={() => choose(pattern)}
          >
            <UseMark use={{ colour: of.colour, pattern }} order={order} size={16} />
          </button>
        ))}
      </span>
    </div>
  )
}

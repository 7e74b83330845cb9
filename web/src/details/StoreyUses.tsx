import { Plus, Trash2 } from 'lucide-react'
import type { Mass, StoreyUse } from '@geotome/core/project'
import { useUses } from '../app/hooks'
import { Section } from '../common/fields'

/** Storeys of a mass that have a use of their own, from one up to another. */
export function StoreyUses({
  mass,
  storeys,
  set,
}: {
  mass: Mass
  storeys: readonly { id: string; name: string }[]
  set: (label: string, fields: Partial<Mass>) => boolean
}) {
  const uses = useUses()
  const all = mass.storeyUses ?? []
  const first = storeys[0]
  const put = (storeyUses: StoreyUse[]) => set('uses by storeys', { storeyUses })
  const change = (id: string, fields: Partial<StoreyUse>) =>
    put(all.map((u) => (u.id === id ? { ...u, ...fields } : u)))
  const select = 'select select-sm h-7 min-w-0 flex-1 cursor-pointer truncate rounded py-0 pr-6 pl-2 text-[12px]'
  return (
    <Section
      title="Uses by storeys"
      aside={
        first && (
          <button
            className="btn btn-ghost btn-xs"
            aria-label="Storeys that differ"
            onClick={() => {
              const use = uses.find((u) => u.id !== mass.use) ?? uses[0]
              if (use) put([...all, { id: crypto.randomUUID(), use: use.id, from: first.id, to: first.id }])
            }}
          >
            <Plus size={13} />
          </button>
        )
      }
    >
      {all.length === 0 && <p className="mb-1 text-[12px] text-ink2">All storeys have its use.</p>}
      {all.map((u, i) => (
        <div
          key={u.id}
          className="mb-2 grid grid-cols-[1fr_1fr_auto] items-center gap-1"
          role="group"
          aria-label={`use ${i + 1} by storeys`}
        >
          <select
            aria-label={`use ${i + 1}`}
            className={`${select} col-span-2`}
            value={u.use}
            onChange={(e) => change(u.id, { use: e.target.value })}
          >
            {uses.map((o) => (
              <option key={o.id} value={o.id}>
                {o.name}
              </option>
            ))}
          </select>
          <button
            className="btn btn-ghost btn-xs col-start-3 row-start-1 px-1"
            aria-label={`Remove use ${i + 1} by storeys`}
            onClick={() => put(all.filter((o) => o.id !== u.id))}
          >
            <Trash2 size={13} />
          </button>
          {(['from', 'to'] as const).map((end) => (
            <select
              key={end}
              title={end === 'from' ? 'from this storey' : 'up to this one'}
              aria-label={`use ${i + 1}: ${end}`}
              className={select}
              value={u[end]}
              onChange={(e) => change(u.id, { [end]: e.target.value })}
            >
              {storeys.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}
                </option>
              ))}
            </select>
          ))}
        </div>
      ))}
    </Section>
  )
}

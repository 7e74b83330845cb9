import { batch, type Edit, type SingleEdit } from '@geotome/core/edits'
import { freeName, inOrder, namesOf, nextOrder, showQuantity, type Dial } from '@geotome/core/project'
import { dialValue, setDial } from '@geotome/core/study'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { FIGURES, shown } from './trial-figures'
import { useTrials } from './use-trials'

/** Sets of dials by name: kept, compared in their figures, taken again. */
export function DialSets({ dials }: { dials: Dial[] }) {
  const { project, scheme } = useProject()
  const sets = inOrder(scheme.dialSets)
  const { trials, run } = useTrials()
  const keep = () => {
    const values = Object.fromEntries(dials.map((d) => [d.id, dialValue(project, scheme, d)]))
    const thing = {
      id: crypto.randomUUID(),
      name: freeName('Set 1', namesOf(scheme.dialSets), (_, n) => `Set ${n}`),
      order: nextOrder(scheme.dialSets),
      values,
    }
    makeEdit(`keep ${thing.name}`, { edit: 'dial-set.add', scheme: scheme.id, thing })
  }
  const valuesOf = (set: (typeof sets)[number]) => dials.map((d) => set.values[d.id] ?? dialValue(project, scheme, d))
  const restore = (set: (typeof sets)[number]): Edit =>
    batch(
      dials.flatMap((d): SingleEdit[] =>
        set.values[d.id] === undefined ? [] : [setDial(scheme, d.id, set.values[d.id] ?? 0)],
      ),
    )
  return (
    <section className="mt-3">
      <div className="mb-1 flex items-center gap-3">
        <h3 className="eyebrow">Sets of dials</h3>
        <button className="btn btn-sm h-6 px-2 text-[12px]" onClick={keep}>
          Keep these as a set
        </button>
        {sets.length > 1 && (
          <button
            className="btn btn-sm h-6 px-2 text-[12px]"
            onClick={() =>
              void run(
                scheme.id,
                dials.map((d) => d.id),
                sets.map(valuesOf),
              )
            }
          >
            Compare {sets.length}
          </button>
        )}
      </div>
      {sets.length > 0 && (
        <table className="w-full text-right text-[12px] tabular-nums" aria-label="sets of dials">
          <thead className="text-ink2">
            <tr>
              <th className="text-left font-normal">set</th>
              {dials.map((d) => (
                <th key={d.id} className="font-normal">
                  {d.name}
                </th>
              ))}
              {trials &&
                FIGURES.map((f) => (
                  <th key={f.key} className="font-normal">
                    {f.label}
                  </th>
                ))}
              <th />
            </tr>
          </thead>
          <tbody>
            {sets.map((set) => {
              const mine = trials?.all.find((t) => t.values.join() === valuesOf(set).join())
              return (
                <tr key={set.id} className="border-t border-line">
                  <td className="text-left font-semibold">
                    <input
                      key={set.name}
                      aria-label={`name of ${set.name}`}
                      className="w-32 bg-transparent font-semibold outline-none focus-visible:bg-field"
                      defaultValue={set.name}
                      onBlur={(e) => {
                        const name = e.target.value.trim()
                        const edit = { edit: 'dial-set.change' as const, scheme: scheme.id, id: set.id, set: { name } }
                        if (name && name !== set.name && makeEdit('name of a set', edit)) return
                        e.target.value = set.name
                      }}
                      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
                    />
                  </td>
                  {valuesOf(set).map((value, i) => (
                    <td key={dials[i]?.id}>{showQuantity(value, dials[i]?.quantity ?? 'number', project)}</td>
                  ))}
                  {trials &&
                    FIGURES.map((f) => <td key={f.key}>{mine?.figures ? shown(mine.figures, f.key, project) : ''}</td>)}
                  <td className="whitespace-nowrap">
                    <button
                      className="btn btn-ghost btn-xs"
                      onClick={() => makeEdit(`take ${set.name}`, () => restore(set))}
                    >
                      Take
                    </button>
                    <button
                      className="btn btn-ghost btn-xs"
                      aria-label={`Remove ${set.name}`}
                      onClick={() =>
                        makeEdit(`remove ${set.name}`, { edit: 'dial-set.remove', scheme: scheme.id, id: set.id })
                      }
                    >
                      Remove
                    </button>
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      )}
    </section>
  )
}

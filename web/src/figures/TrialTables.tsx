import { useMemo } from 'react'
import { showQuantity, type Dial } from '@geotome/core/project'
import { dialValue, type Trial } from '@geotome/core/study'
import { useProject } from '../app/hooks'
import { FIGURES, shown, type FigureKey } from './trial-figures'
import { inUnits } from '../common/tell'

/** One dial: all figures at each of its values. */
export function Rows({ trials, dials, take }: { trials: Trial[]; dials: Dial[]; take: (values: number[]) => boolean }) {
  const { project, scheme } = useProject()
  const [dial] = dials
  if (!dial) return null
  const now = dialValue(project, scheme, dial)
  return (
    <table className="w-full text-right text-[12.5px] tabular-nums" aria-label="trials">
      <thead className="text-ink2">
        <tr>
          <th className="text-left font-normal">{dial.name}</th>
          {FIGURES.map((f) => (
            <th key={f.key} className="font-normal">
              {f.label}
            </th>
          ))}
          <th />
        </tr>
      </thead>
      <tbody>
        {trials.map(({ values, figures, say }) => {
          const isNow = Math.abs((values[0] ?? 0) - now) < 1e-9
          return (
            <tr key={values.join()} className={`border-t border-line ${isNow ? 'bg-field font-semibold' : ''}`}>
              <td className="text-left">{showQuantity(values[0] ?? 0, dial.quantity, project)}</td>
              {figures ? (
                FIGURES.map((f) => <td key={f.key}>{shown(figures, f.key, project)}</td>)
              ) : (
                <td colSpan={FIGURES.length} className="text-left text-[11.5px] text-warn">
                  {say}
                </td>
              )}
              <td>
                {figures && !isNow && (
                  <button className="btn btn-ghost btn-xs" onClick={() => take(values)}>
                    Take
                  </button>
                )}
              </td>
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}

/** Two dials: one figure at each pair; a press takes it. */
export function Grid({
  trials,
  dials,
  figure,
  take,
}: {
  trials: Trial[]
  dials: Dial[]
  figure: FigureKey
  take: (values: number[]) => boolean
}) {
  const { project, scheme } = useProject()
  const [a, b] = dials
  const range = useMemo(() => {
    const all = trials.flatMap((t) => t.figures?.[figure] ?? [])
    return [Math.min(...all), Math.max(...all)] as const
  }, [trials, figure])
  if (!a || !b) return null
  const [rows, columns] = [0, 1].map((k) => [...new Set(trials.map((t) => t.values[k] ?? 0))]) as [number[], number[]]
  const at = new Map(trials.map((t) => [t.values.join(), t]))
  const now = [dialValue(project, scheme, a), dialValue(project, scheme, b)].join()
  const depth = (value: number) => (range[1] > range[0] ? (value - range[0]) / (range[1] - range[0]) : 0)
  return (
    <table className="text-right text-[12px] tabular-nums" aria-label="trials">
      <thead className="text-ink2">
        <tr>
          <th className="pr-2 text-left font-normal">
            {a.name} down, {b.name} across
          </th>
          {columns.map((c) => (
            <th key={c} className="px-1 font-normal whitespace-nowrap">
              {showQuantity(c, b.quantity, project)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r}>
            <th className="pr-2 text-left font-normal whitespace-nowrap text-ink2">
              {showQuantity(r, a.quantity, project)}
            </th>
            {columns.map((c) => {
              const trial = at.get([r, c].join())
              const value = trial?.figures?.[figure] ?? null
              return (
                <td key={c} className="p-px">
                  {trial && (
                    <button
                      disabled={!trial.figures}
                      title={trial.say === null ? 'Take it' : inUnits(trial.say)}
                      aria-label={`take ${showQuantity(r, a.quantity, project)}, ${showQuantity(c, b.quantity, project)}`}
                      className={`w-full cursor-pointer rounded-sm px-1.5 py-0.5 hover:outline hover:outline-ink ${[r, c].join() === now ? 'font-bold outline outline-cut' : ''}`}
                      style={
                        value === null
                          ? undefined
                          : {
                              background: `color-mix(in srgb, var(--cutsoft) ${Math.round(depth(value) * 85)}%, transparent)`,
                            }
                      }
                      onClick={() => take(trial.values)}
                    >
                      {trial.figures ? shown(trial.figures, figure, project) : 'cannot'}
                    </button>
                  )}
                </td>
              )
            })}
          </tr>
        ))}
      </tbody>
    </table>
  )
}

import { X } from 'lucide-react'
import { useStudy, useUses } from '../app/hooks'
import { UseBars } from './UseBars'

/** Areas by level and use, and the shares of uses; the table beside it says the same in figures. */
export default function LedgerCharts({ close }: { close: () => void }) {
  const study = useStudy()
  const all = useUses()
  if (!study) return null
  const uses = all.filter((u) => study.floors.some((f) => (f.uses[u.id] ?? 0) > 0.005))
  const levels = [...study.floors]
    .reverse()
    .map((f) => ({ name: study.levels.find((l) => l.id === f.level)?.name ?? '', areas: f.uses }))
  const total = study.ledger.totals.area
  const shares = uses.map((u) => ({ use: u, area: study.floors.reduce((sum, f) => sum + (f.uses[u.id] ?? 0), 0) }))
  return (
    <aside
      aria-label="charts"
      className="flex w-[400px] shrink-0 flex-col overflow-auto border-l border-line px-3 pb-2"
    >
      <div className="flex items-center justify-between">
        <p className="eyebrow">By level and use</p>
        <button className="cursor-pointer p-1" aria-label="Close charts" onClick={close}>
          <X size={14} />
        </button>
      </div>
      <figure className="min-h-[130px] flex-1" aria-label="areas by level and use">
        <UseBars rows={levels} uses={uses} wide={76} gap={2} />
      </figure>
      <table className="mt-1 w-full text-[12px]" aria-label="shares of uses">
        <tbody>
          {shares.map(({ use, area: a }) => (
            <tr key={use.id}>
              <th scope="row" className="py-0 text-left font-medium">
                {use.name}
              </th>
              <td className="w-1/2 px-2">
                <svg width="100%" height={9} aria-hidden>
                  <rect
                    width={`${(100 * a) / Math.max(1, total)}%`}
                    height={9}
                    fill={`url(#use-${use.id})`}
                    stroke="var(--ink)"
                    strokeWidth={0.7}
                  />
                </svg>
              </td>
              <td className="text-right tabular-nums">{((100 * a) / Math.max(1e-9, total)).toFixed(1)} %</td>
            </tr>
          ))}
        </tbody>
      </table>
    </aside>
  )
}

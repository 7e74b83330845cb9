import { BarChart3, Copy, Download } from 'lucide-react'
import { toast } from 'sonner'
import { useOf } from '../app/hooks'
import { LEDGER_BY, type LedgerBy, type LedgerColumn } from './ledger-rows'
import { tellFault } from '../common/tell'

interface Written {
  head: string[]
  rows: (string | number | null)[][]
}

/** How the ledger is put together, what of it is seen, and where it goes. */
export function LedgerBar({
  by,
  setBy,
  filter,
  setFilter,
  columns,
  hidden,
  setHidden,
  charts,
  setCharts,
  written,
}: {
  by: LedgerBy
  setBy: (by: LedgerBy) => void
  filter: string
  setFilter: (text: string) => void
  columns: readonly LedgerColumn[]
  hidden: Record<string, boolean>
  setHidden: (hidden: Record<string, boolean>) => void
  charts: boolean
  setCharts: (on: boolean) => void
  written: () => Written
}) {
  const name = useOf(({ project, scheme }) => `${project.name}, ${scheme.name}, ledger`)
  const copy = async () => {
    const { head, rows } = written()
    const text = [head, ...rows].map((r) => r.map((c) => c ?? '').join('\t')).join('\n')
    await navigator.clipboard.writeText(text).then(
      () => toast.success(`${rows.length} rows are copied, to be pasted into a table.`),
      () => tellFault('The browser did not let it be copied. Download it as CSV.'),
    )
  }
  const download = async (as: 'csv' | 'xlsx') => {
    const { sheetCsv, writeXlsx } = await import('@geotome/core/exchange')
    const sheet = { name: 'Ledger', ...written() }
    const [data, type] =
      as === 'csv'
        ? [sheetCsv(sheet), 'text/csv']
        : [writeXlsx([sheet]), 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet']
    const link = document.createElement('a')
    link.href = URL.createObjectURL(new Blob([data as BlobPart], { type }))
    link.download = `${name.replace(/[^\p{L}\p{N}, -]/gu, '')}.${as}`
    link.click()
    setTimeout(() => URL.revokeObjectURL(link.href), 1000)
  }
  const button = 'btn btn-sm h-7 gap-1 text-[12px]'
  return (
    <div className="flex flex-wrap items-center gap-2.5 px-3 pb-2 text-[12.5px]">
      <label className="flex items-center gap-1.5">
        <span className="text-ink2">by</span>
        <select
          aria-label="the ledger by"
          className="select select-sm h-7 w-auto cursor-pointer rounded py-0 font-semibold"
          value={by}
          onChange={(e) => setBy(e.target.value as LedgerBy)}
        >
          {LEDGER_BY.map((o) => (
            <option key={o.by} value={o.by}>
              {o.label}
            </option>
          ))}
        </select>
      </label>
      <input
        aria-label="only rows with"
        placeholder="only rows with"
        className="input input-sm h-7 w-36 text-[12px]"
        value={filter}
        onChange={(e) => setFilter(e.target.value)}
      />
      <details className="dropdown">
        <summary className={button}>Columns</summary>
        <ul className="dropdown-content z-40 mt-1 max-h-64 w-48 overflow-auto rounded-md border border-line bg-panel p-2 shadow">
          {columns.slice(1).map((c) => (
            <li key={c.id}>
              <label className="flex cursor-pointer items-center gap-2 py-[3px]">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={hidden[c.id] !== false}
                  onChange={(e) => setHidden({ ...hidden, [c.id]: e.target.checked })}
                />
                {c.label}
              </label>
            </li>
          ))}
        </ul>
      </details>
      <span className="flex-1" />
      <button className={button} aria-pressed={charts} onClick={() => setCharts(!charts)}>
        <BarChart3 size={13} /> Charts
      </button>
      <button className={button} onClick={() => void copy()}>
        <Copy size={13} /> Copy
      </button>
      <button className={button} onClick={() => void download('csv')}>
        <Download size={13} /> CSV
      </button>
      <button className={button} onClick={() => void download('xlsx')}>
        <Download size={13} /> XLSX
      </button>
    </div>
  )
}

import { lazy, Suspense, useMemo, useRef, useState } from 'react'
import {
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type SortingState,
  type VisibilityState,
} from '@tanstack/react-table'
import { useVirtualizer } from '@tanstack/react-virtual'
import { ArrowDown, ArrowUp } from 'lucide-react'
import { areaSign, showNumber } from '@geotome/core/project'
import { useProject, useStudy, useUses } from '../app/hooks'
import { useAppSelector } from '../app/store'
import { UseMark } from '../common/use-marks'
import { Account } from './Account'
import { LedgerBar } from './LedgerBar'
import { LedgerLine, type OpenFigure } from './LedgerLine'
import { LedgerTotals } from './LedgerTotals'
import { useSummaries } from './use-summaries'
import { ledgerTable, type LedgerBy, type LedgerColumn, type LedgerRow } from './ledger-rows'

const Charts = lazy(() => import('./LedgerCharts'))
const ROW = 29

/** The area schedule: put together by level, use and wing; sorted, filtered, and each figure opened to how it came to be. */
export function Ledger() {
  const at = useProject()
  const { project } = at
  const study = useStudy()
  const shown = useAppSelector((s) => s.view.level)
  const uses = useUses()
  const [by, setBy] = useState<LedgerBy>('level')
  const [sorting, setSorting] = useState<SortingState>([])
  const [columnVisibility, setColumnVisibility] = useState<VisibilityState>({})
  const [filter, setFilter] = useState('')
  const [open, setOpen] = useState<OpenFigure | null>(null)
  const [charts, setCharts] = useState(false)
  const schemes = useSummaries(by === 'scheme')
  const { columns, rows } = useMemo(
    () => (study ? ledgerTable(by, study, at, uses, schemes) : { columns: [], rows: [] }),
    // The names of things are the project's; the rest is the study's.
    [by, study, at.project, at.scheme, uses, schemes], // eslint-disable-line react-hooks/exhaustive-deps
  )
  const visible = useMemo(() => columns.filter((c) => columnVisibility[c.id] !== false), [columns, columnVisibility])
  const defined = useMemo(
    () =>
      columns.map((c): ColumnDef<LedgerRow> => ({
        id: c.id,
        accessorFn: (r) => r.cells[c.id] ?? null,
        header: c.label,
        sortingFn: c.is === 'name' ? 'alphanumeric' : 'basic',
        sortDescFirst: c.is !== 'name',
      })),
    [columns],
  )
  const table = useReactTable<LedgerRow>({
    data: rows,
    columns: defined,
    state: { sorting, columnVisibility, globalFilter: filter },
    onSortingChange: setSorting,
    onColumnVisibilityChange: setColumnVisibility,
    onGlobalFilterChange: setFilter,
    globalFilterFn: (row, _, text: string) =>
      columns.some(
        (c) => c.is === 'name' && String(row.original.cells[c.id]).toLowerCase().includes(text.trim().toLowerCase()),
      ),
    getRowId: (r) => r.key,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  })
  const box = useRef<HTMLDivElement>(null)
  const seen = table.getRowModel().rows
  const virtual = useVirtualizer({
    count: seen.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: 16,
  })
  if (!study) return null
  const sum = (c: LedgerColumn) =>
    seen.reduce<number | null>((s, r) => {
      const value = r.original.cells[c.id]
      return s === null || typeof value !== 'number' ? (value === null && c.id !== 'net' ? null : s) : s + value
    }, 0)
  const items = virtual.getVirtualItems()
  const [before, after] = [items[0]?.start ?? 0, virtual.getTotalSize() - (items.at(-1)?.end ?? 0)]
  const cell = 'px-2 py-[5px] text-right whitespace-nowrap'
  return (
    <div className="flex min-h-0 flex-1 flex-col" data-ledger>
      <LedgerBar
        by={by}
        setBy={(next) => {
          setBy(next)
          setSorting([])
          setOpen(null)
        }}
        filter={filter}
        setFilter={setFilter}
        columns={columns}
        hidden={columnVisibility}
        setHidden={setColumnVisibility}
        charts={charts}
        setCharts={setCharts}
        written={() => ({
          head: visible.map((c) => (c.is === 'area' ? `${c.label} ${areaSign(project)}` : c.label)),
          rows: seen.map((r) =>
            visible.map((c) => shownValue(c, r.original.cells[c.id] ?? null, project.unit === 'ft')),
          ),
        })}
      />
      <div className="flex min-h-0 flex-1">
        <div ref={box} className="min-h-0 min-w-0 flex-1 overflow-auto" tabIndex={0} aria-label="rows of the ledger">
          <table className="table table-xs edge w-full text-[12.5px]">
            <caption className="px-3 pb-2 text-left text-[12px] text-ink2">
              Gross, in {areaSign(project)}, to the mass face. Floor under{' '}
              {showNumber(typeof project.headroom === 'number' ? project.headroom : 2, 'length', project)} clear is low
              and not counted. A figure opens to how it came to be.
              {study.ledger.wings.length
                ? ' A mass that spans several wings counts in the one that holds most of its plan, or that it was told.'
                : ''}
            </caption>
            <thead className="sticky top-0 z-10 bg-panel text-[11px] text-ink2">
              {table.getHeaderGroups().map((group) => (
                <tr key={group.id} className="border-b border-line">
                  {group.headers.map((h) => {
                    const c = columns.find((x) => x.id === h.column.id)
                    const sorted = h.column.getIsSorted()
                    return (
                      <th
                        key={h.id}
                        aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
                        className={`${c?.is === 'name' ? 'px-3 py-1 text-left' : cell} font-medium ${c?.italic ? 'italic' : ''} ${c?.strong ? 'font-semibold text-ink' : ''}`}
                      >
                        <button
                          className="inline-flex cursor-pointer items-center gap-1.5"
                          onClick={h.column.getToggleSortingHandler()}
                        >
                          {c?.use && <UseMark use={c.use} order={uses.indexOf(c.use)} size={9} />}
                          {flexRender(h.column.columnDef.header, h.getContext())}
                          {sorted === 'asc' ? (
                            <ArrowUp size={11} />
                          ) : sorted === 'desc' ? (
                            <ArrowDown size={11} />
                          ) : null}
                        </button>
                      </th>
                    )
                  })}
                </tr>
              ))}
            </thead>
            <tbody>
              {before > 0 && (
                <tr aria-hidden>
                  <td style={{ height: before }} />
                </tr>
              )}
              {items.map(({ index }) => {
                const row = seen[index]?.original
                if (!row) return null
                return (
                  <LedgerLine
                    key={row.key}
                    row={row}
                    columns={visible}
                    here={row.of.level !== undefined && row.of.level === shown}
                    open={setOpen}
                  />
                )
              })}
              {after > 0 && (
                <tr aria-hidden>
                  <td style={{ height: after }} />
                </tr>
              )}
            </tbody>
            <tfoot className="sticky bottom-0 bg-panel font-semibold shadow-[0_-1px_0_var(--ink3)]">
              <tr>
                {visible.map((c, i) => (
                  <td key={c.id} className={i === 0 ? 'px-3 py-2 text-left' : cell} data-cell={`total-${c.id}`}>
                    {i === 0 ? (
                      by === 'scheme' ? (
                        ''
                      ) : (
                        'total'
                      )
                    ) : c.summed && sum(c) !== null && !(c.id === 'net' && study.ledger.totals.net === null) ? (
                      c.of ? (
                        <button
                          className="cursor-pointer hover:underline"
                          title="How this came to be"
                          onClick={() =>
                            setOpen({ of: { ...c.of }, label: c.use || c.italic ? c.label : 'the whole scheme' })
                          }
                        >
                          {showNumber(c.id === 'net' ? (study.ledger.totals.net ?? 0) : (sum(c) ?? 0), 'area', project)}
                        </button>
                      ) : (
                        showNumber(c.id === 'net' ? (study.ledger.totals.net ?? 0) : (sum(c) ?? 0), 'area', project)
                      )
                    ) : c.id === 'net' && study.ledger.totals.netUnknown.length ? (
                      <span className="font-normal text-ink2" title={study.ledger.totals.netUnknown.join(', ')}>
                        not known
                      </span>
                    ) : (
                      ''
                    )}
                  </td>
                ))}
              </tr>
            </tfoot>
          </table>
        </div>
        {open && <Account {...open} close={() => setOpen(null)} />}
        {charts && !open && (
          <Suspense fallback={null}>
            <Charts close={() => setCharts(false)} />
          </Suspense>
        )}
      </div>
      <LedgerTotals />
    </div>
  )
}

/** A value as it is written into files and copied: figures in the project's unit of area. */
const shownValue = (c: LedgerColumn, value: string | number | null, feet: boolean): string | number | null =>
  typeof value !== 'number'
    ? value
    : c.is === 'area'
      ? Math.round((value / (feet ? 0.3048 ** 2 : 1)) * 100) / 100
      : Math.round((value / (feet ? 0.3048 : 1)) * 1000) / 1000

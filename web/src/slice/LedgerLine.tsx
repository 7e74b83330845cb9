import { memo } from 'react'
import { showNumber, type Unit } from '@geotome/core/project'
import type { AccountOf } from '@geotome/core/study'
import { useOf } from '../app/hooks'
import { useAppDispatch } from '../app/store'
import { levelShown, picked } from '../app/view-slice'
import type { LedgerColumn, LedgerRow } from './ledger-rows'

/** A figure that is opened: what of the ledger it is, and what it is called. */
export interface OpenFigure {
  of: Partial<AccountOf>
  label: string
}

/** A value of the ledger as it is read; what is nothing in a use or a wing is left empty. */
function shown(c: LedgerColumn, value: string | number | null, as: { unit: Unit; precision: number }): string {
  if (value === null) return ''
  if (typeof value === 'string') return value
  if (c.is !== 'area') return showNumber(value, 'length', as)
  const isNone = Math.abs(value) < 0.005
  return isNone && (c.use || c.italic) ? '' : showNumber(isNone ? 0 : value, 'area', as)
}

/** One row of the ledger: drawn again only when it, its columns, or the level that is looked at change. */
export const LedgerLine = memo(function LedgerLine({
  row,
  columns,
  here,
  open,
}: {
  row: LedgerRow
  columns: readonly LedgerColumn[]
  here: boolean
  open: (figure: OpenFigure) => void
}) {
  const dispatch = useAppDispatch()
  const [unit, precision] = useOf(({ project }) => [project.unit, project.precision] as const)
  const names = columns.filter((c) => c.is === 'name').map((c) => String(row.cells[c.id]))
  const [first] = names
  return (
    <tr data-row={first} className={`border-b border-line hover:bg-field ${here ? 'bg-cutsoft' : ''}`}>
      {columns.map((c) => {
        const text = shown(c, row.cells[c.id] ?? null, { unit, precision })
        return c.is === 'name' ? (
          <th key={c.id} scope="row" className="px-3 py-[5px] text-left font-medium">
            {c.id === 'level' ? (
              <button
                className="cursor-pointer"
                onClick={() => {
                  if (!row.of.level) return
                  dispatch(levelShown(row.of.level))
                  dispatch(picked({ kind: 'level', ids: [row.of.level] }))
                }}
              >
                {text}
              </button>
            ) : (
              text
            )}
          </th>
        ) : (
          <td
            key={c.id}
            data-cell={c.id}
            className={`px-2 py-[5px] text-right whitespace-nowrap ${c.strong ? 'font-semibold' : c.is === 'area' ? '' : 'text-ink2'}`}
          >
            {c.of && text ? (
              <button
                className="cursor-pointer hover:underline"
                title="How this came to be"
                onClick={() =>
                  open({
                    of: { ...row.of, ...c.of },
                    label: [...names, ...(c.use || c.italic ? [c.label] : [])].join(', '),
                  })
                }
              >
                {text}
              </button>
            ) : (
              text
            )}
          </td>
        )
      })}
    </tr>
  )
})

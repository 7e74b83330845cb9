import { lazy, Suspense } from 'react'
import { inOrder } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { levelOf, SCHEME_FIGURES, type SchemeFigure } from '../slice/scheme-figures'
import { useSummaries } from '../slice/use-summaries'

const Chart = lazy(() => import('../summary/SchemesChart'))

/** All schemes that are not put aside in figures, and what each has more or less than the one that is worked on. */
export function AllSchemes() {
  const { project, scheme } = useProject()
  const all = useSummaries(true).filter((s) => !s.aside || s.scheme === scheme.id)
  const mine = all.find((s) => s.scheme === scheme.id)
  if (!mine) return <p className="px-3 pb-3 text-ink2">Computing all schemes ...</p>
  const schemes = [mine, ...all.filter((s) => s !== mine)]
  const heights = new Map(schemes.flatMap((s) => s.levels.map((l) => [l.name, l.height] as const)))
  const levels = [...heights].sort(([, a], [, b]) => b - a).map(([name]) => levelOf(name))
  const uses = inOrder(project.uses)
    .filter((u) => schemes.some((s) => (s.uses[u.id] ?? 0) > 0.005))
    .map((u): SchemeFigure => ({ ...levelOf(u.name), of: (s) => s.uses[u.id] ?? 0 }))
  const cell = 'px-3 py-[5px] text-right whitespace-nowrap'
  return (
    <>
      <table className="table table-xs edge w-full text-[12.5px]" data-all-schemes={schemes.length}>
        <thead className="sticky top-0 bg-panel text-[11px] text-ink2">
          <tr className="border-b border-line">
            <th className="px-3 py-1 text-left font-medium" />
            {schemes.map((s) => (
              <th key={s.scheme} className={cell}>
                {s.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...SCHEME_FIGURES, ...uses, ...levels].map((figure, i) => (
            <tr key={`${figure.label}${i}`} className="border-b border-line" data-scheme-row={figure.label}>
              <th scope="row" className="px-3 py-[5px] text-left font-medium">
                {figure.label}
              </th>
              {schemes.map((s) => {
                const [value, own] = [figure.of(s), figure.of(mine)]
                const by = value === null || own === null ? 0 : value - own
                const more = figure.show(by, project).replace(/ .*/, '')
                return (
                  <td key={s.scheme} className={`${cell} ${s === mine ? 'font-semibold' : ''}`}>
                    {value === null ? '' : figure.show(value, project)}
                    {/[1-9]/.test(more) && (
                      <span className="ml-2 inline-block min-w-[62px] text-ink2">
                        {by > 0 ? '+' : ''}
                        {more}
                      </span>
                    )}
                  </td>
                )
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <div className="max-w-4xl px-3 py-3">
        <Suspense fallback={null}>
          <Chart schemes={schemes} />
        </Suspense>
      </div>
    </>
  )
}

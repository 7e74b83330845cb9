import { showNumber } from '@geotome/core/project'
import { useProject, useStudy, useUses } from '../app/hooks'
import { useAppDispatch, useAppSelector } from '../app/store'
import { levelShown, picked } from '../app/view-slice'
import { UseMark } from '../common/fields'

/** The area schedule: level by use, with what it is measured to. */
export function Ledger() {
  const dispatch = useAppDispatch()
  const { project } = useProject()
  const study = useStudy()
  const shown = useAppSelector((s) => s.view.level)
  const all = useUses()
  if (!study) return null
  const uses = all.filter((u) => study.floors.some((f) => (f.uses[u.id] ?? 0) > 0.005))
  const figure = (v: number | undefined | null) =>
    v === undefined || v === null || v < 0.005 ? <span className="text-ink2">0.00</span> : showNumber(v, 'area', 'm')
  const { totals, wings } = study.ledger
  const cell = 'px-2 py-[5px] text-right whitespace-nowrap'
  const share = (v: number | undefined) => (v === undefined || v < 0.005 ? '' : showNumber(v, 'area', 'm'))
  return (
    <div className="flex min-h-0 flex-1 flex-col" data-ledger>
      <div className="min-h-0 flex-1 overflow-auto">
        <table className="table table-xs edge w-full text-[12.5px]">
          <caption className="px-3 pb-2 text-left text-[12px] text-ink2">
            Gross, in m², to the mass face; heights and perimeters in the project's unit. Floor under{' '}
            {showNumber(typeof project.headroom === 'number' ? project.headroom : 2, 'length', 'm', 2)} m clear is low
            and not counted. Net: less the walls that stand.
            {wings.length
              ? ' A mass that spans several wings counts in the one that holds most of its plan, or that it was told.'
              : ''}
          </caption>
          <thead className="sticky top-0 bg-panel text-[11px] text-ink2">
            <tr className="border-b border-line">
              <th className="px-3 py-1 text-left font-medium">level</th>
              <th className={cell}>height</th>
              {uses.map((u) => (
                <th key={u.id} className={cell}>
                  <span className="inline-flex items-center gap-1.5 font-medium">
                    <UseMark colour={u.colour} order={all.indexOf(u)} size={9} />
                    {u.name}
                  </span>
                </th>
              ))}
              {wings.map((w) => (
                <th key={w.id ?? 'none'} className={`${cell} font-medium italic`}>
                  {w.name}
                </th>
              ))}
              <th className={`${cell} font-semibold text-ink`}>area</th>
              <th className={cell}>low</th>
              <th className={cell}>net</th>
              <th className={`${cell} pr-3`}>perimeter</th>
            </tr>
          </thead>
          <tbody>
            {[...study.floors].reverse().map((f) => {
              const level = study.levels.find((l) => l.id === f.level)
              return (
                <tr
                  key={f.level}
                  data-row={level?.name}
                  className={`cursor-pointer border-b border-line hover:bg-field ${f.level === shown ? 'bg-cutsoft' : ''}`}
                  onClick={() => {
                    dispatch(levelShown(f.level))
                    dispatch(picked({ kind: 'level', ids: [f.level] }))
                  }}
                >
                  <th scope="row" className="px-3 py-[5px] text-left font-medium">
                    <button className="cursor-pointer">{level?.name}</button>
                  </th>
                  <td className={`${cell} text-ink2`}>{showNumber(level?.height ?? 0, 'length', project)}</td>
                  {uses.map((u) => (
                    <td key={u.id} className={cell}>
                      {share(f.uses[u.id])}
                    </td>
                  ))}
                  {wings.map((w) => (
                    <td key={w.id ?? 'none'} className={cell} data-cell={`wing ${w.name}`}>
                      {share(w.areas[f.level])}
                    </td>
                  ))}
                  <td className={`${cell} font-semibold`} data-cell="area">
                    {figure(f.area)}
                  </td>
                  <td className={cell} data-cell="low">
                    {figure(f.low)}
                  </td>
                  <td className={cell} data-cell="net">
                    {f.net === null ? '' : figure(f.net)}
                  </td>
                  <td className={`${cell} pr-3`} data-cell="perimeter">
                    {showNumber(f.perimeter, 'length', project)}
                  </td>
                </tr>
              )
            })}
          </tbody>
          <tfoot className="sticky bottom-0 bg-panel font-semibold shadow-[0_-1px_0_var(--ink3)]">
            <tr>
              <th scope="row" className="px-3 py-2 text-left">
                total
              </th>
              <td />
              {uses.map((u) => (
                <td key={u.id} className={cell}>
                  {figure(study.floors.reduce((s, f) => s + (f.uses[u.id] ?? 0), 0))}
                </td>
              ))}
              {wings.map((w) => (
                <td key={w.id ?? 'none'} className={cell}>
                  {figure(w.total)}
                </td>
              ))}
              <td className={cell} data-cell="total-area">
                {figure(totals.area)}
              </td>
              <td className={cell}>{figure(totals.low)}</td>
              <td className={cell} data-cell="total-net">
                {totals.net === null ? '' : figure(totals.net)}
              </td>
              <td />
            </tr>
          </tfoot>
        </table>
      </div>
      <p className="flex shrink-0 gap-6 border-t border-line px-3 py-2.5 text-[12.5px]">
        <span>
          <span className="text-ink2">volume </span>
          <b data-cell="volume">{showNumber(totals.volume, 'area', 'm')} m³</b>
        </span>
        <span>
          <span className="text-ink2">footprint </span>
          <b>{showNumber(totals.footprint, 'area', 'm')} m²</b>
        </span>
        {totals.projecting && (
          <span>
            <span className="text-ink2">{totals.projecting.count} projecting, apart </span>
            <b>
              {showNumber(totals.projecting.area, 'area', 'm')} m², {showNumber(totals.projecting.volume, 'area', 'm')}{' '}
              m³
            </b>
          </span>
        )}
        {totals.coverage !== null && (
          <span>
            <span className="text-ink2">site coverage </span>
            <b data-cell="coverage">{(totals.coverage * 100).toFixed(1)} %</b>
          </span>
        )}
        <span>
          <span className="text-ink2">floor area ratio </span>
          <b>{totals.ratio === null ? 'no site area yet' : totals.ratio.toFixed(3)}</b>
        </span>
      </p>
    </div>
  )
}

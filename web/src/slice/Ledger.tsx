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
  const figure = (v: number | undefined | null) => (v === undefined || v === null || v < 0.005 ? <span className="text-ink3">0.00</span> : showNumber(v, 'area', 'm'))
  const { totals } = study.ledger
  const cell = 'px-3 py-[5px] text-right'
  return (
    <div className="overflow-auto" data-ledger>
      <table className="w-full text-[12.5px]">
        <caption className="px-3 pb-2 text-left text-[12px] text-ink2">Gross, in m², to the mass face; floor under {showNumber(typeof project.headroom === 'number' ? project.headroom : 2, 'length', 'm', 2)} m clear is low and not counted. Net: less the walls that stand.</caption>
        <thead className="sticky top-0 bg-panel text-[11px] text-ink2"><tr className="border-b border-line">
          <th className="px-3 py-1 text-left font-medium">level</th><th className={cell}>height</th>
          {uses.map((u) => <th key={u.id} className={cell}><span className="inline-flex items-center gap-1.5 font-medium"><UseMark colour={u.colour} order={all.indexOf(u)} size={9} />{u.name}</span></th>)}
          <th className={`${cell} font-semibold text-ink`}>area</th><th className={cell}>low</th><th className={cell}>net</th><th className={cell}>perimeter m</th></tr></thead>
        <tbody>
          {[...study.floors].reverse().map((f) => {
            const level = study.levels.find((l) => l.id === f.level)
            return (
              <tr key={f.level} data-row={level?.name} className={`cursor-pointer border-b border-line hover:bg-field ${f.level === shown ? 'bg-cutsoft' : ''}`} onClick={() => { dispatch(levelShown(f.level)); dispatch(picked({ kind: 'level', ids: [f.level] })) }}>
                <th scope="row" className="px-3 py-[5px] text-left font-medium">{level?.name}</th><td className={`${cell} text-ink2`}>{showNumber(level?.height ?? 0, 'length', project.unit, project.unit === 'm' ? 2 : 0)}</td>
                {uses.map((u) => <td key={u.id} className={cell}>{figure(f.uses[u.id])}</td>)}
                <td className={`${cell} font-semibold`} data-cell="area">{figure(f.area)}</td><td className={cell} data-cell="low">{figure(f.low)}</td><td className={cell} data-cell="net">{f.net === null ? '' : figure(f.net)}</td><td className={cell} data-cell="perimeter">{showNumber(f.perimeter, 'length', 'm', 2)}</td>
              </tr>)
          })}
        </tbody>
        <tfoot className="font-semibold"><tr className="border-t border-ink3"><th scope="row" className="px-3 py-2 text-left">total</th><td />
          {uses.map((u) => <td key={u.id} className={cell}>{figure(study.floors.reduce((s, f) => s + (f.uses[u.id] ?? 0), 0))}</td>)}
          <td className={cell} data-cell="total-area">{figure(totals.area)}</td><td className={cell}>{figure(totals.low)}</td><td className={cell} data-cell="total-net">{totals.net === null ? '' : figure(totals.net)}</td><td /></tr></tfoot>
      </table>
      <p className="flex gap-6 px-3 py-3 text-[12.5px]"><span><span className="text-ink2">volume </span><b data-cell="volume">{showNumber(totals.volume, 'area', 'm')} m³</b></span><span><span className="text-ink2">footprint </span><b>{showNumber(totals.footprint, 'area', 'm')} m²</b></span><span><span className="text-ink2">floor area ratio </span><b>{totals.ratio === null ? 'no site area yet' : totals.ratio.toFixed(3)}</b></span></p>
    </div>
  )
}

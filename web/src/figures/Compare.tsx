import { areaSign, inOrder, showNumber, showVolume } from '@geotome/core/project'
import { useProject, useStudy } from '../app/hooks'
import { useAppDispatch, useAppSelector } from '../app/store'
import { ALL_SCHEMES, compared, schemeShown } from '../app/view-slice'
import { AllSchemes } from './AllSchemes'
import { BringOver } from './BringOver'
import { PlanDifferences } from './PlanDifferences'

/** Two schemes in figures: totals, uses, levels of one name, and the difference; or all of them. */
export function Compare() {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const study = useStudy()
  const chosen = useAppSelector((s) => s.view.compare)
  const others = inOrder(project.schemes).filter((s) => s.id !== scheme.id)
  const other = study?.compare
  const choice = (
    <label className="flex items-center gap-2 px-3 pb-2 text-[12.5px]">
      <span className="text-ink2">{scheme.name} beside</span>
      <select
        aria-label="scheme to compare with"
        className="select select-sm cursor-pointer rounded py-0.5 font-semibold"
        value={chosen ?? ''}
        onChange={(e) => dispatch(compared(e.target.value || null))}
      >
        <option value="">choose a scheme</option>
        {others.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
        {others.length > 1 && <option value={ALL_SCHEMES}>all others</option>}
      </select>
      {other && (
        <button
          className="btn btn-sm h-7 text-[12px]"
          onClick={() => {
            dispatch(schemeShown(other.scheme))
            dispatch(compared(scheme.id))
          }}
        >
          Switch to {other.name}
        </button>
      )}
    </label>
  )
  if (others.length === 0)
    return (
      <p className="px-3 pb-4 text-ink2">
        There is only this scheme. Duplicate it from its name at the top, and change the copy.
      </p>
    )
  if (chosen === ALL_SCHEMES)
    return (
      <div className="min-h-0 flex-1 overflow-auto" data-compare>
        {choice}
        <AllSchemes />
      </div>
    )
  if (!study || !other) return choice
  const [mine, theirs] = [study.ledger, other.ledger]
  const sumOf = (ledger: typeof mine, use: string) => ledger.levels.reduce((s, l) => s + (l.uses[use] ?? 0), 0)
  const uses = inOrder(project.uses)
    .map((u) => u.name)
    .filter((u) => sumOf(mine, u) > 0.005 || sumOf(theirs, u) > 0.005)
  const area = (v: number | null) => (v === null ? '' : showNumber(v, 'area', project))
  const names = [...new Set([...mine.levels, ...theirs.levels].sort((a, b) => b.height - a.height).map((l) => l.name))]
  const level = (ledger: typeof mine, name: string) => ledger.levels.find((l) => l.name === name)?.area ?? null
  const rows: {
    what: string
    a: number | null
    b: number | null
    strong?: boolean
    show?: (v: number | null) => string
  }[] = [
    { what: `total area, ${areaSign(project)}`, a: mine.totals.area, b: theirs.totals.area, strong: true },
    ...uses.map((u) => ({ what: u, a: sumOf(mine, u), b: sumOf(theirs, u) })),
    { what: 'low, not counted', a: mine.totals.low, b: theirs.totals.low },
    {
      what: 'volume',
      a: mine.totals.volume,
      b: theirs.totals.volume,
      show: (v) => (v === null ? '' : showVolume(v, project)),
    },
    { what: `footprint, ${areaSign(project)}`, a: mine.totals.footprint, b: theirs.totals.footprint },
    { what: 'floor area ratio', a: mine.totals.ratio, b: theirs.totals.ratio, show: (v) => v?.toFixed(3) ?? '' },
    { what: 'parts', a: study.parts.length, b: other.parts, show: (v) => String(v ?? '') },
    { what: 'findings', a: study.open, b: other.findings, show: (v) => String(v ?? '') },
    ...names.map((name) => ({ what: name, a: level(mine, name), b: level(theirs, name) })),
  ]
  const cell = 'px-3 py-[5px] text-right whitespace-nowrap'
  return (
    <div className="min-h-0 flex-1 overflow-auto" data-compare>
      {choice}
      <div className="2xl:grid 2xl:grid-cols-2 2xl:items-start">
        <table className="table table-xs edge w-full text-[12.5px]">
          <thead className="sticky top-0 bg-panel text-[11px] text-ink2">
            <tr className="border-b border-line">
              <th className="px-3 py-1 text-left font-medium" />
              <th className={cell}>{scheme.name}</th>
              <th className={cell}>{other.name}</th>
              <th className={cell}>difference</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r, i) => {
              const show = r.show ?? area
              return (
                <tr key={`${r.what}${i}`} className="border-b border-line" data-compare-row={r.what}>
                  <th scope="row" className={`px-3 py-[5px] text-left ${r.strong ? 'font-semibold' : 'font-medium'}`}>
                    {r.what}
                  </th>
                  <td className={`${cell} ${r.strong ? 'font-semibold' : ''}`}>{show(r.a)}</td>
                  <td className={`${cell} ${r.strong ? 'font-semibold' : ''}`}>{show(r.b)}</td>
                  <td className={`${cell} text-ink2`}>
                    {r.a !== null && r.b !== null && Math.abs(r.a - r.b) > 0.0005
                      ? `${r.a > r.b ? '+' : ''}${show(r.a - r.b)}`
                      : ''}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
        <div>
          <PlanDifferences mine={scheme.name} theirs={other.name} levels={other.levels} />
          <BringOver from={other.scheme} />
        </div>
      </div>
    </div>
  )
}

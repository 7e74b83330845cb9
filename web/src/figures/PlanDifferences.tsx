import { useEffect } from 'react'
import { areaSign, showNumber, showQuantity } from '@geotome/core/project'
import type { LevelDifference } from '@geotome/core/study'
import { useUnit } from '../app/hooks'
import { useAppDispatch, useAppSelector } from '../app/store'
import { levelShown, litUp } from '../app/view-slice'

/** What differs in plan between two schemes, level by level; the level that is looked at is painted on the stage. */
export function PlanDifferences({
  mine,
  theirs,
  levels,
}: {
  mine: string
  theirs: string
  levels: readonly LevelDifference[]
}) {
  const dispatch = useAppDispatch()
  const unit = useUnit()
  const shown = useAppSelector((s) => s.view.level)
  const here = levels.find((l) => l.levels[0] === shown)
  useEffect(() => {
    dispatch(litUp(here?.levels[0] ? { level: here.levels[0], on: here.only[0], off: here.only[1] } : null))
  }, [dispatch, here])
  useEffect(() => () => void dispatch(litUp(null)), [dispatch])
  const differing = [...levels].reverse().filter((l) => l.onlyArea.some((a) => a > 0.005))
  const sum = (i: 0 | 1) => levels.reduce((all, l) => all + l.onlyArea[i], 0)
  const area = (v: number) => (v < 0.005 ? '' : showNumber(v, 'area', unit))
  const cell = 'px-3 py-[5px] text-right whitespace-nowrap'
  return (
    <section className="px-3 pt-4" aria-label="differences in plan">
      <h3 className="eyebrow pb-1">What differs in plan</h3>
      {differing.length === 0 ? (
        <p className="text-ink2">All floors are the same in plan.</p>
      ) : (
        <>
          <p className="pb-1 text-[12px] text-ink2">
            Press a level to see it painted: in the colour of the cut what is only in {mine}, in ink what is only in{' '}
            {theirs}.
          </p>
          <table className="table table-xs edge w-full text-[12.5px]">
            <thead className="text-[11px] text-ink2">
              <tr>
                <th className="px-3 py-1 text-left font-medium">level</th>
                <th className={cell}>only in {mine}</th>
                <th className={cell}>only in {theirs}</th>
              </tr>
            </thead>
            <tbody>
              {differing.map((l) => (
                <tr
                  key={`${l.name}${l.height}`}
                  data-difference={l.name}
                  className={`border-b border-line ${l === here ? 'bg-cutsoft' : ''}`}
                >
                  <th scope="row" className="px-3 py-[5px] text-left font-medium">
                    {l.levels[0] ? (
                      <button className="cursor-pointer" onClick={() => dispatch(levelShown(l.levels[0]))}>
                        {l.name}
                      </button>
                    ) : (
                      <span className="text-ink2">{l.name}, not here</span>
                    )}
                  </th>
                  <td className={cell}>{area(l.onlyArea[0])}</td>
                  <td className={cell}>{area(l.onlyArea[1])}</td>
                </tr>
              ))}
            </tbody>
            <tfoot className="font-semibold">
              <tr data-difference-total>
                <th scope="row" className="px-3 py-[5px] text-left">
                  in all, {areaSign(unit)}
                </th>
                <td className={cell}>{showQuantity(sum(0), 'area', unit)}</td>
                <td className={cell}>{showQuantity(sum(1), 'area', unit)}</td>
              </tr>
            </tfoot>
          </table>
        </>
      )}
    </section>
  )
}

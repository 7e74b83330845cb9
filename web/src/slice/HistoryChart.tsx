import { useEffect, useMemo, useState } from 'react'
import { useParams } from 'react-router'
import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { briefKey, inOrder, type BriefOf } from '@geotome/core/project'
import { sayFigure, showFigure } from '@geotome/core/study'
import { api, type LoggedEdit } from '../app/api'
import { useProject } from '../app/hooks'
import { settled } from '../app/session'
import { useAppSelector } from '../app/store'
import { studyWorker } from '../worker/client'

/** as many of the last edits are looked at */
const MOST = 120

/** A figure over the last edits of the project, with what each of them was. */
export default function HistoryChart() {
  const { id = '' } = useParams()
  const { project, scheme } = useProject()
  const seq = useAppSelector((s) => s.project.seq)
  const choices = useMemo(() => {
    const whole: BriefOf = { kind: 'figure', figure: 'area' }
    return [whole, ...inOrder(project.brief).map((l) => l.of)]
  }, [project.brief])
  const [key, setKey] = useState('area')
  const of = choices.find((c) => briefKey(c) === key) ?? choices[0]
  const [points, setPoints] = useState<{ seq: number; label: string; value: number | null }[] | null>(null)
  useEffect(() => {
    if (!of) return
    let mine = true
    const from = Math.max(0, seq - MOST)
    void settled()
      .then(() => Promise.all([api.at(id, from), api.since(id, from)]))
      .then(async ([{ project: start }, edits]: [{ project: typeof project }, LoggedEdit[]]) => {
        const figures = await studyWorker.history(
          start,
          edits.map((e) => e.edit),
          scheme.id,
          of,
        )
        const labels = ['at first', ...edits.map((e) => (e.kind === 'edit' ? e.label : `${e.kind}: ${e.label}`))]
        if (mine) setPoints(figures.map((value, i) => ({ seq: from + i, label: labels[i] ?? '', value })))
      })
      .catch(() => mine && setPoints([]))
    return () => {
      mine = false
    }
  }, [id, seq, scheme.id, of])
  const ink = { fontSize: 11, fill: 'var(--ink2)' }
  const show = (value: number) => (of ? showFigure(project, of, value) : '')
  return (
    <section className="pt-3" aria-label="over the last edits">
      <label className="flex items-center gap-1.5 pb-1 text-[12px]">
        <span className="text-ink2">over the last edits</span>
        <select
          aria-label="figure over the last edits"
          className="select select-sm h-7 w-auto cursor-pointer rounded py-0 text-[12px] font-semibold"
          value={key}
          onChange={(e) => setKey(e.target.value)}
        >
          {choices.map((c) => (
            <option key={briefKey(c)} value={briefKey(c)}>
              {sayFigure(project, c)}
            </option>
          ))}
        </select>
      </label>
      {points === null ? (
        <p className="text-[12px] text-ink2">Going through the edits ...</p>
      ) : (
        <>
          <figure className="h-[150px]" aria-hidden data-history={points.length}>
            <ResponsiveContainer width="100%" height="100%">
              <LineChart data={points} margin={{ top: 8, right: 12, bottom: 0, left: 8 }}>
                <CartesianGrid stroke="var(--line)" vertical={false} />
                <XAxis dataKey="seq" tick={ink} stroke="var(--ink3)" />
                <YAxis tick={ink} stroke="var(--ink3)" width={90} domain={['auto', 'auto']} tickFormatter={show} />
                <Tooltip
                  isAnimationActive={false}
                  contentStyle={{ background: 'var(--panel)', border: '1px solid var(--line)', fontSize: 12 }}
                  labelFormatter={(n) => points.find((p) => p.seq === Number(n))?.label ?? ''}
                  formatter={(value) => [show(Number(value)), of ? sayFigure(project, of) : '']}
                />
                <Line
                  type="stepAfter"
                  dataKey="value"
                  stroke="var(--cut)"
                  strokeWidth={1.6}
                  dot={{ r: 2, fill: 'var(--cut)', strokeWidth: 0 }}
                  isAnimationActive={false}
                />
              </LineChart>
            </ResponsiveContainer>
          </figure>
          <details className="text-[12px]">
            <summary className="cursor-pointer text-ink2">the same as a table</summary>
            <table className="w-full max-w-xl">
              <tbody>
                {[...points]
                  .filter((p, i) => i === 0 || p.value !== points[i - 1]?.value)
                  .reverse()
                  .slice(0, 60)
                  .map((p) => (
                    <tr key={p.seq} className="border-b border-line">
                      <th scope="row" className="py-[3px] text-left font-normal">
                        {p.label}
                      </th>
                      <td className="text-right font-medium tabular-nums">{p.value === null ? '' : show(p.value)}</td>
                    </tr>
                  ))}
              </tbody>
            </table>
          </details>
        </>
      )}
    </section>
  )
}

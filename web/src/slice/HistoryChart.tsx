import { useEffect, useMemo, useState } from 'react'
import { useParams } from 'react-router'
import { format, isToday } from 'date-fns'
import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { briefKey, inOrder, type BriefOf } from '@geotome/core/project'
import { sayFigure, showFigure } from '@geotome/core/study'
import { api, type LoggedEdit } from '../app/api'
import { useProject } from '../app/hooks'
import { settled } from '../app/session'
import { useAppSelector } from '../app/store'
import { studyWorker } from '../worker/client'
import { historySteps, type HistorySpan } from './history-steps'

/** a figure is computed as many times at most; the server tells as many edits at once */
const [MOST, TOLD] = [120, 500]

interface Point {
  seq: number
  /** ms */ at: number
  label: string
  value: number | null
}

/** A figure over the last edits of the project, or over those of today by the hour, with what each of them was. */
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
  const [span, setSpan] = useState<HistorySpan>('last')
  const [points, setPoints] = useState<Point[] | null>(null)
  useEffect(() => {
    if (!of) return
    let mine = true
    const since = async () => {
      await settled()
      const steps = historySteps(await logBack(id, seq, span), span, MOST)
      const first = steps[0]?.edits[0]
      if (!first) return []
      const { project: start } = await api.at(id, first.seq - 1)
      const edits = steps.map((s) => s.edits.map((e) => e.edit))
      const figures = await studyWorker.history(start, edits, scheme.id, of)
      const before = { seq: first.seq - 1, at: new Date(first.at).getTime(), label: 'before' }
      return [before, ...steps].map(({ seq, at, label }, i): Point => ({ seq, at, label, value: figures[i] ?? null }))
    }
    void since()
      .then((found) => mine && setPoints(found))
      .catch(() => mine && setPoints([]))
    return () => {
      mine = false
    }
  }, [id, seq, scheme.id, of, span])
  const ink = { fontSize: 11, fill: 'var(--ink2)' }
  const show = (value: number) => (of ? showFigure(project, of, value) : '')
  return (
    <section className="pt-3" aria-label="over the last edits">
      <div className="flex items-center gap-1.5 pb-1 text-[12px]">
        <select
          aria-label="over which edits"
          className="select select-sm h-7 w-auto cursor-pointer rounded py-0 text-[12px]"
          value={span}
          onChange={(e) => setSpan(e.target.value as HistorySpan)}
        >
          <option value="last">over the last edits</option>
          <option value="today">over today, by the hour</option>
        </select>
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
      </div>
      {points?.length === 0 && <p className="text-[12px] text-ink2">Nothing was changed yet.</p>}
      {points === null ? (
        <p className="text-[12px] text-ink2">Going through the edits ...</p>
      ) : points.length === 0 ? null : (
        <>
          <figure className="h-[150px]" aria-hidden data-history={points.length}>
            <ResponsiveContainer width="100%" height="100%">
              <LineChart data={points} margin={{ top: 8, right: 24, bottom: 0, left: 8 }}>
                <CartesianGrid stroke="var(--line)" vertical={false} />
                {span === 'today' ? (
                  <XAxis
                    dataKey="at"
                    type="number"
                    scale="time"
                    domain={['dataMin', 'dataMax']}
                    tick={ink}
                    stroke="var(--ink3)"
                    tickFormatter={hour}
                  />
                ) : (
                  <XAxis dataKey="seq" tick={ink} stroke="var(--ink3)" />
                )}
                <YAxis tick={ink} stroke="var(--ink3)" width={90} domain={['auto', 'auto']} tickFormatter={show} />
                <Tooltip
                  isAnimationActive={false}
                  contentStyle={{ background: 'var(--panel)', border: '1px solid var(--line)', fontSize: 12 }}
                  labelFormatter={(n) => {
                    const point = points.find((p) => (span === 'today' ? p.at : p.seq) === Number(n))
                    return point ? `${hour(point.at)}  ${point.label}` : ''
                  }}
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
                      <td className="w-14 py-[3px] text-ink2 tabular-nums">{hour(p.at)}</td>
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

/** The edits up to one: as many as the server tells at once, or all that may be of today. */
async function logBack(id: string, to: number, span: HistorySpan): Promise<LoggedEdit[]> {
  const since = Math.max(0, to - TOLD)
  const edits = (await api.since(id, since)).filter((e) => e.seq <= to)
  const isMore = span === 'today' && since > 0 && edits[0] !== undefined && isToday(new Date(edits[0].at))
  return isMore ? [...(await logBack(id, since, span)), ...edits] : edits
}

const hour = (at: number) => format(at, 'HH:mm')

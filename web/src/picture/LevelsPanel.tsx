import { useEffect, useMemo, useState } from 'react'
import { addReadLevels } from '@geotome/core/groundwork'
import { levelHeights } from '@geotome/core/levels'
import { numbersOf, readMarks, readTyped, Refusal, scalingOf, showNumber, type Picture } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { useAppDispatch } from '../app/store'
import { benchOpened } from '../app/view-slice'
import { Section } from '../common/fields'
import type { BenchWork } from './bench-work'

/** Level marks clicked on a calibrated section or elevation become levels: heights rounded by a stride, doubles left out until they are confirmed. */
export function LevelsPanel({ picture: p, work }: { picture: Picture; work: BenchWork }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const { points, setPoints, setLines } = work
  const [zero, setZero] = useState('0')
  const [stride, setStride] = useState({ m: '0.05', mm: '50', ft: '1"' }[project.unit])
  const [stacked, setStacked] = useState(true)
  const [rows, setRows] = useState<Record<number, { name?: string; kind?: 'storey' | 'mark'; take?: boolean }>>({})
  const read = (text: string) => {
    try {
      return readTyped(text, 'length', project, scheme).value
    } catch (e) {
      if (e instanceof Refusal) return null
      throw e
    }
  }
  const [from, step] = [read(zero), read(stride)]
  const marks = useMemo(() => {
    const first = points[0]
    return first && from !== null && step !== null
      ? readMarks(scalingOf(p, numbersOf(project, null)), { px: first, height: from }, points, step)
      : []
  }, [points, from, step, p, project])
  const existing = levelHeights(project, scheme)
  const known = (height: number) => existing.find((l) => Math.abs(l.height - height) < 1e-4)?.name ?? null
  useEffect(() => {
    setLines(
      marks.map((m, i) => ({
        points: [m.px],
        closed: false,
        tone: m.repeats === null ? ('kept' as const) : ('live' as const),
        label: `${i + 1}  ${m.height > 0 ? '+' : ''}${showNumber(m.height, 'length', project)}`,
      })),
    )
  }, [marks, project, setLines])
  const takes = (i: number) => rows[i]?.take ?? (marks[i]?.repeats === null && known(marks[i]?.height ?? 0) === null)
  const set = (i: number, fields: (typeof rows)[number]) => setRows({ ...rows, [i]: { ...rows[i], ...fields } })
  const taken = marks
    .map((m, i) => ({ ...m, i }))
    .filter(({ i }) => takes(i))
    .sort((a, b) => a.height - b.height)
  const make = () => {
    const read = taken.map((m) => ({
      height: m.height,
      name: rows[m.i]?.name?.trim() || `Read ${m.i + 1}`,
      kind: rows[m.i]?.kind ?? ('storey' as const),
    }))
    const edit = () => addReadLevels(project, scheme, () => crypto.randomUUID(), read, stacked)
    if (read.length && makeEdit(`read from ${p.name}`.slice(0, 190), edit)) {
      setPoints([])
      setRows({})
      dispatch(benchOpened(null))
    }
  }
  const field = 'input input-sm w-24 text-right font-semibold'
  return (
    <>
      <p className="mb-2 text-[12px] text-ink2" role="status" data-hint>
        {p.pairs.length === 0
          ? 'Calibrate the picture first: heights mean nothing yet.'
          : points.length === 0
            ? 'Click a level mark whose height you know'
            : 'Click the other level marks, in any order. Escape takes the last one back'}
      </p>
      <label className="mb-1.5 flex items-center justify-between text-ink2">
        the first is at
        <input aria-label="the first is at" className={field} value={zero} onChange={(e) => setZero(e.target.value)} />
      </label>
      <label className="mb-1.5 flex items-center justify-between text-ink2">
        rounded to
        <input aria-label="rounded to" className={field} value={stride} onChange={(e) => setStride(e.target.value)} />
      </label>
      <label className="mb-3 flex items-center justify-between text-ink2">
        their heights are
        <select
          aria-label="their heights are"
          className="select select-sm font-semibold"
          value={stacked ? 'stacked' : 'fixed'}
          onChange={(e) => setStacked(e.target.value === 'stacked')}
        >
          <option value="stacked">stacked</option>
          <option value="fixed">fixed</option>
        </select>
      </label>
      {marks.length > 0 && (
        <Section title="Read from it">
          <ul>
            {marks.map((m, i) => {
              const there = known(m.height)
              return (
                <li key={i} data-mark={i + 1} className="mb-1 rounded-md border border-line px-2 py-1.5">
                  <label className="flex cursor-pointer items-center justify-between">
                    <span>
                      <b data-height>
                        {m.height > 0 ? '+' : ''}
                        {showNumber(m.height, 'length', project)}
                      </b>{' '}
                      <span className="text-[11px] text-ink2">read {showNumber(m.read, 'length', project)}</span>
                    </span>
                    <input
                      type="checkbox"
                      aria-label={`take mark ${i + 1}`}
                      className="checkbox checkbox-xs"
                      checked={takes(i)}
                      onChange={(e) => set(i, { take: e.target.checked })}
                    />
                  </label>
                  {m.repeats !== null && (
                    <p className="text-[11px] font-semibold text-warn">
                      repeats mark {m.repeats + 1}: tick it if it is meant
                    </p>
                  )}
                  {there !== null && m.repeats === null && (
                    <p className="text-[11px] text-warn">{there} is at this height already</p>
                  )}
                  {takes(i) && (
                    <div className="mt-1 flex gap-1">
                      <input
                        aria-label={`name of mark ${i + 1}`}
                        placeholder={`Read ${i + 1}`}
                        className="input input-xs min-w-0 flex-1 rounded text-[12px]"
                        value={rows[i]?.name ?? ''}
                        maxLength={120}
                        onChange={(e) => set(i, { name: e.target.value })}
                      />
                      <select
                        aria-label={`kind of mark ${i + 1}`}
                        className="select select-xs rounded text-[12px]"
                        value={rows[i]?.kind ?? 'storey'}
                        onChange={(e) => set(i, { kind: e.target.value as 'mark' })}
                      >
                        <option value="storey">storey</option>
                        <option value="mark">mark</option>
                      </select>
                    </div>
                  )}
                </li>
              )
            })}
          </ul>
          <button
            className="btn btn-sm btn-primary mt-1 w-full"
            disabled={taken.length === 0 || p.pairs.length === 0}
            onClick={make}
          >
            Make {taken.length} {taken.length === 1 ? 'level' : 'levels'}
          </button>
        </Section>
      )}
    </>
  )
}

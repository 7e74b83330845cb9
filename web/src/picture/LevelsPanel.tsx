import { showNumber } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { Section } from '../common/fields'
import type { PanelOf } from './tasks/kind'
import { isTaken, levelAt, marksOf, type ReadingLevels, type Row } from './tasks/levels'

/**
 * Level marks clicked on a calibrated section or elevation become levels: heights rounded by a stride, doubles left out until they are
 * confirmed.
 */
export function LevelsPanel({ picture: p, state, hint, send }: PanelOf<ReadingLevels>) {
  const { project, scheme } = useProject()
  const { zero, stride, stacked, rows } = state
  const change = (set: Partial<ReadingLevels>) => send({ kind: 'change', set })
  const world = { project, scheme, picture: p, mint: () => '' }
  const marks = marksOf(state, world)
  const takes = marks.map((m, i) => isTaken(state, world, m, i))
  const count = takes.filter(Boolean).length
  const set = (i: number, fields: Row) => change({ rows: { ...rows, [i]: { ...rows[i], ...fields } } })
  const field = 'input input-sm w-24 text-right font-semibold'
  return (
    <>
      <p className="mb-2 text-[12px] text-ink2" role="status" data-hint>
        {hint}
      </p>
      <label className="mb-1.5 flex items-center justify-between text-ink2">
        the first is at
        <input
          aria-label="the first is at"
          className={field}
          value={zero}
          onChange={(e) => change({ zero: e.target.value })}
        />
      </label>
      <label className="mb-1.5 flex items-center justify-between text-ink2">
        rounded to
        <input
          aria-label="rounded to"
          className={field}
          value={stride}
          onChange={(e) => change({ stride: e.target.value })}
        />
      </label>
      <label className="mb-3 flex items-center justify-between text-ink2">
        their heights are
        <select
          aria-label="their heights are"
          className="select select-sm font-semibold"
          value={stacked ? 'stacked' : 'fixed'}
          onChange={(e) => change({ stacked: e.target.value === 'stacked' })}
        >
          <option value="stacked">stacked</option>
          <option value="fixed">fixed</option>
        </select>
      </label>
      {marks.length > 0 && (
        <Section title="Read from it">
          <ul>
            {marks.map((m, i) => {
              const there = levelAt(world, m.height)
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
                      checked={takes[i]}
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
                  {takes[i] && (
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
            disabled={count === 0 || p.pairs.length === 0}
            onClick={() => send({ kind: 'accept', how: 'make' })}
          >
            Make {count} {count === 1 ? 'level' : 'levels'}
          </button>
        </Section>
      )}
    </>
  )
}

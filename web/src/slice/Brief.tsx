import { Crosshair, Trash2 } from 'lucide-react'
import { lazy, Suspense, useState } from 'react'
import { readBrief } from '@geotome/core/groundwork'
import { briefKey, freeName, inOrder, namesOf, nextOrder, quantityOf, type BriefLine } from '@geotome/core/project'
import { showFigure, type BriefFigure } from '@geotome/core/study'
import { useProject, useStudy, useUses } from '../app/hooks'
import { makeEdit } from '../app/session'
import { useAppDispatch } from '../app/store'
import { sheetOpened } from '../app/view-slice'
import { NameField } from '../common/fields'
import { NumField } from '../common/NumField'
import { BOUNDS, briefKinds } from './brief-kinds'
import { BriefBar, stateOf } from './BriefBar'
import { PasteBrief } from './PasteBrief'
import { ShareField } from './ShareField'
import { SinceChoice, useSince } from './Since'
import { seekFor } from './sought'

const mint = () => crypto.randomUUID()
const HistoryChart = lazy(() => import('./HistoryChart'))

/** The brief, which all schemes share: targets and limits against the scheme that is shown, and the other one beside it. */
export function Brief() {
  const { project } = useProject()
  const study = useStudy()
  const uses = useUses()
  const [pasting, setPasting] = useState(false)
  const [charted, setCharted] = useState(false)
  const lines = inOrder(project.brief)
  const taken = new Set(lines.map((l) => briefKey(l.of)))
  const kinds = briefKinds(project, uses)
  const addLine = () => {
    const kind = kinds.find((k) => !taken.has(k.key))
    if (!kind) return
    const name = freeName(kind.label.replace(/, gross$/, ''), namesOf(project.brief))
    const now = study?.floors.reduce((sum, f) => sum + (kind.of.kind === 'use' ? (f.uses[kind.of.use] ?? 0) : 0), 0)
    const thing: BriefLine = {
      id: mint(),
      name,
      order: nextOrder(project.brief),
      of: kind.of,
      bound: kind.of.kind === 'figure' ? 'most' : 'about',
      target: Math.max(10, Math.round((now ?? 0) / 10) * 10),
      tolerance: 0.05,
    }
    makeEdit('line of the brief', { edit: 'brief-line.add', thing })
  }
  const other = study?.compare
  const since = useSince()
  return (
    <div className="min-h-0 flex-1 overflow-auto px-3 pb-3" data-brief>
      {lines.length === 0 && (
        <p className="pb-3 text-ink2">
          No brief yet: what is wanted of each use, how many homes of a size, and what may not be passed. Add a line, or
          paste a table.
        </p>
      )}
      <ul>
        {lines.map((line) => (
          <Line
            key={line.id}
            line={line}
            figure={study?.brief.find((b) => b.line.id === line.id)}
            other={other?.brief.find((b) => b.line.id === line.id)}
            beside={other?.name ?? null}
            past={since.past?.brief.find((b) => b.line.id === line.id)?.now ?? null}
          />
        ))}
      </ul>
      <div className="flex gap-2 pt-2">
        <button className="btn btn-sm h-7 text-[12px]" onClick={addLine}>
          Add a line
        </button>
        <button className="btn btn-sm h-7 text-[12px]" aria-expanded={pasting} onClick={() => setPasting(!pasting)}>
          Paste a table
        </button>
        <label className="btn btn-sm h-7 cursor-pointer text-[12px]">
          Read CSV
          <input
            type="file"
            accept=".csv,.tsv,.txt,text/csv"
            className="sr-only"
            onChange={(e) => {
              const [file] = e.target.files ?? []
              e.target.value = ''
              void file?.text().then(read)
            }}
          />
        </label>
        <span className="flex-1" />
        <SinceChoice {...since} />
        <button className="btn btn-sm h-7 text-[12px]" aria-pressed={charted} onClick={() => setCharted(!charted)}>
          Over the last edits
        </button>
      </div>
      {pasting && <PasteBrief done={() => setPasting(false)} />}
      {charted && (
        <Suspense fallback={null}>
          <HistoryChart />
        </Suspense>
      )}
    </div>
  )

  function read(text: string): boolean {
    return makeEdit('read the brief', () => readBrief(project, text, mint))
  }
}

function Line({
  line,
  figure,
  other,
  beside,
  past,
}: {
  line: BriefLine
  figure: BriefFigure | undefined
  other: BriefFigure | undefined
  /** the name of the scheme beside this one */ beside: string | null
  /** the figure at another moment */ past: number | null
}) {
  const dispatch = useAppDispatch()
  const { project } = useProject()
  const uses = useUses()
  const set = (label: string, fields: Partial<BriefLine>) =>
    makeEdit(`${label} of ${line.name}`, { edit: 'brief-line.change', id: line.id, set: fields })
  const kinds = briefKinds(project, uses)
  const select = 'select select-sm h-8 w-full cursor-pointer rounded py-0'
  const { of } = line
  return (
    <li className="border-b border-line py-1.5" data-brief-line={line.name} data-state={figure?.state}>
      <div className="flex items-center gap-3">
        <div className="w-32 shrink-0 [&_label]:mb-0">
          <NameField
            label=""
            hidden={`name of ${line.name}`}
            value={line.name}
            onAccept={(name) => set('name', { name })}
          />
        </div>
        <div className="min-w-0 flex-1">{figure && <BriefBar figure={figure} past={past} />}</div>
        {beside !== null && (
          <p className="w-28 shrink-0 text-right leading-4 whitespace-nowrap">
            {!other || other.now === null ? '' : showFigure(project, of, other.now)}
            <span className="block truncate text-[11px] text-ink2">
              {beside}
              {other ? `, ${stateOf(other)}` : ''}
            </span>
          </p>
        )}
      </div>
      <div className="flex items-start gap-1.5 pt-1 text-[12px] [&_label]:mb-0 [&>div]:mb-0">
        <select
          aria-label={`what ${line.name} is of`}
          className={`${select} max-w-60`}
          value={briefKey(of)}
          onChange={(e) => {
            const kind = kinds.find((k) => k.key === e.target.value)
            const same = kind && quantityOf(kind.of) === quantityOf(of)
            if (kind) set('what is wanted', { of: kind.of, ...(same ? {} : { target: 10 }) })
          }}
        >
          {kinds.map((k) => (
            <option key={k.key} value={k.key}>
              {k.label}
            </option>
          ))}
        </select>
        {of.kind === 'count' && (
          <div className="w-24 shrink-0">
            <NumField
              label="each"
              compact
              quantity="area"
              name={`size of one of ${line.name}`}
              value={of.size}
              onAccept={(size) => set('size', { of: { ...of, size } })}
            />
          </div>
        )}
        <select
          aria-label={`bound of ${line.name}`}
          className={`${select} max-w-26`}
          value={line.bound}
          onChange={(e) => set('bound', { bound: e.target.value as BriefLine['bound'] })}
        >
          {BOUNDS.map((b) => (
            <option key={b.value} value={b.value}>
              {b.label}
            </option>
          ))}
        </select>
        <div className="w-24 shrink-0">
          <NumField
            label=""
            compact
            quantity={quantityOf(of)}
            name={`target of ${line.name}`}
            value={line.target}
            onAccept={(target) => set('target', { target })}
          />
        </div>
        <span className="pt-1.5 text-ink2">within</span>
        <div className="w-14 shrink-0">
          <ShareField
            name={`tolerance of ${line.name}`}
            value={line.tolerance}
            onAccept={(tolerance) => set('tolerance', { tolerance })}
          />
        </div>
        <span className="flex-1" />
        <button
          className="btn btn-sm h-8 gap-1 text-[12px]"
          onClick={() => {
            seekFor(line)
            dispatch(sheetOpened('target'))
          }}
        >
          <Crosshair size={13} /> Meet it
        </button>
        <button
          className="btn btn-ghost btn-sm h-8 px-1.5"
          aria-label={`Remove ${line.name}`}
          onClick={() => makeEdit(`remove ${line.name}`, { edit: 'brief-line.remove', id: line.id })}
        >
          <Trash2 size={14} />
        </button>
      </div>
    </li>
  )
}

import { X } from 'lucide-react'
import { useState } from 'react'
import { useProject, useStudy } from '../app/hooks'
import { AddByName } from '../common/AddByName'
import { makeEdit } from '../app/session'
import { makeComputedEdit } from '../app/study-loop'
import { useAppDispatch, useAppSelector } from '../app/store'
import { levelShown, picked, sheetOpened } from '../app/view-slice'
import { Ledger } from '../slice/Ledger'
import { LevelTable } from '../spine/LevelTable'
import { studyWorker } from '../worker/client'
import type { FindingView } from '../worker/protocol'
import { Compare } from './Compare'
import { Trials } from './Trials'

/** What opens over the foot of the stage: the ledger, the findings, two schemes side by side. */
export function OpenSheet() {
  const dispatch = useAppDispatch()
  const sheet = useAppSelector((s) => s.view.sheet)
  if (!sheet) return null
  return (
    <section
      aria-label={sheet}
      className="absolute inset-x-0 bottom-0 z-30 flex max-h-[62%] flex-col border-t border-line bg-panel shadow-[0_-6px_24px_rgba(0,0,0,0.08)]"
    >
      <div className="flex items-center justify-between px-3 pt-3 pb-1.5">
        <h2 className="eyebrow">{TITLES[sheet]}</h2>
        <button className="cursor-pointer p-1" aria-label="Close" onClick={() => dispatch(sheetOpened(null))}>
          <X size={15} />
        </button>
      </div>
      {sheet === 'ledger' ? (
        <Ledger />
      ) : sheet === 'findings' ? (
        <Findings />
      ) : sheet === 'trials' ? (
        <Trials />
      ) : sheet === 'levels' ? (
        <LevelTable />
      ) : (
        <Compare />
      )}
    </section>
  )
}

const TITLES = {
  ledger: 'Ledger',
  findings: 'Findings',
  compare: 'Schemes side by side',
  levels: 'Levels',
  trials: 'Trials of dials',
}

function Findings() {
  const study = useStudy()
  const open = study?.findings.filter((f) => !f.muted) ?? []
  const muted = study?.findings.filter((f) => f.muted) ?? []
  return (
    <div className="overflow-auto pb-2">
      {open.length === 0 && (
        <p className="px-3 pb-3 text-ink2">Nothing found: no overlaps, no low floor, no drifted parts.</p>
      )}
      <ul>
        {open.map((f) => (
          <FindingRow key={f.key} finding={f} />
        ))}
      </ul>
      {muted.length > 0 && (
        <details className="px-3 py-2">
          <summary className="cursor-pointer text-[12px] text-ink2">{muted.length} looked at and left</summary>
          <ul>
            {muted.map((f) => (
              <FindingRow key={f.key} finding={f} />
            ))}
          </ul>
        </details>
      )}
    </div>
  )
}

function FindingRow({ finding: f }: { finding: FindingView }) {
  const dispatch = useAppDispatch()
  const { scheme } = useProject()
  const study = useStudy()
  const [leaving, setLeaving] = useState(false)
  const show = () => {
    if (f.level && study?.floors.some((x) => x.level === f.level)) dispatch(levelShown(f.level))
    dispatch(
      picked(
        f.parts.length
          ? { kind: 'part', ids: f.parts }
          : f.masses.length
            ? { kind: 'mass', ids: f.masses }
            : { kind: 'nothing' },
      ),
    )
  }
  const leave = (reason: string) => {
    const thing = { id: crypto.randomUUID(), finding: f.key, reason }
    const done = makeEdit(`leave: ${f.say}`.slice(0, 190), { edit: 'mute.add', scheme: scheme.id, thing })
    if (done) setLeaving(false)
    return done
  }
  return (
    <li data-finding={f.kind} className="flex items-center gap-3 border-b border-line px-3 py-2">
      <button className="min-w-0 flex-1 cursor-pointer text-left" onClick={show}>
        <span className="block font-medium">{f.say}</span>
        <span className="block text-[12px] text-ink2">{f.muted ? `Left: ${f.muted.reason}` : f.remedy}</span>
      </button>
      {f.muted ? (
        <button
          className="btn btn-sm h-7 shrink-0 text-[12px]"
          onClick={() =>
            makeEdit(`look again: ${f.say}`.slice(0, 190), {
              edit: 'mute.remove',
              scheme: scheme.id,
              id: f.muted?.id ?? '',
            })
          }
        >
          Look again
        </button>
      ) : leaving ? (
        <AddByName
          label="why it is left"
          placeholder="why it is left"
          most={400}
          autoFocus
          className="shrink-0"
          field="input-xs w-52 text-[12px]"
          add={leave}
          cancel={() => setLeaving(false)}
          button={{ show: 'Leave it', className: 'btn btn-sm h-7 text-[12px]' }}
        />
      ) : (
        <>
          {f.fix && (
            <button
              className="btn btn-sm h-7 shrink-0 text-[12px]"
              onClick={() =>
                void makeComputedEdit((f.fix ?? '').toLowerCase(), () => studyWorker.mend(scheme.id, f.key))
              }
            >
              {f.fix}
            </button>
          )}
          <button className="shrink-0 cursor-pointer text-[12px] text-ink2 underline" onClick={() => setLeaving(true)}>
            leave it
          </button>
        </>
      )}
    </li>
  )
}

import { useState } from 'react'
import { showQuantity } from '@geotome/core/project'
import { useProject, useStudy } from '../app/hooks'
import { AddByName } from '../common/AddByName'
import { makeEdit } from '../app/session'
import { makeComputedEdit } from '../app/study-loop'
import { useAppDispatch } from '../app/store'
import { levelShown, litUp, picked } from '../app/view-slice'
import { studyWorker } from '../worker/client'
import type { FindingView } from '../worker/protocol'

/** as many of one kind stand by themselves; more are one line that opens */
const SINGLE = 2

/** What the checks found, by kind: what, where, why it matters, and the remedy in one action. */
export function Findings() {
  const study = useStudy()
  const open = study?.findings.filter((f) => !f.muted) ?? []
  const muted = study?.findings.filter((f) => f.muted) ?? []
  const kinds = [...new Set(open.map((f) => f.kind))]
  return (
    <div className="overflow-auto pb-2">
      {open.length === 0 && (
        <p className="px-3 pb-3 text-ink2">Nothing found: no overlaps, no low floor, no drifted parts.</p>
      )}
      <ul>
        {kinds.map((kind) => {
          const found = open.filter((f) => f.kind === kind)
          return found.length > SINGLE ? (
            <Group key={kind} kind={kind} findings={found} />
          ) : (
            found.map((f) => <FindingRow key={f.key} finding={f} />)
          )
        })}
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

/** Many of one kind as one line, with what mends all of them in one action. */
function Group({ kind, findings }: { kind: string; findings: FindingView[] }) {
  const { scheme } = useProject()
  const [isOpen, setOpen] = useState(false)
  const [leaving, setLeaving] = useState(false)
  const [first] = findings
  const mended = findings.filter((f) => f.fix)
  const label = mended.every((f) => f.fix === mended[0]?.fix) ? mended[0]?.fix : 'Mend'
  const leave = (reason: string) => {
    const done = makeEdit(`leave ${findings.length}: ${kind}`, {
      edit: 'batch',
      edits: findings.map((f) => ({
        edit: 'mute.add' as const,
        scheme: scheme.id,
        thing: { id: crypto.randomUUID(), finding: f.key, reason },
      })),
    })
    if (done) setLeaving(false)
    return done
  }
  return (
    <li className="border-b border-line" data-group={kind}>
      <div className="flex items-center gap-3 px-3 py-2">
        <button
          className="min-w-0 flex-1 cursor-pointer text-left"
          aria-expanded={isOpen}
          onClick={() => setOpen(!isOpen)}
        >
          <span className="block font-medium">
            {findings.length} × {kind}
            <span className="font-normal text-ink2"> {isOpen ? '' : `${first?.say ?? ''}, and others`}</span>
          </span>
          <span className="block text-[12px] text-ink2">{first?.why}</span>
        </button>
        {leaving ? (
          <Reason leave={leave} cancel={() => setLeaving(false)} />
        ) : (
          <>
            {mended.length > 1 && (
              <button
                className="btn btn-sm h-7 shrink-0 text-[12px]"
                onClick={() =>
                  void makeComputedEdit(`${kind}, ${mended.length}`, () =>
                    studyWorker.mendAll(
                      scheme.id,
                      mended.map((f) => f.key),
                    ),
                  )
                }
              >
                {label}: all {mended.length}
              </button>
            )}
            <button
              className="shrink-0 cursor-pointer text-[12px] text-ink2 underline"
              onClick={() => setLeaving(true)}
            >
              leave them
            </button>
          </>
        )}
      </div>
      {isOpen && (
        <ul className="border-t border-line pl-4">
          {findings.map((f) => (
            <FindingRow key={f.key} finding={f} />
          ))}
        </ul>
      )}
    </li>
  )
}

function Reason({ leave, cancel }: { leave: (reason: string) => boolean; cancel: () => void }) {
  return (
    <AddByName
      label="why it is left"
      placeholder="why it is left"
      most={400}
      autoFocus
      className="shrink-0"
      field="input-xs w-52 text-[12px]"
      add={leave}
      cancel={cancel}
      button={{ show: 'Leave it', className: 'btn btn-sm h-7 text-[12px]' }}
    />
  )
}

/** How much of it is on each level; a level is looked at when it is picked here. */
function ByLevel({ levels }: Pick<FindingView, 'levels'>) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  return (
    <details className="shrink-0 self-start text-[12px]" data-by-level>
      <summary className="cursor-pointer text-ink2">by level</summary>
      <ul className="max-h-40 overflow-auto">
        {[...levels].reverse().map(({ level, area }) => (
          <li key={level}>
            <button
              className="flex w-full cursor-pointer justify-between gap-4 hover:underline"
              onClick={() => dispatch(levelShown(level))}
            >
              <span>{scheme.levels[level]?.name}</span>
              <span className="font-medium tabular-nums">{showQuantity(area, 'area', project)}</span>
            </button>
          </li>
        ))}
      </ul>
    </details>
  )
}

function FindingRow({ finding: f }: { finding: FindingView }) {
  const dispatch = useAppDispatch()
  const { scheme } = useProject()
  const study = useStudy()
  const [leaving, setLeaving] = useState(false)
  const show = () => {
    if (f.level && study?.floors.some((x) => x.level === f.level)) {
      dispatch(levelShown(f.level))
      dispatch(litUp(f.region.length ? { level: f.level, on: f.region, off: [] } : null))
    }
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
      <button className="min-w-0 flex-1 cursor-pointer text-left" title={f.why} onClick={show}>
        <span className="block font-medium">{f.say}</span>
        <span className="block text-[12px] text-ink2">{f.muted ? `Left: ${f.muted.reason}` : f.remedy}</span>
      </button>
      {f.levels.length > 1 && <ByLevel levels={f.levels} />}
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
        <Reason leave={leave} cancel={() => setLeaving(false)} />
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

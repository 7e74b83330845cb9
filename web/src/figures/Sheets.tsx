import { X } from 'lucide-react'
import { useStudy } from '../app/hooks'
import { makeComputedEdit } from '../app/study-loop'
import { useAppDispatch, useAppSelector } from '../app/store'
import { levelShown, picked, sheetOpened } from '../app/view-slice'
import { Ledger } from '../slice/Ledger'
import { studyWorker } from '../worker/client'

/** What opens over the foot of the stage: the ledger, the findings. */
export function OpenSheet() {
  const dispatch = useAppDispatch()
  const sheet = useAppSelector((s) => s.view.sheet)
  if (!sheet) return null
  return (
    <section aria-label={sheet} className="absolute inset-x-0 bottom-0 z-30 flex max-h-[62%] flex-col border-t border-line bg-panel shadow-[0_-6px_24px_rgba(0,0,0,0.08)]">
      <div className="flex items-center justify-between px-3 pt-3 pb-1.5"><h2 className="eyebrow">{sheet === 'ledger' ? 'Ledger' : 'Findings'}</h2><button className="cursor-pointer p-1" aria-label="Close" onClick={() => dispatch(sheetOpened(null))}><X size={15} /></button></div>
      {sheet === 'ledger' ? <Ledger /> : <Findings />}
    </section>
  )
}

function Findings() {
  const dispatch = useAppDispatch()
  const study = useStudy()
  if (!study?.findings.length) return <p className="px-3 pb-4 text-ink2">Nothing found: no overlaps, no low floor, no drifted parts.</p>
  const show = (f: (typeof study.findings)[number]) => {
    if (f.level && study.floors.some((x) => x.level === f.level)) dispatch(levelShown(f.level))
    dispatch(picked(f.parts.length ? { kind: 'part', ids: f.parts } : f.masses.length ? { kind: 'mass', ids: f.masses } : { kind: 'nothing' }))
  }
  return (
    <ul className="overflow-auto pb-2">
      {study.findings.map((f) => (
        <li key={f.key} data-finding={f.kind} className="flex items-center gap-4 border-b border-line px-3 py-2">
          <button className="min-w-0 flex-1 cursor-pointer text-left" onClick={() => show(f)}><span className="block font-medium">{f.say}</span><span className="block text-[12px] text-ink2">{f.remedy}</span></button>
          {f.fix && <button className="act h-7 shrink-0 text-[12px]" onClick={() => void makeComputedEdit((f.fix ?? '').toLowerCase(), () => studyWorker.mend(study.scheme, f.key))}>{f.fix}</button>}
        </li>
      ))}
    </ul>
  )
}

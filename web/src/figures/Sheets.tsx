import { X } from 'lucide-react'
import type { ComponentType } from 'react'
import { useAppDispatch, useAppSelector } from '../app/store'
import { sheetOpened, type Sheet } from '../app/view-slice'
import { Brief } from '../slice/Brief'
import { Ledger } from '../slice/Ledger'
import { TargetSheet } from '../slice/TargetSheet'
import { LevelTable } from '../spine/LevelTable'
import { Compare } from './Compare'
import { Findings } from './Findings'
import { Trials } from './Trials'

/** What opens under the stage, which keeps what is left, so that what a list lights up is seen. A new sheet is its name in the view, and a line here. */
const SHEETS: Record<NonNullable<Sheet>, { title: string; Content: ComponentType }> = {
  ledger: { title: 'Ledger', Content: Ledger },
  brief: { title: 'Brief', Content: Brief },
  target: { title: 'Meet a target', Content: TargetSheet },
  findings: { title: 'Findings', Content: Findings },
  compare: { title: 'Schemes side by side', Content: Compare },
  levels: { title: 'Levels', Content: LevelTable },
  trials: { title: 'Trials of dials', Content: Trials },
}

/** The sheet that is open, with its title. */
export function OpenSheet() {
  const dispatch = useAppDispatch()
  const sheet = useAppSelector((s) => s.view.sheet)
  if (!sheet) return null
  const { title, Content } = SHEETS[sheet]
  return (
    <section
      aria-label={sheet}
      className="z-30 flex max-h-[56%] shrink-0 flex-col border-t border-line bg-panel shadow-[0_-6px_24px_rgba(0,0,0,0.08)]"
    >
      <div className="flex items-center justify-between px-3 pt-3 pb-1.5">
        <h2 className="eyebrow">{title}</h2>
        <button className="cursor-pointer p-1" aria-label="Close" onClick={() => dispatch(sheetOpened(null))}>
          <X size={15} />
        </button>
      </div>
      <Content />
    </section>
  )
}

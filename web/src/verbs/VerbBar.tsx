import { useState } from 'react'
import { shallowEqual } from 'react-redux'
import { ChevronUp } from 'lucide-react'
import { useAppSelector } from '../app/store'
import { deskOf, type Desk } from '../desks/list'
import { useRunning } from '../tools/at-work'
import { ToolChoices } from '../tools/ToolOverlay'
import type { Now } from './kind'
import { labelOf } from './list'
import { useAsk } from './use-now'
import { VerbMenu } from './VerbMenu'

/** The verbs of a desk, as words with icons; one line above says what is wanted next. */
export function VerbBar() {
  const ask = useAsk()
  const desk = deskOf(ask().desk)
  // What the bar says, flat: it is drawn anew only when one of these changes.
  const [asked, ...said] = useAppSelector(() => sayOf(desk, ask()), shallowEqual)
  const hint = useRunning((r) => r?.hint ?? null)
  const [open, setOpen] = useState<string | null>(null)
  return (
    <>
      <ToolChoices />
      <div className="pointer-events-none absolute inset-x-0 bottom-4 z-10 flex flex-col items-center gap-2">
        <p className="rounded bg-paper/85 px-2 text-[12px] text-ink2" role="status" data-hint>
          {hint ?? asked}
        </p>
        <div
          role="toolbar"
          aria-label="Verbs"
          className="pointer-events-auto flex gap-0.5 rounded-[10px] border border-line bg-panel p-1 shadow-[0_1px_3px_rgba(0,0,0,0.06)]"
        >
          {desk.bar.map((v, i) => {
            const [label, off, on] = said.slice(i * 3, i * 3 + 3) as [string, string | null, boolean | undefined]
            const isOpen = open === label
            return (
              <div key={v.key ?? label} className="relative">
                {isOpen && <VerbMenu verb={v} onClose={() => setOpen(null)} />}
                <button
                  disabled={off !== null}
                  title={off ?? (v.key ? `${label} (${v.key})` : label)}
                  aria-pressed={v.opens ? undefined : on}
                  aria-haspopup={v.opens ? 'menu' : undefined}
                  aria-expanded={v.opens ? isOpen : undefined}
                  onClick={() => (v.opens ? setOpen(isOpen ? null : label) : v.run(ask()))}
                  className={`flex h-9 cursor-pointer items-center gap-1.5 rounded-md px-2 font-medium disabled:cursor-default disabled:opacity-40 ${on || isOpen ? 'bg-ink text-paper' : 'hover:bg-field'}`}
                >
                  <v.icon size={15} strokeWidth={1.7} /> {label}
                  {v.opens && <ChevronUp size={12} strokeWidth={1.7} className="-ml-1" />}
                </button>
              </div>
            )
          })}
        </div>
      </div>
    </>
  )
}

/** The hint of a desk, then label, reason to be off, and whether it is on, of each verb in its bar. */
const sayOf = (desk: Desk, now: Now): (string | boolean | null | undefined)[] => [
  desk.hint(now),
  ...desk.bar.flatMap((v) => [labelOf(v, now), v.off?.(now) ?? null, v.on?.(now)]),
]

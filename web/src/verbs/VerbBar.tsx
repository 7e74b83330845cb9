import { deskOf } from '../desks/list'
import { useRunning } from '../tools/at-work'
import { ToolChoices } from '../tools/ToolOverlay'
import { labelOf } from './list'
import { useNow } from './use-now'

/** The verbs of a desk, as words with icons; one line above says what is wanted next. */
export function VerbBar() {
  const now = useNow()
  const desk = deskOf(now.desk)
  const hint = useRunning((r) => r?.hint ?? null)
  return (
    <>
      <ToolChoices />
      <div className="pointer-events-none absolute inset-x-0 bottom-4 z-10 flex flex-col items-center gap-2">
        <p className="rounded bg-paper/85 px-2 text-[12px] text-ink2" role="status" data-hint>
          {hint ?? desk.hint(now)}
        </p>
        <div
          role="toolbar"
          aria-label="Verbs"
          className="pointer-events-auto flex gap-0.5 rounded-[10px] border border-line bg-panel p-1 shadow-[0_1px_3px_rgba(0,0,0,0.06)]"
        >
          {desk.bar.map((v) => {
            const [label, off, on] = [labelOf(v, now), v.off?.(now) ?? null, v.on?.(now)]
            return (
              <button
                key={v.key ?? label}
                disabled={off !== null}
                title={off ?? (v.key ? `${label} (${v.key})` : label)}
                aria-pressed={on}
                onClick={() => v.run(now)}
                className={`flex h-9 cursor-pointer items-center gap-2 rounded-md px-2.5 font-medium disabled:cursor-default disabled:opacity-40 ${on ? 'bg-ink text-paper' : 'hover:bg-field'}`}
              >
                <v.icon size={15} strokeWidth={1.7} /> {label}
              </button>
            )
          })}
        </div>
      </div>
    </>
  )
}

import { useEffect, useRef, type KeyboardEvent } from 'react'
import type { Verb } from './kind'
import { labelOf, VERBS } from './list'
import { useNow } from './use-now'

/** What opens under a verb of the bar: those that say so, and those of the moment. Arrows go up and down, Escape closes it. */
export function VerbMenu({ verb, onClose }: { verb: Verb; onClose: () => void }) {
  const now = useNow()
  const box = useRef<HTMLUListElement>(null)
  const entries = [...VERBS.filter((v) => v.under === verb.label), ...(verb.opens?.(now) ?? [])]
  useEffect(() => {
    box.current?.querySelector<HTMLElement>('button:not([disabled])')?.focus()
    const away = (e: PointerEvent) => {
      if (!box.current?.parentElement?.contains(e.target as Node)) onClose()
    }
    document.addEventListener('pointerdown', away)
    return () => document.removeEventListener('pointerdown', away)
  }, [onClose])
  const keys = (e: KeyboardEvent) => {
    const all = [...(box.current?.querySelectorAll<HTMLElement>('button:not([disabled])') ?? [])]
    const at = all.indexOf(document.activeElement as HTMLElement)
    if (e.key === 'Escape') onClose()
    else if (e.key === 'ArrowDown') all[(at + 1) % all.length]?.focus()
    else if (e.key === 'ArrowUp') all[(at + all.length - 1) % all.length]?.focus()
    else return
    e.preventDefault()
    e.stopPropagation()
  }
  return (
    <ul
      ref={box}
      role="menu"
      aria-label={labelOf(verb, now)}
      onKeyDown={keys}
      className={`absolute bottom-full left-1/2 z-30 mb-2 -translate-x-1/2 rounded-[10px] border border-line bg-panel p-1 shadow-[0_2px_8px_rgba(0,0,0,0.12)] ${entries.length > 9 ? 'columns-2' : ''}`}
    >
      {entries.map((v) => {
        const off = v.off?.(now) ?? null
        return (
          <li key={`${v.key ?? ''}${labelOf(v, now)}`} role="none" className="break-inside-avoid">
            <button
              role="menuitem"
              disabled={off !== null}
              title={off ?? undefined}
              className="flex h-8 w-full cursor-pointer items-center gap-4 rounded-md px-2.5 text-left whitespace-nowrap hover:bg-field disabled:cursor-default disabled:opacity-40"
              onClick={() => {
                onClose()
                v.run(now)
              }}
            >
              <span className="grow">{labelOf(v, now)}</span>
              {v.key && <kbd className="text-[11px] text-ink2">{v.key}</kbd>}
            </button>
          </li>
        )
      })}
      {entries.length === 0 && <li className="px-3 py-1.5 text-ink2">Nothing more fits what is picked</li>}
    </ul>
  )
}

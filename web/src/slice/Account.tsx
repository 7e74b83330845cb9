import { X } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { areaSign, showNumber } from '@geotome/core/project'
import type { AccountItem, AccountOf } from '@geotome/core/study'
import { useProject, useStudy } from '../app/hooks'
import { store, useAppDispatch } from '../app/store'
import { workerReady } from '../app/study-loop'
import { levelShown, litUp, picked } from '../app/view-slice'
import { studyWorker } from '../worker/client'

/** as many steps stand open at once; more are opened level by level */
const FEW = 80

/** How a figure came to be: each plate, what was taken off it, and why; walked by pointer or arrows, each is lit up on the stage. */
export function Account({ of, label, close }: { of: Partial<AccountOf>; label: string; close: () => void }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const study = useStudy()
  const [items, setItems] = useState<AccountItem[] | null>(null)
  const [opened, setOpened] = useState<string[]>([])
  const list = useRef<HTMLUListElement>(null)
  useEffect(() => {
    let mine = true
    // What is dragged is accounted for when it rests.
    const wait = setTimeout(
      () => {
        void workerReady()
          .then(() => studyWorker.account(scheme.id, of, store.getState().project.preview))
          .then((found) => mine && setItems(found))
          .catch(() => mine && setItems([]))
      },
      store.getState().project.preview ? 500 : 0,
    )
    return () => {
      mine = false
      clearTimeout(wait)
    }
  }, [study, scheme.id, of])
  useEffect(() => () => void dispatch(litUp(null)), [dispatch])
  const light = (item: AccountItem) => {
    dispatch(levelShown(item.level))
    dispatch(litUp({ level: item.level, on: item.area > 0 ? item.region : [], off: item.area > 0 ? [] : item.region }))
  }
  const walk = (by: number) => {
    const all = [...(list.current?.querySelectorAll<HTMLButtonElement>('button[data-account-item]') ?? [])]
    const at = all.indexOf(document.activeElement as HTMLButtonElement)
    all[Math.max(0, Math.min(all.length - 1, at + by))]?.focus()
  }
  const total = items?.reduce((sum, i) => sum + i.area, 0) ?? 0
  const levels = [...new Set(items?.map((i) => i.level))].reverse()
  return (
    <aside
      aria-label="how it came to be"
      className="flex w-[340px] shrink-0 flex-col border-l border-line"
      data-account
    >
      <div className="flex items-start justify-between gap-2 px-3 pt-0.5 pb-1.5">
        <p className="text-[12.5px]">
          <b>{label}</b>
          <span className="text-ink2"> is what is cut there, less what does not count.</span>
        </p>
        <button className="cursor-pointer p-1" aria-label="Close how it came to be" onClick={close}>
          <X size={14} />
        </button>
      </div>
      <ul
        ref={list}
        className="min-h-0 flex-1 overflow-auto border-t border-line"
        onKeyDown={(e) => {
          if (e.key !== 'ArrowDown' && e.key !== 'ArrowUp') return
          e.preventDefault()
          walk(e.key === 'ArrowDown' ? 1 : -1)
        }}
      >
        {items?.length === 0 && <li className="px-3 py-2 text-ink2">Nothing is cut there.</li>}
        {levels.map((level) => {
          const own = items?.filter((i) => i.level === level) ?? []
          const name = study?.levels.find((l) => l.id === level)?.name ?? ''
          const isOpen = levels.length === 1 || (items?.length ?? 0) <= FEW || opened.includes(level)
          return (
            <li key={level}>
              {levels.length > 1 && (
                <button
                  className="flex w-full cursor-pointer justify-between px-3 pt-2 pb-0.5"
                  aria-expanded={isOpen}
                  onClick={() => setOpened(isOpen ? opened.filter((l) => l !== level) : [...opened, level])}
                >
                  <span className="eyebrow">{name}</span>
                  <span className="text-[12px] text-ink2 tabular-nums">
                    {showNumber(
                      own.reduce((sum, i) => sum + i.area, 0),
                      'area',
                      project,
                    )}
                  </span>
                </button>
              )}
              {isOpen && (
                <ul>
                  {own.map((item, i) => (
                    <li key={i}>
                      <Item item={item} light={light} />
                    </li>
                  ))}
                </ul>
              )}
            </li>
          )
        })}
      </ul>
      <p className="flex justify-between border-t border-line px-3 py-2 text-[12.5px] font-semibold">
        <span>counted</span>
        <span data-account-total>{items ? `${showNumber(total, 'area', project)} ${areaSign(project)}` : '…'}</span>
      </p>
    </aside>
  )
}

function Item({ item, light }: { item: AccountItem; light: (item: AccountItem) => void }) {
  const dispatch = useAppDispatch()
  const { project } = useProject()
  const isOff = item.area < 0
  return (
    <button
      className="flex w-full cursor-pointer justify-between gap-3 px-3 py-1 text-left text-[12.5px] hover:bg-field focus:bg-field"
      title={item.why}
      data-account-item={isOff ? 'off' : 'cut'}
      onMouseEnter={() => light(item)}
      onFocus={() => light(item)}
      onClick={() => dispatch(picked({ kind: 'mass', ids: [item.mass] }))}
    >
      <span className="min-w-0">
        <span className={isOff ? 'text-ink2' : ''}>
          {isOff ? 'less ' : ''}
          {item.say}
        </span>
        {isOff && <span className="block text-[11.5px] text-ink2">{item.why}</span>}
      </span>
      <span className="shrink-0 font-medium tabular-nums">{showNumber(item.area, 'area', project)}</span>
    </button>
  )
}

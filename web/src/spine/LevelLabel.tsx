import { useState, type KeyboardEvent, type PointerEvent } from 'react'
import { toast } from 'sonner'
import type { LevelHeight } from '@geotome/core/levels'
import { editNumber, readTyped, Refusal, showNumber } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { useAppDispatch } from '../app/store'
import { levelMoved } from '../app/view-slice'

interface Props {
  level: LevelHeight
  y: number
  on: boolean
  chosen: boolean
  area: number | null
  onPointerDown: (e: PointerEvent) => void
  onPointerMove: (e: PointerEvent) => void
  onPointerUp: (e: PointerEvent) => void
  onKeyDown: (e: KeyboardEvent) => void
  onShow: () => void
}

/** A level's name and height; a double click, or Enter on the focused row, types them in place. */
export function LevelLabel({
  level,
  y,
  on,
  chosen,
  area,
  onPointerDown,
  onPointerMove,
  onPointerUp,
  onKeyDown,
  onShow,
}: Props) {
  const { project, scheme } = useProject()
  const dispatch = useAppDispatch()
  const [editing, setEditing] = useState<'name' | 'height' | null>(null)
  const mark = level.kind === 'mark'
  const height = `${level.height > 0 ? '+' : ''}${showNumber(level.height, 'length', project)}`

  const accept = (text: string) => {
    setEditing(null)
    if (editing === 'name') {
      const name = text.trim()
      if (name && name !== level.name)
        makeEdit(`rename ${level.name}`, { edit: 'level.change', scheme: scheme.id, id: level.id, set: { name } })
      return
    }
    try {
      const { num, value } = readTyped(text, 'length', project, scheme)
      // The details decide: where those above could go with it or stay, both are shown first.
      if (value !== level.height || typeof num !== 'number') {
        onShow()
        dispatch(levelMoved({ level: level.id, height: value, num }))
      }
    } catch (e) {
      if (e instanceof Refusal) toast.error(e.message)
      else throw e
    }
  }
  return (
    <li
      className={`absolute left-0 flex h-[15px] items-baseline text-[11.5px] leading-[14px] ${mark ? 'w-[248px] justify-end gap-1.5 px-3.5 italic text-ink2' : `w-[124px] justify-between pr-1.5 pl-3.5 ${on ? 'font-semibold text-[var(--cuttext)]' : ''}`} ${chosen && !on ? 'underline' : ''}`}
      style={{ top: y - 15, fontStretch: '86%' }}
    >
      <button
        data-level={level.id}
        className="absolute inset-0 cursor-ns-resize"
        aria-pressed={on}
        aria-label={`${level.name}, ${height}${area === null ? '' : `, ${showNumber(area, 'area', 'm')} square metres`}`}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={onPointerUp}
        onDoubleClick={(e) =>
          setEditing(e.clientX - e.currentTarget.getBoundingClientRect().left > (mark ? 190 : 66) ? 'height' : 'name')
        }
        onKeyDown={(e) => {
          if (e.key === 'Enter') {
            e.preventDefault()
            onShow()
            setEditing(e.shiftKey ? 'height' : 'name')
          } else onKeyDown(e)
        }}
      />
      {editing === 'name' ? (
        <Typing
          start={level.name}
          label={`name of ${level.name}`}
          onAccept={accept}
          onCancel={() => setEditing(null)}
        />
      ) : (
        <span className="pointer-events-none truncate pr-0.5">{level.name}</span>
      )}
      {editing === 'height' ? (
        <Typing
          start={editNumber(level.height, 'length', project)}
          label={`height of ${level.name}`}
          onAccept={accept}
          onCancel={() => setEditing(null)}
        />
      ) : (
        <span className="pointer-events-none shrink-0 pl-1 font-normal text-ink2">{height}</span>
      )}
    </li>
  )
}

function Typing({
  start,
  label,
  onAccept,
  onCancel,
}: {
  start: string
  label: string
  onAccept: (text: string) => void
  onCancel: () => void
}) {
  return (
    <input
      autoFocus
      aria-label={label}
      defaultValue={start}
      className="relative z-10 w-20 rounded border border-ink3 bg-panel px-1 font-semibold text-ink not-italic outline-none"
      onFocus={(e) => e.currentTarget.select()}
      onBlur={(e) => onAccept(e.target.value)}
      onKeyDown={(e) => {
        e.stopPropagation()
        if (e.key === 'Enter') e.currentTarget.blur()
        if (e.key === 'Escape') onCancel()
      }}
    />
  )
}

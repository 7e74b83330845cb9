import { memo, useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { LevelHeight } from '@geotome/core/levels'
import { editNumber, readTyped, Refusal, showNumber, type Project } from '@geotome/core/project'
import { selectPresent } from '../app/project-slice'
import { makeEdit } from '../app/session'
import { store, useAppDispatch } from '../app/store'
import { levelMoved } from '../app/view-slice'
import { tellFault } from '../common/tell'

/** What is done with the levels of the spine, by id. */
export interface SpineHand {
  down: (id: string, e: PointerEvent) => void
  move: (e: PointerEvent) => void
  up: (e: PointerEvent) => void
  cancel: (e: PointerEvent) => void
  key: (id: string, e: KeyboardEvent) => void
  show: (id: string) => void
}

interface Props extends Pick<LevelHeight, 'id' | 'name' | 'kind' | 'height'> {
  y: number
  on: boolean
  chosen: boolean
  area: number | null
  /** how numbers are shown: the same object while they are shown alike */
  shownAs: Pick<Project, 'unit' | 'precision'>
  /** the same object always */
  hand: SpineHand
}

/** A level's name and height; a double click, or Enter on the focused row, types them in place. */
export const LevelLabel = memo(function LevelLabel(props: Props) {
  const { id, name, kind, height, y, on, chosen, area, shownAs, hand } = props
  const dispatch = useAppDispatch()
  const [editing, setEditing] = useState<'name' | 'height' | null>(null)
  const mark = kind === 'mark'
  const says = `${height > 0 ? '+' : ''}${showNumber(height, 'length', shownAs)}`
  const square = shownAs.unit === 'ft' ? 'square feet' : 'square metres'
  const floor = area === null ? '' : `, ${showNumber(area, 'area', shownAs)} ${square}`

  const accept = (text: string) => {
    setEditing(null)
    const { project, scheme } = selectPresent(store.getState()) ?? {}
    if (!project || !scheme) return
    if (editing === 'name') {
      const next = text.trim()
      if (next && next !== name)
        makeEdit(`rename ${name}`, { edit: 'level.change', scheme: scheme.id, id, set: { name: next } })
      return
    }
    try {
      const { num, value } = readTyped(text, 'length', project, scheme)
      // The details decide: where those above could go with it or stay, both are shown first.
      if (value !== height || typeof num !== 'number') {
        hand.show(id)
        dispatch(levelMoved({ level: id, height: value, num }))
      }
    } catch (e) {
      if (e instanceof Refusal) tellFault(e.message)
      else throw e
    }
  }
  return (
    <li
      data-row={id}
      className={`absolute left-0 flex h-[15px] items-baseline text-[11.5px] leading-[14px] ${mark ? 'w-[248px] justify-end gap-1.5 px-3.5 italic text-ink2' : `w-[124px] justify-between pr-1.5 pl-3.5 ${on ? 'font-semibold text-[var(--cuttext)]' : ''}`} ${chosen && !on ? 'underline' : ''}`}
      style={{ top: y - 15, fontStretch: '86%' }}
    >
      <button
        data-level={id}
        className="absolute inset-0 cursor-ns-resize"
        aria-pressed={on}
        aria-label={`${name}, ${says}${floor}`}
        onPointerDown={(e) => hand.down(id, e)}
        onPointerMove={hand.move}
        onPointerUp={hand.up}
        onPointerCancel={hand.cancel}
        onDoubleClick={(e) =>
          setEditing(e.clientX - e.currentTarget.getBoundingClientRect().left > (mark ? 190 : 66) ? 'height' : 'name')
        }
        onKeyDown={(e) => {
          if (e.key === 'Enter') {
            e.preventDefault()
            hand.show(id)
            setEditing(e.shiftKey ? 'height' : 'name')
          } else hand.key(id, e)
        }}
      />
      {editing === 'name' ? (
        <Typing start={name} label={`name of ${name}`} onAccept={accept} onCancel={() => setEditing(null)} />
      ) : (
        <span className="pointer-events-none truncate pr-0.5">{name}</span>
      )}
      {editing === 'height' ? (
        <Typing
          start={editNumber(height, 'length', shownAs)}
          label={`height of ${name}`}
          onAccept={accept}
          onCancel={() => setEditing(null)}
        />
      ) : (
        <span className="pointer-events-none shrink-0 pl-1 font-normal text-ink2">{says}</span>
      )}
    </li>
  )
})

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

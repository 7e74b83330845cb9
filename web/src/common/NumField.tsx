import { createContext, memo, useContext, useId, useRef, useState, type FocusEvent } from 'react'
import { flushSync } from 'react-dom'
import { shallowEqual } from 'react-redux'
import {
  editNumber,
  numbersInRule,
  readTyped,
  Refusal,
  sayInUnits,
  showFormula,
  showNumber,
  showQuantity,
  type Num,
  type Project,
  type Quantity,
  type Scheme,
} from '@geotome/core/project'
import { shownOf } from '../app/project-slice'
import { whileTyping } from '../app/session'
import { store, useAppSelector } from '../app/store'

interface Props {
  label: string
  value: Num
  quantity?: Quantity
  /** stores what was typed; false keeps the field open with the text in it */
  onAccept: (num: Num, value: number) => boolean | void
  /** tried while typing, taken back on Escape */
  onTry?: (num: Num | null, value: number) => void
  hint?: string | undefined
  disabled?: boolean
  /** half as wide: the unit is left to the neighbours */
  compact?: boolean
  /** what it is called where its label is not written */
  name?: string
}

/** The rule in whose steps fields stand: formulas there may name what its steps give. */
export const RuleScope = createContext<string | null>(null)

interface Open {
  project: Project
  scheme: Scheme
}

/** What a field reads: its value as it is edited, as a number, and as it is read. */
function readings({ project, scheme }: Open, value: Num, quantity: Quantity, rule: string | null, compact: boolean) {
  const now = numbersInRule(project, scheme, rule).value(value, quantity)
  const long = showQuantity(now, quantity, project)
  if (typeof value === 'number')
    return {
      now,
      text: editNumber(value, quantity, project),
      says: compact ? showNumber(value, quantity, project) : long,
      long,
    }
  const text = showFormula(value.formula, project, scheme)
  return { now, text, says: `${text} = ${long}`, long }
}

/** A field that takes arithmetic, units and the names of dials; it shows value and unit before they are accepted. */
export const NumField = memo(function NumField({
  label,
  value,
  quantity = 'length',
  onAccept,
  onTry,
  hint,
  disabled,
  compact,
  name,
}: Props) {
  const id = useId()
  const [typed, setTyped] = useState<string | null>(null)
  const [refused, setRefused] = useState(false)
  const cancelled = useRef(false)
  // What stood in the field when it was begun: while a value is tried, the field's own value is the tried one.
  const began = useRef<string | null>(null)
  const rule = useContext(RuleScope)
  // Only what it shows is followed: a field that stays as it is is not drawn again when something else changes.
  const { now, text, says, long } = useAppSelector(
    (s) => readings(shownOf(s), value, quantity, rule, compact ?? false),
    shallowEqual,
  )
  // While something is typed in it, it is read with all that it may name.
  const open = useAppSelector((s) => (typed === null ? null : shownOf(s)), shallowEqual)
  const read = (() => {
    if (!open || typed === null || typed.trim() === '' || typed === (began.current ?? text)) return null
    const { project, scheme } = open
    try {
      return { ok: readTyped(typed, quantity, project, scheme, rule) }
    } catch (e) {
      if (e instanceof Refusal) return { fault: sayInUnits(e.message, project) }
      throw e
    }
  })()
  /** Whether the field is done; what was refused stays in it. */
  const accept = (): boolean => {
    if (read && 'fault' in read) return false
    if (read?.ok && onAccept(read.ok.num, read.ok.value) === false) {
      setRefused(true)
      return false
    }
    if (!read && typed !== null && typed !== text) onTry?.(null, now)
    began.current = null
    setTyped(null)
    return true
  }
  const focused = (e: FocusEvent<HTMLInputElement>) => {
    const field = e.currentTarget
    cancelled.current = false
    began.current ??= text
    // What is edited is there and selected before the first key comes; a click puts the caret afterwards, so it is selected once more.
    if (typed === null) flushSync(() => setTyped(text))
    field.select()
    requestAnimationFrame(() => {
      if (document.activeElement === field && field.value === text) field.select()
    })
  }
  const change = (next: string) => {
    setTyped(next)
    setRefused(false)
    if (!onTry) return
    const { project, scheme } = shownOf(store.getState())
    try {
      const { num, value: v } = readTyped(next, quantity, project, scheme, rule)
      whileTyping(() => onTry(num, v))
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
    }
  }
  const note =
    read && 'fault' in read
      ? read.fault
      : read?.ok && open
        ? `= ${showQuantity(read.ok.value, quantity, open.project)}`
        : typed !== null && typeof value !== 'number'
          ? `= ${long}`
          : hint
  const fault = refused || (read !== null && 'fault' in read)
  return (
    <div className="mb-1.5">
      <label
        htmlFor={id}
        className={`input w-full ${compact ? 'input-sm gap-1 px-1.5' : 'px-2.5'} ${fault ? 'input-error' : ''}`}
      >
        {label && <span className={`shrink-0 text-ink2 ${compact ? 'text-[11px]' : ''}`}>{label}</span>}
        <input
          id={id}
          aria-label={name}
          className="min-w-0 flex-1 text-right font-semibold"
          disabled={disabled}
          autoComplete="off"
          spellCheck={false}
          aria-invalid={fault}
          aria-describedby={note ? `${id}-note` : undefined}
          value={typed ?? says}
          onFocus={focused}
          onChange={(e) => change(e.target.value)}
          onBlur={() => {
            if (cancelled.current) {
              cancelled.current = false
              began.current = null
              setTyped(null)
              setRefused(false)
            } else if (!refused) accept()
          }}
          onKeyDown={(e) => {
            if (e.key === 'Enter') {
              e.preventDefault()
              if (accept()) {
                cancelled.current = true
                e.currentTarget.blur()
              }
            }
            if (e.key === 'Escape') {
              e.stopPropagation()
              cancelled.current = true
              onTry?.(null, now)
              e.currentTarget.blur()
            }
          }}
        />
      </label>
      {note && (
        <p
          id={`${id}-note`}
          role={fault ? 'alert' : undefined}
          className={`mt-0.5 px-1 text-[11px] ${fault ? 'text-error' : 'text-ink2'}`}
        >
          {note}
        </p>
      )}
    </div>
  )
})

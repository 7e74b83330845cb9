import { useContext, useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import type { SingleEdit } from '@geotome/core/edits'
import {
  editNumber,
  nextOrder,
  numbersInRule,
  readTyped,
  Refusal,
  showFormula,
  showQuantity,
  type Dial,
  type Num,
  type Project,
  type Quantity,
  type Scheme,
} from '@geotome/core/project'
import { useProject } from '../../app/hooks'
import { RuleScope } from '../../common/NumField'
import { inUnits } from '../../common/tell'

/** A blank within a sentence: as wide as what is in it. */
export const BLANK =
  'inline-block max-w-full cursor-pointer rounded-sm border-0 border-b border-dashed border-ink3 bg-transparent px-0.5 font-semibold text-ink outline-none [field-sizing:content] hover:bg-field focus-visible:border-solid focus-visible:border-cut focus-visible:bg-field'

/** Text that is typed within a sentence; `accept` gives what is wrong with it, or null. */
export function Typed({
  label,
  text,
  shown,
  placeholder,
  accept,
  attempt,
}: {
  label: string
  text: string
  shown: string
  placeholder?: string | undefined
  accept: (text: string) => string | null
  attempt?: (text: string | null) => void
}) {
  const [typed, setTyped] = useState<string | null>(null)
  const [fault, setFault] = useState<string | null>(null)
  const left = useRef(false)
  // What stood there when it was begun: while a value is tried, the blank's own is the tried one.
  const began = useRef('')
  const done = (): boolean => {
    if (typed === null || typed === began.current) {
      if (typed !== null) attempt?.(null)
      setTyped(null)
      setFault(null)
      return true
    }
    const wrong = accept(typed)
    setFault(wrong)
    if (wrong === null) setTyped(null)
    return wrong === null
  }
  return (
    <>
      <input
        aria-label={label}
        aria-invalid={fault !== null}
        className={`${BLANK} min-w-4 text-center ${fault ? 'border-solid border-error' : ''}`}
        autoComplete="off"
        spellCheck={false}
        placeholder={placeholder}
        value={typed ?? shown}
        onFocus={(e) => {
          left.current = false
          began.current = text
          const field = e.currentTarget
          // What is edited is there and selected before the first key comes; a click puts the caret afterwards, so it is selected once more.
          flushSync(() => setTyped(text))
          field.select()
          requestAnimationFrame(() => {
            if (document.activeElement === field && field.value === text) field.select()
          })
        }}
        onChange={(e) => {
          setTyped(e.target.value)
          setFault(null)
          attempt?.(e.target.value)
        }}
        onBlur={() => {
          if (left.current) {
            setTyped(null)
            setFault(null)
          } else done()
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && done()) {
            left.current = true
            e.currentTarget.blur()
          }
          if (e.key === 'Escape') {
            e.stopPropagation()
            left.current = true
            attempt?.(null)
            e.currentTarget.blur()
          }
        }}
      />
      {fault && (
        <span role="alert" className="block text-[11px] text-error">
          {fault}
        </span>
      )}
    </>
  )
}

const told = (read: () => void): string | null => {
  try {
    read()
    return null
  } catch (e) {
    if (e instanceof Refusal) return inUnits(e.message)
    throw e
  }
}

/** A number within a sentence: plain, or a formula that names dials and what steps above give. */
export function InlineNumber({
  label,
  value,
  quantity,
  otherwise,
  set,
  attempt,
}: {
  label: string
  value: Num | null
  quantity: Quantity
  /** what an empty blank means, where it may be empty */ otherwise?: string | undefined
  set: (num: Num | null, also?: SingleEdit[]) => boolean
  attempt: (num: Num | null) => void
}) {
  const { project, scheme } = useProject()
  const rule = useContext(RuleScope)
  const text =
    value === null
      ? ''
      : typeof value === 'number'
        ? editNumber(value, quantity, project)
        : showFormula(value.formula, project, scheme)
  const shown = value === null ? '' : typeof value === 'number' ? showQuantity(value, quantity, project) : text
  return (
    <Typed
      label={label}
      text={text}
      shown={shown}
      placeholder={otherwise}
      accept={(typed) => {
        let num: Num | null = null
        let dial: SingleEdit | null = null
        const wrong = told(() => {
          // "inset = 2.3" makes a dial of the number.
          const named = /^\s*(\p{L}[\p{L}\p{N}_]{0,39})\s*=\s*(.+)$/u.exec(typed)
          if (named) {
            const made = dialOf(named[1] ?? '', named[2] ?? '', quantity, project, scheme)
            dial = { edit: 'dial.add', scheme: scheme.id, thing: made }
            num = { formula: `{${made.id}}` }
            return
          }
          if (!typed.trim() && otherwise === undefined) throw new Refusal('formula', 'Type a number.', '')
          num = typed.trim() ? readTyped(typed, quantity, project, scheme, rule).num : null
        })
        return wrong ?? (set(num, dial ? [dial] : undefined) ? null : 'It cannot be so.')
      }}
      attempt={(typed) => {
        if (typed === null) attempt(null)
        else told(() => attempt(readTyped(typed, quantity, project, scheme, rule).num))
      }}
    />
  )
}

/** A dial by a name, with a range about its value. Errors: 'name-taken', those of formulas. */
function dialOf(name: string, text: string, quantity: Quantity, project: Project, scheme: Scheme): Dial {
  const taken = [...Object.values(project.dials), ...Object.values(scheme.dials)]
  if (taken.some((d) => d.name.toLowerCase() === name.toLowerCase()))
    throw new Refusal('name-taken', `There is a dial named "${name}" already.`, 'Type its name alone, or another one.')
  const { num, value } = readTyped(text, quantity, project, scheme)
  const step = quantity === 'length' ? 0.1 : 1
  const round = (v: number) => Math.round(v / step) * step
  const [a, b] = [round(value / 2), round(value * 2)]
  return {
    id: crypto.randomUUID(),
    order: nextOrder(scheme.dials),
    name,
    quantity,
    value: num,
    least: value === 0 ? null : Math.min(a, b),
    most: value === 0 ? null : Math.max(a, b),
    step,
  }
}

/** What a formula comes to, beside it. */
export function useValueOf(): (num: Num, quantity: Quantity) => string {
  const { project, scheme } = useProject()
  const rule = useContext(RuleScope)
  const numbers = numbersInRule(project, scheme, rule)
  return (num, quantity) => {
    let shown = ''
    told(() => void (shown = showQuantity(numbers.value(num, quantity), quantity, project)))
    return shown
  }
}

export function InlineWord({ label, value, set }: { label: string; value: string; set: (word: string) => boolean }) {
  return (
    <Typed
      label={label}
      text={value}
      shown={value}
      accept={(typed) =>
        /^\p{L}[\p{L}\p{N}_]{0,39}$/u.test(typed.trim())
          ? set(typed.trim())
            ? null
            : 'It cannot be called so.'
          : 'Type one word: a letter, then letters, digits or _.'
      }
    />
  )
}

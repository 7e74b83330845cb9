import { useState } from 'react'
import { SlidersHorizontal, X } from 'lucide-react'
import { editNumber, numbersOf, readTyped, Refusal, showQuantity, type Dial } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit, tryEdit } from '../app/session'
import { NumField } from '../common/NumField'

/** A dial: its value, typed or drawn along its range with the result live; its range is set behind the second button. */
export function DialRow({ dial }: { dial: Dial }) {
  const { project, scheme } = useProject()
  const [open, setOpen] = useState(false)
  const [drawn, setDrawn] = useState<number | null>(null)
  const edit = (set: Partial<Omit<Dial, 'id'>>) => ({
    edit: 'dial.change' as const,
    scheme: scheme.id,
    id: dial.id,
    set,
  })
  const label = `dial ${dial.name}`
  const now = drawn ?? numbersOf(project, scheme).value(dial.value, dial.quantity)
  const { least, most, step } = dial
  const accept = () => {
    if (drawn === null) return
    if (!makeEdit(label, () => edit({ value: drawn }))) tryEdit(null)
    setDrawn(null)
  }
  return (
    <div className="group mb-1">
      <div className="flex items-center gap-0.5">
        <div className="min-w-0 flex-1 [&_.input]:h-7 [&>div]:mb-0">
          <NumField
            label={dial.name}
            quantity={dial.quantity}
            value={drawn ?? dial.value}
            onAccept={(value) => makeEdit(label, () => edit({ value }))}
            onTry={(value) => tryEdit(value === null ? null : () => edit({ value }))}
          />
        </div>
        <button
          className="cursor-pointer px-0.5 text-ink2 hover:text-ink"
          aria-label={`Range of ${dial.name}`}
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          <SlidersHorizontal size={13} />
        </button>
        <button
          className="cursor-pointer px-0.5 text-ink2 hover:text-ink"
          aria-label={`Remove dial ${dial.name}`}
          onClick={() => makeEdit(`remove ${label}`, { edit: 'dial.remove', scheme: scheme.id, id: dial.id })}
        >
          <X size={13} />
        </button>
      </div>
      {least !== null && most !== null && most > least && (
        <input
          type="range"
          className="range range-xs -mt-1 block h-3.5 w-[calc(100%-40px)] [--range-fill:0] [--range-p:2px] [--range-thumb:var(--cut)] [--range-thumb-size:12px]"
          aria-label={`draw ${dial.name}`}
          aria-valuetext={showQuantity(now, dial.quantity, project)}
          min={least}
          max={most}
          step={step ?? 'any'}
          value={now}
          onChange={(e) => {
            const value = Math.round(Number(e.target.value) * 1e9) / 1e9
            setDrawn(value)
            tryEdit(() => edit({ value }))
          }}
          onPointerUp={accept}
          onKeyUp={accept}
          onBlur={accept}
        />
      )}
      {open && <Range dial={dial} set={(set) => makeEdit(`range of ${dial.name}`, () => edit(set))} />}
    </div>
  )
}

const ENDS = [
  ['least', 'from'],
  ['most', 'to'],
  ['step', 'in steps of'],
] as const

function Range({ dial, set }: { dial: Dial; set: (fields: Partial<Dial>) => boolean }) {
  const { project, scheme } = useProject()
  return (
    <p className="mt-1 flex flex-wrap gap-x-2 gap-y-1 pl-2 text-[12px] text-ink2">
      {ENDS.map(([key, word]) => (
        <label key={key} className="flex items-center gap-1">
          {word}
          <input
            key={String(dial[key])}
            aria-label={`${dial.name} ${word}`}
            className="w-14 border-b border-dashed border-ink3 bg-transparent text-right font-semibold text-ink outline-none focus-visible:border-cut"
            defaultValue={dial[key] === null ? '' : editNumber(dial[key], dial.quantity, project)}
            placeholder="open"
            onBlur={(e) => {
              const text = e.target.value.trim()
              try {
                const value = text ? readTyped(text, dial.quantity, project, scheme).value : null
                if (value !== dial[key]) set({ [key]: value })
              } catch (error) {
                if (!(error instanceof Refusal)) throw error
                e.target.value = dial[key] === null ? '' : editNumber(dial[key], dial.quantity, project)
              }
            }}
            onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
          />
        </label>
      ))}
    </p>
  )
}

import type { ReactNode } from 'react'
import { BLANK, Typed } from './inline'

/** Plain numbers in turn: typed or pasted, apart by commas, semicolons, blanks or lines; 3-5 is 3, 4, 5. */
export function InlineList({
  label,
  value,
  set,
}: {
  label: string
  value: number[]
  set: (list: number[]) => boolean
}) {
  const text = value.join(', ')
  return (
    <Typed
      label={label}
      text={text}
      shown={text}
      accept={(typed) => {
        const bits = typed.split(/[,;\s]+/).filter(Boolean)
        const list = bits.flatMap((bit) => {
          const range = /^(\d+)-(\d+)$/.exec(bit)
          if (!range) return [Number(bit)]
          const [from, to] = [Number(range[1]), Number(range[2])]
          return to >= from && to - from < 5000 ? Array.from({ length: to - from + 1 }, (_, i) => from + i) : [NaN]
        })
        const wrong = bits.find((_, i) => Number.isNaN(list[i] ?? 0)) ?? null
        if (list.length === 0) return 'Type at least one number.'
        if (list.some((n) => !Number.isFinite(n))) return `"${wrong ?? typed}" is no number.`
        return set(list) ? null : 'It cannot be so.'
      }}
    />
  )
}

export function InlineChoice({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: string
  options: readonly { value: string; label: string }[]
  onChange: (value: string) => void
}) {
  return (
    <select
      aria-label={label}
      className={`${BLANK} appearance-none`}
      value={value}
      onChange={(e) => onChange(e.target.value)}
    >
      {options.map((o) => (
        <option key={o.value} value={o.value} className="bg-panel text-ink">
          {o.label}
        </option>
      ))}
    </select>
  )
}

/** Materials in turn: each taken off by a click, another one added behind. */
export function InlineMaterials({
  label,
  value,
  options,
  set,
}: {
  label: string
  value: string[]
  options: readonly { id: string; name: string; colour: string }[]
  set: (ids: string[]) => void
}): ReactNode {
  return (
    <span role="group" aria-label={label}>
      {value.map((id, i) => {
        const one = options.find((o) => o.id === id)
        return (
          <button
            key={`${id} ${i}`}
            type="button"
            title="Take it off"
            className={`${BLANK} mr-1`}
            onClick={() => set(value.filter((_, k) => k !== i))}
          >
            <i className="mr-1 inline-block h-2.5 w-2.5 rounded-[2px]" style={{ background: one?.colour }} />
            {one?.name ?? 'gone'}
          </button>
        )
      })}
      <select
        aria-label={`add to ${label}`}
        className={`${BLANK} appearance-none font-normal text-ink2`}
        value=""
        onChange={(e) => e.target.value && set([...value, e.target.value])}
      >
        <option value="">{value.length ? 'and …' : 'paper'}</option>
        {options.map((o) => (
          <option key={o.id} value={o.id} className="bg-panel text-ink">
            {o.name}
          </option>
        ))}
      </select>
    </span>
  )
}

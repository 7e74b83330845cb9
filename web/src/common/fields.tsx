import { memo, useId, useState, type ReactNode } from 'react'

/** A name that is changed in place. */
export const NameField = memo(function NameField({
  label,
  value,
  onAccept,
  hidden,
}: {
  label: string
  value: string
  /** what it is, where there is no room to show it */ hidden?: string
  onAccept: (name: string) => boolean | void
}) {
  const id = useId()
  const [typed, setTyped] = useState<string | null>(null)
  const accept = () => {
    const name = typed?.trim()
    if (name && name !== value && onAccept(name) === false) return
    setTyped(null)
  }
  return (
    <label htmlFor={id} className="input mb-1.5 w-full px-2.5">
      {label && <span className="text-ink2">{label}</span>}
      <input
        id={id}
        aria-label={hidden}
        className="min-w-0 flex-1 text-right font-semibold"
        value={typed ?? value}
        maxLength={120}
        autoComplete="off"
        onFocus={(e) => {
          setTyped(value)
          e.currentTarget.select()
        }}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={accept}
        onKeyDown={(e) => {
          if (e.key === 'Enter') e.currentTarget.blur()
          if (e.key === 'Escape') {
            setTyped(value)
            e.stopPropagation()
            requestAnimationFrame(() => (e.target as HTMLElement).blur())
          }
        }}
      />
    </label>
  )
})

/** A choice from a short list. */
export const ChoiceField = memo(Choice) as typeof Choice

function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: T
  options: { value: T; label: string }[]
  onChange: (value: T) => void
}) {
  const id = useId()
  return (
    <label htmlFor={id} className="input mb-1.5 w-full px-2.5">
      <span className="shrink-0 text-ink2">{label}</span>
      <select
        id={id}
        className="min-w-0 flex-1 cursor-pointer bg-transparent text-right font-semibold outline-none [text-align-last:right]"
        value={value}
        onChange={(e) => onChange(e.target.value as T)}
      >
        {options.map((o) => (
          <option key={o.value} value={o.value} className="bg-panel text-ink">
            {o.label}
          </option>
        ))}
      </select>
    </label>
  )
}

/** A figure that is read, not typed. */
export function Figure({ label, children, tone }: { label: ReactNode; children: ReactNode; tone?: 'warn' }) {
  return (
    <div className="row">
      <span className="text-ink2">{label}</span>
      <span className={`font-semibold ${tone === 'warn' ? 'text-warn' : ''}`}>{children}</span>
    </div>
  )
}

export function Section({ title, children, aside }: { title: string; children: ReactNode; aside?: ReactNode }) {
  return (
    <section className="mb-4">
      <div className="mb-2 flex items-center justify-between">
        <h3 className="eyebrow">{title}</h3>
        {aside}
      </div>
      {children}
    </section>
  )
}

/** Brings what has just appeared into sight. */
export const intoView = (element: HTMLElement | null): void => {
  element?.scrollIntoView({ block: 'nearest' })
}

import { useState } from 'react'
import type { Vec2 } from '@geotome/core/solid'

/** A point of which one number may still be missing. */
type HalfPoint = readonly [number | null, number | null]
const NONE: HalfPoint = [null, null]

/** Picked pixels as numbers that can be typed. A point is given on only when both of its numbers and all points before it stand. */
export function PointFields({
  points,
  count,
  onChange,
}: {
  points: Vec2[]
  count: number
  onChange: (points: Vec2[]) => void
}) {
  const [halves, setHalves] = useState<readonly HalfPoint[]>([])
  const shown = Array.from({ length: count }, (_, i): HalfPoint => points[i] ?? halves[i] ?? NONE)
  const set = (i: number, k: 0 | 1) => (v: number) => {
    const all = shown.map((p, n): HalfPoint => (n !== i ? p : k === 0 ? [v, p[1]] : [p[0], v]))
    const missing = all.findIndex(([x, y]) => x === null || y === null)
    const whole = (missing < 0 ? all : all.slice(0, missing)) as Vec2[]
    setHalves(all.map((p, n) => (n < whole.length ? NONE : p)))
    if (whole.length > points.length || i < points.length) onChange([...whole, ...points.slice(whole.length)])
  }
  return (
    <div className="mb-2 grid grid-cols-[auto_1fr_1fr] items-center gap-1.5 text-[12px] text-ink2" data-points>
      {shown.map(([x, y], i) => [
        <span key={`l${i}`}>point {i + 1}</span>,
        <Pixel key={`x${i}`} label={`point ${i + 1} x`} value={x} onAccept={set(i, 0)} />,
        <Pixel key={`y${i}`} label={`point ${i + 1} y`} value={y} onAccept={set(i, 1)} />,
      ])}
    </div>
  )
}

function Pixel({ label, value, onAccept }: { label: string; value: number | null; onAccept: (v: number) => void }) {
  const [typed, setTyped] = useState<string | null>(null)
  const accept = () => {
    const v = Number(typed)
    if (typed !== null && typed.trim() !== '' && Number.isFinite(v) && v !== value) onAccept(v)
    setTyped(null)
  }
  return (
    <input
      aria-label={label}
      className="input input-xs w-full min-w-0 text-right font-semibold"
      value={typed ?? (value === null ? '' : String(value))}
      onFocus={(e) => {
        setTyped(value === null ? '' : String(value))
        e.currentTarget.select()
      }}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={accept}
      onKeyDown={(e) => {
        if (e.key === 'Enter') {
          e.preventDefault()
          const fields = [...(e.currentTarget.closest('[data-points]')?.querySelectorAll('input') ?? [])]
          const next = fields[fields.indexOf(e.currentTarget) + 1]
          if (next) next.focus()
          else e.currentTarget.blur()
        }
        if (e.key === 'Escape') {
          e.stopPropagation()
          setTyped(null)
          e.currentTarget.blur()
        }
      }}
    />
  )
}

import { useState } from 'react'
import type { Vec2 } from '@geotome/core/solid'

/** Picked pixels as numbers that can be typed. */
export function PointFields({
  points,
  count,
  onChange,
}: {
  points: Vec2[]
  count: number
  onChange: (points: Vec2[]) => void
}) {
  return (
    <div className="mb-2 grid grid-cols-[auto_1fr_1fr] items-center gap-1.5 text-[12px] text-ink2">
      {Array.from({ length: count }, (_, i) => {
        const set = (k: 0 | 1) => (v: number) => {
          const all = Array.from({ length: Math.max(i + 1, points.length) }, (_x, n): Vec2 => points[n] ?? [0, 0])
          const p = all[i] as Vec2
          all[i] = k === 0 ? [v, p[1]] : [p[0], v]
          onChange(all)
        }
        return [
          <span key={`l${i}`}>point {i + 1}</span>,
          <Pixel key={`x${i}`} label={`point ${i + 1} x`} value={points[i]?.[0] ?? null} onAccept={set(0)} />,
          <Pixel key={`y${i}`} label={`point ${i + 1} y`} value={points[i]?.[1] ?? null} onAccept={set(1)} />,
        ]
      })}
    </div>
  )
}

function Pixel({ label, value, onAccept }: { label: string; value: number | null; onAccept: (v: number) => void }) {
  const [typed, setTyped] = useState<string | null>(null)
  const accept = () => {
    const v = Number(typed)
    if (typed !== null && typed.trim() !== '' && Number.isFinite(v)) onAccept(v)
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
          e.currentTarget.blur()
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

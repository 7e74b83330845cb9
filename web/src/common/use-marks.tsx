import { memo } from 'react'
import { USE_PATTERNS, type Use, type UsePattern } from '@geotome/core/project'

/** Strokes in a square of 8 by 8 that is laid out again and again. */
const STROKES: Record<UsePattern, string> = {
  plain: '',
  rising: 'M0 8L8 0M-2 2L2 -2M6 10L10 6',
  lying: 'M0 2H8M0 6H8',
  upright: 'M2 0V8M6 0V8',
  crossed: 'M0 0L8 8M0 8L8 0',
  falling: 'M0 0L8 8M-2 6L2 10M6 -2L10 2',
  dotted: 'M1.5 2h1M5.5 6h1',
  woven: 'M0 2H4M2 4V8M4 6H8M6 0V4',
}
/** as many are given by the place among the uses */
const BY_ORDER = 5

/** What a use is drawn with: its own pattern, or one by its place among the uses. */
export const patternOf = (use: Pick<Use, 'pattern'>, order: number): UsePattern =>
  use.pattern ?? USE_PATTERNS[Math.max(0, order) % BY_ORDER] ?? 'plain'

/** The mark of a use: its colour, and a pattern for those who do not tell colours apart. */
export function UseMark({
  use,
  order,
  size = 11,
}: {
  use: Pick<Use, 'colour' | 'pattern'>
  order: number
  size?: number
}) {
  const pattern = patternOf(use, order)
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 8 8"
      aria-hidden
      data-pattern={pattern}
      className="inline-block shrink-0 rounded-[2px]"
    >
      <rect width={8} height={8} fill={use.colour} />
      <path d={STROKES[pattern]} stroke="#ffffff" strokeOpacity={0.75} strokeWidth={0.9} fill="none" />
    </svg>
  )
}

/** Each use as a colour with a pattern on it, to fill bars and plates with. */
export const UsePatterns = memo(function UsePatterns({ uses }: { uses: Use[] }) {
  return (
    <defs>
      {uses.map((u, i) => (
        <pattern key={u.id} id={`use-${u.id}`} width={8} height={8} patternUnits="userSpaceOnUse">
          <rect width={8} height={8} fill={u.colour} />
          <path d={STROKES[patternOf(u, i)]} stroke="var(--panel)" strokeOpacity={0.45} strokeWidth={1} fill="none" />
        </pattern>
      ))}
    </defs>
  )
})

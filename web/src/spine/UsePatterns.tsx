import { memo } from 'react'
import type { Use } from '@geotome/core/project'

/** Each use as a colour with a pattern on it, so that bars can be told apart without seeing colour. */
export const UsePatterns = memo(function UsePatterns({ uses }: { uses: Use[] }) {
  return (
    <defs>
      {uses.map((u, i) => (
        <pattern key={u.id} id={`use-${u.id}`} width={8} height={8} patternUnits="userSpaceOnUse">
          <rect width={8} height={8} fill={u.colour} />
          <path
            d={STROKES[i % STROKES.length] ?? ''}
            stroke="var(--panel)"
            strokeOpacity={0.4}
            strokeWidth={1}
            fill="none"
          />
        </pattern>
      ))}
    </defs>
  )
})

const STROKES = ['', 'M0 8L8 0M-2 2L2 -2M6 10L10 6', 'M0 4H8', 'M4 0V8', 'M0 0L8 8M0 8L8 0']

import { memo } from 'react'
import { useUses } from '../app/hooks'
import { UsePatterns } from '../common/use-marks'
import type { StoredFloor } from '../stage/geometry-store'

/** The floor's outline in small, by use. */
export const PlateFigure = memo(function PlateFigure({ plates, lows }: Pick<StoredFloor, 'plates' | 'lows'>) {
  const uses = useUses()
  const points = plates.flatMap((p) => p.region.flat())
  if (points.length === 0)
    return (
      <p className="mb-3 rounded-md bg-field p-3 text-[12px] text-ink2">
        No mass takes this level. Raise one, or move the level.
      </p>
    )
  const [x0, x1] = [Math.min(...points.map((p) => p[0])), Math.max(...points.map((p) => p[0]))]
  const [y0, y1] = [Math.min(...points.map((p) => p[1])), Math.max(...points.map((p) => p[1]))]
  const k = Math.min(220 / Math.max(1, x1 - x0), 110 / Math.max(1, y1 - y0))
  const path = (region: number[][][]) =>
    region
      .map(
        (l) =>
          l
            .map(
              ([x = 0, y = 0], i) =>
                `${i ? 'L' : 'M'}${((x - x0) * k + 2).toFixed(1)} ${((y1 - y) * k + 2).toFixed(1)}`,
            )
            .join('') + 'Z',
      )
      .join('')
  return (
    <svg width={(x1 - x0) * k + 4} height={(y1 - y0) * k + 4} className="mx-auto mb-3 block" aria-hidden>
      <UsePatterns uses={uses} />
      {plates.map((p, i) => (
        <path
          key={i}
          d={path(p.region)}
          fill={`url(#use-${p.use})`}
          stroke="var(--ink)"
          strokeWidth={1.3}
          fillRule="evenodd"
        />
      ))}
      {lows.length > 0 && <path d={path(lows)} fill="none" stroke="var(--warn)" strokeDasharray="3 2" />}
    </svg>
  )
})

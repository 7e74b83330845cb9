import { memo, useMemo } from 'react'
import type { Region } from '@geotome/core/solid'
import { useUses } from '../app/hooks'
import { UsePatterns } from '../common/use-marks'
import type { StoredFloor } from '../stage/geometry-store'

/** The floor's outline in small, by use. */
export const PlateFigure = memo(function PlateFigure({ plates, lows }: Pick<StoredFloor, 'plates' | 'lows'>) {
  const uses = useUses()
  const [x0, y0, x1, y1] = extentOf(plates)
  const at = useMemo<Frame>(
    () => ({ x0, y1, k: Math.min(220 / Math.max(1, x1 - x0), 110 / Math.max(1, y1 - y0)) }),
    [x0, y0, x1, y1],
  )
  if (x0 > x1)
    return (
      <p className="mb-3 rounded-md bg-field p-3 text-[12px] text-ink2">
        No mass takes this level. Raise one, or move the level.
      </p>
    )
  return (
    <svg width={(x1 - x0) * at.k + 4} height={(y1 - y0) * at.k + 4} className="mx-auto mb-3 block" aria-hidden>
      <UsePatterns uses={uses} />
      {plates.map((p, i) => (
        <Piece key={i} region={p.region} use={p.use} at={at} />
      ))}
      {lows.length > 0 && <path d={pathOf(lows, at)} fill="none" stroke="var(--warn)" strokeDasharray="3 2" />}
    </svg>
  )
})

/** m of what lies at the left and at the top of the figure, and its px to the metre */
interface Frame {
  x0: number
  y1: number
  k: number
}

/** One piece of the floor; that of a mass which stays as it is is not drawn again. */
const Piece = memo(function Piece({ region, use, at }: { region: Region; use: string; at: Frame }) {
  return (
    <path d={pathOf(region, at)} fill={`url(#use-${use})`} stroke="var(--ink)" strokeWidth={1.3} fillRule="evenodd" />
  )
})

const pathOf = (region: Region, { x0, y1, k }: Frame) =>
  region
    .map(
      (loop) =>
        loop
          .map(([x, y], i) => `${i ? 'L' : 'M'}${((x - x0) * k + 2).toFixed(1)} ${((y1 - y) * k + 2).toFixed(1)}`)
          .join('') + 'Z',
    )
    .join('')

/** x0, y0, x1, y1, m; none where x0 is above x1 */
function extentOf(plates: StoredFloor['plates']): [number, number, number, number] {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity]
  for (const { region } of plates)
    for (const loop of region)
      for (const [x, y] of loop) {
        if (x < x0) x0 = x
        if (x > x1) x1 = x
        if (y < y0) y0 = y
        if (y > y1) y1 = y
      }
  return [x0, y0, x1, y1]
}

import { memo } from 'react'
import { showQuantity, type Unit } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { toPane, type View } from './camera'
import { isHidden } from './picking'

/** A north arrow, as on a site plan. */
export const North = memo(function North({ azimuth }: { azimuth: number }) {
  return (
    <svg
      className="pointer-events-none absolute right-3 top-11 overflow-visible"
      width={34}
      height={46}
      viewBox="-17 -28 34 46"
      aria-hidden
    >
      <g transform={`rotate(${-azimuth})`}>
        <circle r={13} fill="none" stroke="var(--ink)" strokeWidth={1} />
        <path d="M0 -12L4.4 8L0 5L-4.4 8Z" fill="var(--ink)" />
        <text y={-17} textAnchor="middle" fontSize={10} fill="var(--ink2)">
          N
        </text>
      </g>
    </svg>
  )
})

/** Where the project's zero lies on the ground; x, y from the view's origin. */
export const ZeroMark = memo(function ZeroMark({ view, size, x, y }: { view: View; size: Vec2; x: number; y: number }) {
  const at = (dx: number, dy: number) => toPane(view, size, [x + dx, y + dy, 0])
  if (isHidden(view, [x, y, 0])) return null
  const arm = 9 / view.scale
  const [[ax, ay], [bx, by], [cx, cy], [dx, dy]] = [at(-arm, 0), at(arm, 0), at(0, -arm), at(0, arm)]
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden>
      <path d={`M${ax} ${ay}L${bx} ${by}M${cx} ${cy}L${dx} ${dy}`} stroke="var(--ink3)" strokeWidth={1} />
    </svg>
  )
})

/** A scale bar for a plan: a round length, in two halves. */
export const ScaleBar = memo(function ScaleBar({ view, unit }: { view: View; unit: Unit }) {
  // Round in the project's own unit: feet, where it has feet.
  const foot = unit === 'ft' ? 0.3048 : 1
  const want = 96 / view.scale / foot
  const power = 10 ** Math.floor(Math.log10(want))
  const length = ([5, 2, 1].map((n) => n * power).find((l) => l <= want) ?? power) * foot
  const px = length * view.scale
  const text =
    unit === 'ft'
      ? showQuantity(length, 'length', 'ft')
      : showQuantity(length, 'length', unit, unit === 'm' && length < 1 ? 1 : 0)
  return (
    <svg
      className="pointer-events-none absolute right-4 bottom-[calc(var(--foot)+30px)] overflow-visible"
      width={px}
      height={18}
      aria-hidden
    >
      <rect x={0} y={13} width={px / 2} height={4} fill="var(--ink2)" />
      <rect x={px / 2} y={13} width={px / 2} height={4} fill="var(--paper)" stroke="var(--ink2)" strokeWidth={0.8} />
      <g fontSize={10} fill="var(--ink2)">
        <text x={0} y={9}>
          0
        </text>
        <text x={px} y={9} textAnchor="end">
          {text}
        </text>
      </g>
    </svg>
  )
})

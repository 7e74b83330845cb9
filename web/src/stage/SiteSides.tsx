import type { Vec2 } from '@geotome/core/solid'
import { useStudy, useViewState } from '../app/hooks'
import { toPane, type View } from './camera'

/** px from a side to the middle of its name */
const OFF = 12
/** px: shorter sides go without their names, unless they are lit */
const SHORTEST = 46

/** The sides of the site by their names, along the boundary in plan; the side whose field has the focus is lit. */
export function SiteSides({ view, size }: { view: View; size: Vec2 }) {
  const { ground, siteSide } = { ...useStudy(), ...useViewState('siteSide') }
  const { site, envelope } = ground ?? {}
  if (!site || !envelope) return null
  const px = ([x, y]: Vec2) => toPane(view, size, [x, y, 0])
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden data-site-sides>
      {envelope.ring.map((a, i) => {
        const number = envelope.side[i] ?? i + 1
        const isLit = siteSide === number - 1
        const [p, q] = [px(a), px(envelope.ring[(i + 1) % envelope.ring.length] as Vec2)]
        const [dx, dy] = [q[0] - p[0], q[1] - p[1]]
        const length = Math.hypot(dx, dy)
        if (length < 1 || (length < SHORTEST && !isLit)) return null
        // On the pane y runs down: outwards is to the left of the way round.
        const [nx, ny] = [-dy / length, dx / length]
        const turn = (Math.atan2(dy, dx) * 180) / Math.PI
        const upright = Math.abs(turn) > 90 ? turn + 180 : turn
        const [x, y] = [(p[0] + q[0]) / 2 + nx * OFF, (p[1] + q[1]) / 2 + ny * OFF]
        return (
          <g key={number}>
            {isLit && <path d={`M${p[0]} ${p[1]}L${q[0]} ${q[1]}`} stroke="var(--cut)" strokeWidth={3.5} />}
            <text
              x={x}
              y={y}
              transform={`rotate(${upright} ${x} ${y})`}
              textAnchor="middle"
              dominantBaseline="middle"
              fontSize={10.5}
              fontWeight={isLit ? 700 : 500}
              fill={isLit ? 'var(--cuttext)' : 'var(--ink2)'}
              style={{ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 4 }}
            >
              {envelope.names[number - 1]}
            </text>
          </g>
        )
      })}
    </svg>
  )
}

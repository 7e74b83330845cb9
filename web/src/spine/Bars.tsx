import { memo } from 'react'
import { shallowEqual } from 'react-redux'
import { showNumber, type Level, type Shown, type Use } from '@geotome/core/project'
import type { SpineHand } from './LevelLabel'

/** px: where the axis stands, and how wide the spine is */
export const AXIS = 124
export const WIDTH = 248

interface FloorProps {
  id: string
  /** m2 of the floor, in all and by use; null while there is none */
  area: number | null
  by: Record<string, number>
  uses: Use[]
  /** px of a m2 */ perArea: number
  /** px */ high: number
  on: boolean
  /** whether a mark passes where its figure stands else */ marked: boolean
  hand: SpineHand
  /** how the project shows numbers */ shownAs: Shown
}

const PROPS = [
  'high',
  'area',
  'on',
  'uses',
  'perArea',
  'marked',
  'shownAs',
  'id',
  'hand',
] as const satisfies (keyof FloorProps)[]

/** A floor as a bar of its uses with its area, from the height of its level up. It is drawn where it is put, so that one that is carried stays. */
export const FloorBar = memo(
  function FloorBar({ id, area, by, uses, perArea, high, on, marked, shownAs, hand }: FloorProps) {
    let x = AXIS + 1
    return (
      <g className="cursor-ns-resize" onPointerDown={(e) => hand.down(id, e)}>
        <rect x={0} y={-high - 1.5} width={WIDTH} height={high + 3} fill="transparent" />
        {uses.map((u) => {
          const w = (by[u.id] ?? 0) * perArea
          if (w < 0.2) return null
          const at = x
          x += w
          return (
            <rect
              key={u.id}
              x={at}
              y={-high - 1}
              width={w}
              height={high}
              fill={`url(#use-${u.id})`}
              opacity={on ? 1 : 0.82}
            />
          )
        })}
        {area !== null && area > 0.005 && high > 7 && (
          <text
            x={x + 5}
            y={marked ? -5 : -high / 2 + 3}
            fontSize={on ? 12 : 11}
            fontWeight={on ? 700 : 450}
            fill={on ? 'var(--cuttext)' : 'var(--ink2)'}
            data-area={id}
          >
            {showNumber(area, 'area', shownAs, 0)}
          </text>
        )}
      </g>
    )
  },
  (now, before) => PROPS.every((key) => now[key] === before[key]) && shallowEqual(now.by, before.by),
)

interface LineProps {
  id: string
  kind: Level['kind']
  on: boolean
  hand: SpineHand
}

/** The line of a level, by which it is taken hold of. */
export const LevelLine = memo(function LevelLine({ id, kind, on, hand }: LineProps) {
  return (
    <g className="cursor-ns-resize" onPointerDown={(e) => hand.down(id, e)}>
      {kind === 'mark' ? (
        <line x1={14} x2={WIDTH - 14} stroke="var(--ink3)" strokeDasharray="2 3" />
      ) : (
        <line x1={14} x2={on ? WIDTH : AXIS} stroke={on ? 'var(--cut)' : 'var(--line)'} strokeWidth={on ? 1.6 : 1} />
      )}
      {on && <path d={`M${WIDTH} 0l-9 -5.5v11z`} fill="var(--cut)" />}
      <rect x={0} y={-3.5} width={WIDTH} height={7} fill="transparent" />
    </g>
  )
})

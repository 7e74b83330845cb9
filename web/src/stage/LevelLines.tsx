import { useState, type PointerEvent as PE } from 'react'
import { levelHeights } from '@geotome/core/levels'
import { showNumber, tidy } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { useProject, useProjectNow } from '../app/hooks'
import { useAppDispatch, useAppSelector } from '../app/store'
import { levelShown, picked } from '../app/view-slice'
import { AddLevels } from '../spine/AddLevels'
import { spreadLabels } from '../spine/layout'
import { worldNow } from '../tools/at-work'
import { levelGrip } from '../tools/handles/level'
import { useHold } from '../tools/hold'
import { toPane, type View } from './camera'

/** px from the pane's right edge that the labels take */
const LABEL = 132

/**
 * Levels as lines in a pane in which heights are true: labels aligned at the right, moved apart where they would overprint each other, of
 * one size at every zoom. A line is dragged up and down; a double click beside the lines adds a level at that height.
 */
export function LevelLines({ view, size }: { view: View; size: Vec2 }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProjectNow()
  const shown = useAppSelector((s) => s.view.level)
  const which = useAppSelector((s) => s.view.shows.levels)
  const [adding, setAdding] = useState<number | null>(null)
  const { held, hold, moves } = useHold<string>()
  if (which === 'none') return null
  const levels = levelHeights(project, scheme)
  const yOf = (z: number) => toPane(view, size, [view.target[0], view.target[1], z])[1]
  const inSight = levels.map((l) => ({ ...l, y: yOf(l.height) })).filter((l) => l.y > 34 && l.y < size[1] - 8)
  const labels = spreadLabels(
    [...inSight].reverse().map((l) => ({ id: l.id, y: l.y })),
    15,
    46,
    size[1] - (size[1] < 420 ? 34 : 92),
    new Set(shown ? [shown] : []),
  )
  const showing = (id: string) => [() => dispatch(levelShown(id)), () => dispatch(picked({ kind: 'level', ids: [id] }))]
  const show = (id: string) => showing(id).forEach((step) => step())
  const down = (id: string) => (e: PE) => {
    const world = worldNow()
    if (e.button !== 0 || !world) return
    e.stopPropagation()
    const then = { click: () => show(id), done: showing(id) }
    hold(e, id, levelGrip(id, [e.clientX, e.clientY], 1 / view.scale, world, then))
  }
  return (
    <>
      <svg
        className="absolute inset-0 h-full w-full"
        aria-label="Levels"
        style={{ pointerEvents: 'none' }}
        onDoubleClick={(e) => {
          const box = e.currentTarget.getBoundingClientRect()
          setAdding(
            tidy(
              Math.round(
                (view.target[2] + (size[1] / 2 - (e.clientY - box.top)) / view.scale) / project.stride.length,
              ) * project.stride.length,
            ),
          )
        }}
      >
        <rect
          x={size[0] - LABEL - 34}
          y={0}
          width={LABEL + 34}
          height={size[1]}
          fill="transparent"
          style={{ pointerEvents: 'auto' }}
          onPointerDown={(e) => e.stopPropagation()}
        />
        {inSight.map((l) => {
          const label = labels.get(l.id)
          const on = l.id === shown
          const mark = l.kind === 'mark'
          const colour = on ? 'var(--cut)' : mark ? 'var(--ink3)' : 'var(--ghost)'
          return (
            <g
              key={l.id}
              data-level-line={l.name}
              className="cursor-ns-resize"
              style={{ pointerEvents: 'auto' }}
              onPointerDown={down(l.id)}
              {...moves}
            >
              <line
                x1={0}
                x2={size[0] - LABEL - 14}
                y1={l.y}
                y2={l.y}
                stroke={colour}
                strokeWidth={on ? 1.4 : 0.9}
                strokeDasharray={mark ? '2 4' : '14 4 2 4'}
              />
              <line x1={0} x2={size[0] - LABEL} y1={l.y} y2={l.y} stroke="transparent" strokeWidth={9} />
              {label !== undefined && (
                <>
                  <path
                    d={`M${size[0] - LABEL - 14} ${l.y}L${size[0] - LABEL} ${label}H${size[0] - 10}`}
                    fill="none"
                    stroke={colour}
                    strokeWidth={0.9}
                  />
                  <rect x={size[0] - LABEL} y={label - 14} width={LABEL - 10} height={14} fill="transparent" />
                  <text
                    data-level-label={l.name}
                    x={size[0] - LABEL + 3}
                    y={label - 3}
                    fontSize={11}
                    fontStyle={mark ? 'italic' : undefined}
                    fontWeight={on ? 650 : 450}
                    fill={on ? 'var(--cuttext)' : 'var(--ink)'}
                    style={{ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 3 }}
                  >
                    {short(l.name)}
                  </text>
                  <text
                    x={size[0] - 12}
                    y={label - 3}
                    fontSize={11}
                    textAnchor="end"
                    fill="var(--ink2)"
                    style={{ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 3 }}
                  >
                    {l.height > 0 ? '+' : ''}
                    {showNumber(l.height, 'length', project)}
                  </text>
                </>
              )}
              {held?.key === l.id && (
                <text
                  x={16}
                  y={l.y - 6}
                  fontSize={12}
                  fontWeight={700}
                  fill="var(--ink)"
                  style={{ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 4 }}
                >
                  {held.say.filter(Boolean).slice(0, 2).join('  ')}
                </text>
              )}
            </g>
          )
        })}
      </svg>
      {adding !== null && <AddLevels how="one" above={null} height={adding} onClose={() => setAdding(null)} />}
    </>
  )
}

const short = (name: string) => (name.length > 12 ? `${name.slice(0, 11)}…` : name)

/** Levels as planes in 3D: a thin dashed outline about all forms at each height, with its name. */
export function LevelPlanes({ view, size, rect }: { view: View; size: Vec2; rect: [Vec2, Vec2] | null }) {
  const { project, scheme } = useProject()
  const which = useAppSelector((s) => s.view.shows.levels)
  if (which === 'none' || !rect) return null
  const [[x0, y0], [x1, y1]] = rect
  const levels = levelHeights(project, scheme).filter((l) => which === 'all' || l.kind === 'mark')
  const corners: Vec2[] = [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ]
  const planes = levels.map((l) => ({ ...l, points: corners.map((p) => toPane(view, size, [...p, l.height])) }))
  // The rightmost corner has the label, where nothing of the form lies; the leftmost one where the pane ends there.
  const onRight = Math.max(...planes.flatMap((l) => l.points.map((p) => p[0])), 0) + 118 < size[0]
  const cornerOf = (points: Vec2[]) => points.reduce((a, b) => ((onRight ? b[0] > a[0] : b[0] < a[0]) ? b : a))
  const labels = spreadLabels(
    planes
      .map((l) => {
        return { id: l.id, y: cornerOf(l.points)[1] }
      })
      .reverse(),
    14,
    60,
    size[1] - 110,
    new Set(),
  )
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden>
      {planes.map((l) => {
        const right = cornerOf(l.points)
        const y = labels.get(l.id)
        return (
          <g key={l.id} data-level-plane={l.name}>
            <polygon
              points={l.points.map((p) => p.join()).join(' ')}
              fill="none"
              stroke="var(--ink3)"
              strokeWidth={l.kind === 'mark' ? 0.8 : 0.6}
              strokeDasharray={l.kind === 'mark' ? '2 4' : '8 4'}
              opacity={0.75}
            />
            {y !== undefined && (
              <>
                <path
                  d={`M${right[0]} ${right[1]}L${right[0] + (onRight ? 10 : -10)} ${y}`}
                  stroke="var(--ink3)"
                  strokeWidth={0.7}
                  fill="none"
                />
                <text
                  x={onRight ? right[0] + 13 : Math.max(112, right[0] - 13)}
                  textAnchor={onRight ? 'start' : 'end'}
                  y={y + 3.5}
                  fontSize={11}
                  fontStyle={l.kind === 'mark' ? 'italic' : undefined}
                  fill="var(--ink2)"
                  style={{ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 3 }}
                >
                  {l.name} {l.height > 0 ? '+' : ''}
                  {showNumber(l.height, 'length', project)}
                </text>
              </>
            )}
          </g>
        )
      })}
    </svg>
  )
}

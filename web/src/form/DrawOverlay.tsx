import { useEffect, useRef } from 'react'
import { showQuantity } from '@geotome/core/project'
import { arcBetween, arcPoints, type Vec2 } from '@geotome/core/solid'
import { useProject } from '../app/hooks'
import { toPane, type View } from '../stage/camera'
import { type Drawing } from './use-draw'
import { SIDE_KINDS } from './draw-state'

interface Props {
  drawing: Drawing
  view: View
  size: Vec2
  z: number
  origin: Vec2
  /** whether the pointer was in this pane last: the live fields stand there */ live: boolean
  pointer: Vec2
}

/** What is drawn so far, the caught point with its word, and the live fields beside the pointer. */
export function DrawOverlay({ drawing, view, size, z, origin, live, pointer }: Props) {
  const { state, next, bulge } = drawing
  const px = (p: Vec2) => toPane(view, size, [p[0] - origin[0], p[1] - origin[1], z])
  const ring = ringOf(state, state.stage === 'outline' ? next : null, bulge)
  const closed = state.stage === 'height' || state.kind !== 'polygon'
  const path =
    ring
      .map(px)
      .map(([x, y], i) => `${i ? 'L' : 'M'}${x} ${y}`)
      .join('') + (ring.length > 2 && closed ? 'Z' : '')
  const caught = state.stage === 'outline' ? state.cursor : null
  const at = caught ? px(caught.point) : null
  return (
    <>
      <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden>
        <path
          d={path}
          fill="var(--cutsoft)"
          fillOpacity={0.35}
          stroke="var(--cut)"
          strokeWidth={1.8}
          strokeLinejoin="round"
        />
        {caught?.along && (
          <line
            x1={px(caught.along[0])[0]}
            y1={px(caught.along[0])[1]}
            x2={px(caught.along[1])[0]}
            y2={px(caught.along[1])[1]}
            stroke="var(--ink3)"
            strokeDasharray="2 4"
          />
        )}
        {state.through && (
          <circle cx={px(state.through)[0]} cy={px(state.through)[1]} r={3} fill="none" stroke="var(--ink)" />
        )}
        {state.points.map((p, i) => (
          <circle key={i} cx={px(p)[0]} cy={px(p)[1]} r={3} fill="var(--ink)" />
        ))}
        {at && (
          <>
            <circle cx={at[0]} cy={at[1]} r={4.5} fill="none" stroke="var(--ink)" strokeWidth={1.4} />
            {caught?.word && (
              <text
                x={at[0] + 9}
                y={at[1] - 9}
                fontSize={11.5}
                fill="var(--ink)"
                style={{ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 4 }}
              >
                {caught.word}
              </text>
            )}
          </>
        )}
      </svg>
      {live && (
        <LiveFields
          drawing={drawing}
          at={[Math.min(pointer[0] + 18, size[0] - 150), Math.min(pointer[1] + 18, size[1] - 150)]}
        />
      )}
    </>
  )
}

/** Typed digits go straight in here; Tab moves between the fields. */
function LiveFields({ drawing, at }: { drawing: Drawing; at: Vec2 }) {
  const { project } = useProject()
  const { state, next, bulge } = drawing
  const first = useRef<HTMLInputElement>(null)
  const last = state.points.at(-1)
  useEffect(() => {
    first.current?.focus({ preventScroll: true })
  }, [state.stage, state.points.length])
  const show = (v: number, quantity: 'length' | 'angle' = 'length') => showQuantity(v, quantity, project)
  const fields: { label: string; live: string }[] =
    state.stage === 'height'
      ? [{ label: 'height', live: state.upTo ? `to ${state.upTo.name}` : show(state.height) }]
      : !last
        ? [
            { label: 'east', live: state.cursor ? show(state.cursor.point[0]) : '' },
            { label: 'north', live: state.cursor ? show(state.cursor.point[1]) : '' },
          ]
        : state.kind === 'circle'
          ? [{ label: 'radius', live: next ? show(Math.hypot(next[0] - last[0], next[1] - last[1])) : '' }]
          : state.kind === 'rectangle'
            ? [
                { label: 'width', live: next ? show(Math.abs(next[0] - last[0])) : '' },
                { label: 'depth', live: next ? show(Math.abs(next[1] - last[1])) : '' },
              ]
            : [
                { label: 'length', live: next ? show(Math.hypot(next[0] - last[0], next[1] - last[1])) : '' },
                {
                  label: 'direction',
                  live: next ? show((Math.atan2(next[1] - last[1], next[0] - last[0]) * 180) / Math.PI, 'angle') : '',
                },
                ...(state.side === 'straight'
                  ? []
                  : [
                      {
                        label: 'rise',
                        live: next ? show((bulge * Math.hypot(next[0] - last[0], next[1] - last[1])) / 2) : '',
                      },
                    ]),
              ]
  const arcs = state.kind === 'polygon' && state.stage === 'outline' && last
  return (
    <div
      data-live
      className="absolute z-20 w-36 rounded-md border border-ink3 bg-panel p-1 shadow-sm"
      style={{ left: at[0], top: at[1] }}
      onPointerDown={(e) => e.stopPropagation()}
    >
      {arcs && (
        <div className="flex justify-between px-1 pb-0.5" role="group" aria-label="The next side">
          {SIDE_KINDS.map((k) => (
            <button
              key={k}
              type="button"
              tabIndex={-1}
              aria-pressed={state.side === k}
              className={`cursor-pointer rounded px-1 text-[11px] ${state.side === k ? 'bg-ink text-paper' : 'text-ink2'}`}
              onClick={() => {
                drawing.sideKind(k)
                first.current?.focus()
              }}
            >
              {k}
            </button>
          ))}
        </div>
      )}
      {fields.map((f, i) => (
        <label key={f.label} className="flex items-center justify-between gap-2 px-1.5 py-0.5">
          <span className="text-[11px] text-ink2">{f.label}</span>
          <input
            ref={i === 0 ? first : undefined}
            aria-label={f.label}
            autoComplete="off"
            className="w-20 bg-transparent text-right font-semibold outline-none placeholder:text-ink placeholder:opacity-100"
            placeholder={f.live}
            value={state.typed[i] ?? ''}
            onChange={(e) => drawing.type(i as 0 | 1 | 2, e.target.value)}
            onKeyDown={(e) => {
              if (e.key === 'Enter') {
                e.preventDefault()
                e.stopPropagation()
                drawing.accept(true)
              }
              if (arcs && e.key.toLowerCase() === 'a' && !e.ctrlKey && !e.currentTarget.value) {
                e.preventDefault()
                drawing.nextSideKind()
              }
              if (e.key === 'Escape') {
                e.preventDefault()
                e.stopPropagation()
                drawing.back()
              }
            }}
          />
        </label>
      ))}
    </div>
  )
}

/** What is drawn so far as points to be joined, arcs in their facets; the side under way leads to `next`. */
function ringOf(state: Drawing['state'], next: Vec2 | null, bulge: number): Vec2[] {
  const [a, b] = [state.points[0], next ?? state.points[1]]
  if (state.kind === 'rectangle') return a && b ? [a, [b[0], a[1]], b, [a[0], b[1]]] : state.points
  if (state.kind === 'circle')
    return a && b
      ? arcPoints({ x: a[0], y: a[1], r: Math.hypot(b[0] - a[0], b[1] - a[1]), from: 0, sweep: 2 * Math.PI, n: 72 })
      : []
  const points = next ? [...state.points, next] : state.points
  const bulges = next ? [...state.bulges.slice(0, state.points.length - 1), bulge] : state.bulges
  return points.flatMap((p, i): Vec2[] => {
    const q = points[i + 1] ?? (next ? undefined : points[0])
    const arc = q && arcBetween(p, q, bulges[i] ?? 0)
    return arc ? arcPoints(arc).slice(0, -1) : [p]
  })
}

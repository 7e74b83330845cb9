import { useEffect, useRef } from 'react'
import { showQuantity } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { useUnit } from '../app/hooks'
import { toPane, type View } from '../stage/camera'
import type { Drawing } from './use-draw'

interface Props { drawing: Drawing; view: View; size: Vec2; z: number; origin: Vec2; /** whether the pointer was in this pane last: the live fields stand there */ live: boolean; pointer: Vec2 }

/** What is drawn so far, the caught point with its word, and the live fields beside the pointer. */
export function DrawOverlay({ drawing, view, size, z, origin, live, pointer }: Props) {
  const { state, next } = drawing
  const px = (p: Vec2) => toPane(view, size, [p[0] - origin[0], p[1] - origin[1], z])
  const [a, b] = [state.points[0], state.stage === 'outline' ? next : null]
  const ring: Vec2[] = state.kind === 'rectangle' && a && (b ?? state.points[1])
    ? rectangle(a, (b ?? state.points[1]) as Vec2)
    : state.kind === 'polygon' && b ? [...state.points, b] : state.points
  const path = ring.map(px).map(([x, y], i) => `${i ? 'L' : 'M'}${x} ${y}`).join('') + (ring.length > 2 && (state.kind === 'rectangle' || state.stage === 'height') ? 'Z' : '')
  const caught = state.stage === 'outline' ? state.cursor : null
  const at = caught ? px(caught.point) : null
  return (
    <>
      <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden>
        <path d={path} fill="var(--cutsoft)" fillOpacity={0.35} stroke="var(--cut)" strokeWidth={1.8} strokeLinejoin="round" />
        {caught?.along && <line x1={px(caught.along[0])[0]} y1={px(caught.along[0])[1]} x2={px(caught.along[1])[0]} y2={px(caught.along[1])[1]} stroke="var(--ink3)" strokeDasharray="2 4" />}
        {state.points.map((p, i) => <circle key={i} cx={px(p)[0]} cy={px(p)[1]} r={3} fill="var(--ink)" />)}
        {at && <><circle cx={at[0]} cy={at[1]} r={4.5} fill="none" stroke="var(--ink)" strokeWidth={1.4} />
          {caught?.word && <text x={at[0] + 9} y={at[1] - 9} fontSize={11.5} fill="var(--ink)" style={{ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 4 }}>{caught.word}</text>}</>}
      </svg>
      {live && <LiveFields drawing={drawing} at={[Math.min(pointer[0] + 18, size[0] - 150), Math.min(pointer[1] + 18, size[1] - 150)]} />}
    </>
  )
}

/** Typed digits go straight in here; Tab moves between the fields. */
function LiveFields({ drawing, at }: { drawing: Drawing; at: Vec2 }) {
  const unit = useUnit()
  const { state, next } = drawing
  const first = useRef<HTMLInputElement>(null)
  const last = state.points.at(-1)
  useEffect(() => { first.current?.focus({ preventScroll: true }) }, [state.stage, state.points.length])
  const show = (v: number, quantity: 'length' | 'angle' = 'length') => showQuantity(v, quantity, unit)
  const fields: { label: string; live: string }[] = state.stage === 'height'
    ? [{ label: 'height', live: show(state.height) }]
    : !last ? [{ label: 'east', live: state.cursor ? show(state.cursor.point[0]) : '' }, { label: 'north', live: state.cursor ? show(state.cursor.point[1]) : '' }]
      : state.kind === 'rectangle'
        ? [{ label: 'width', live: next ? show(Math.abs(next[0] - last[0])) : '' }, { label: 'depth', live: next ? show(Math.abs(next[1] - last[1])) : '' }]
        : [{ label: 'length', live: next ? show(Math.hypot(next[0] - last[0], next[1] - last[1])) : '' }, { label: 'direction', live: next ? show((Math.atan2(next[1] - last[1], next[0] - last[0]) * 180) / Math.PI, 'angle') : '' }]
  return (
    <div className="absolute z-20 w-36 rounded-md border border-ink3 bg-panel p-1 shadow-sm" style={{ left: at[0], top: at[1] }} onPointerDown={(e) => e.stopPropagation()}>
      {fields.map((f, i) => (
        <label key={f.label} className="flex items-center justify-between gap-2 px-1.5 py-0.5">
          <span className="text-[11px] text-ink2">{f.label}</span>
          <input ref={i === 0 ? first : undefined} aria-label={f.label} autoComplete="off" className="w-20 bg-transparent text-right font-semibold outline-none placeholder:text-ink placeholder:opacity-100"
            placeholder={f.live} value={state.typed[i] ?? ''} onChange={(e) => drawing.type(i as 0 | 1, e.target.value)}
            onKeyDown={(e) => {
              if (e.key === 'Enter') { e.preventDefault(); e.stopPropagation(); drawing.accept(true) }
              if (e.key === 'Escape') { e.preventDefault(); e.stopPropagation(); drawing.back() }
            }} />
        </label>
      ))}
    </div>
  )
}

const rectangle = (a: Vec2, b: Vec2): Vec2[] => [a, [b[0], a[1]], b, [a[0], b[1]]]

import { useEffect, useRef } from 'react'
import type { Vec2, Vec3 } from '@geotome/core/solid'
import { sees, toPane, type View } from '../stage/camera'
import { runner, useRunning } from './at-work'
import type { Mark } from './kind'

interface Props {
  view: View
  size: Vec2
  origin: Vec2
  /** where the pointer was last, in px of this pane; null where it was in another one */
  pointer: Vec2 | null
}

/** What the tool at work draws over a pane, and its live fields beside the pointer. */
export function ToolOverlay({ view, size, origin, pointer }: Props) {
  const running = useRunning((r) => r)
  if (!running || (running.tool.aims === 'plane' && !sees(view, running.plane))) return null
  const px = (p: Vec3) => toPane(view, size, [p[0] - origin[0], p[1] - origin[1], p[2]])
  return (
    <>
      <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden>
        {running.marks.map((m, i) => (
          <Drawn key={i} mark={m} px={px} />
        ))}
      </svg>
      {pointer && (running.fields.length > 0 || running.choices?.where === 'pointer') && (
        <LiveFields at={[beside(pointer[0], FIELDS[0], size[0]), beside(pointer[1], FIELDS[1], size[1])]} />
      )}
    </>
  )
}

/** px that the live fields take at most */
const FIELDS: Vec2 = [190, 130]
/** Behind the pointer, or before it where there is no room behind: never under it, where a press would be the fields'. */
const beside = (at: number, long: number, room: number) =>
  at + 18 + long <= room ? at + 18 : Math.max(0, at - 18 - long)

const halo = (width: number) => ({ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: width }) as const

function Drawn({ mark, px }: { mark: Mark; px: (p: Vec3) => Vec2 }) {
  switch (mark.kind) {
    case 'path':
      return (
        <path
          d={
            mark.points
              .map(px)
              .map(([x, y], i) => `${i ? 'L' : 'M'}${x} ${y}`)
              .join('') + (mark.closed ? 'Z' : '')
          }
          fill={mark.filled ? 'var(--cutsoft)' : 'none'}
          fillOpacity={0.35}
          stroke="var(--cut)"
          strokeWidth={mark.filled ? 1.8 : 1.2}
          strokeLinejoin="round"
        />
      )
    case 'guide': {
      const [a, b] = [px(mark.from), px(mark.to)]
      return <line x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} stroke="var(--ink3)" strokeDasharray="2 4" />
    }
    case 'dot': {
      const [x, y] = px(mark.at)
      return <circle cx={x} cy={y} r={3} fill="var(--ink)" />
    }
    case 'ring': {
      const [x, y] = px(mark.at)
      return (
        <>
          <circle cx={x} cy={y} r={4.5} fill="none" stroke="var(--ink)" strokeWidth={1.4} />
          {mark.word && (
            <text x={x + 9} y={y - 9} fontSize={11.5} fill="var(--ink)" style={halo(4)}>
              {mark.word}
            </text>
          )}
        </>
      )
    }
    case 'figure': {
      const [x, y] = px(mark.at)
      return (
        <text
          x={x}
          y={y - 5}
          textAnchor="middle"
          fontSize={11.5}
          fontWeight={600}
          fill="var(--cuttext)"
          style={halo(4)}
        >
          {mark.text}
        </text>
      )
    }
  }
}

/** Typed digits go straight in here; Tab moves between the fields. */
function LiveFields({ at }: { at: Vec2 }) {
  const running = useRunning((r) => r)
  const first = useRef<HTMLInputElement>(null)
  const step = running && `${running.tool.name} ${running.step}`
  useEffect(() => {
    first.current?.focus({ preventScroll: true })
  }, [step])
  if (!running) return null
  const choices = running.choices?.where === 'pointer' ? running.choices : null
  return (
    <div
      data-live
      className={`absolute z-20 ${choices ? 'w-[188px]' : 'w-36'} rounded-md border border-ink3 bg-panel p-1 shadow-sm`}
      style={{ left: at[0], top: at[1] }}
      onPointerDown={(e) => e.stopPropagation()}
    >
      {choices && (
        <div className="flex justify-between px-1 pb-0.5" role="group" aria-label={choices.label}>
          {choices.options.map((k) => (
            <button
              key={k}
              type="button"
              tabIndex={-1}
              aria-pressed={choices.chosen === k}
              className={`cursor-pointer rounded px-1 text-[11px] ${choices.chosen === k ? 'bg-ink text-paper' : 'text-ink2'}`}
              onClick={() => {
                runner.answer({ kind: 'choose', choice: k })
                first.current?.focus()
              }}
            >
              {k}
            </button>
          ))}
        </div>
      )}
      {running.fields.map((f, i) => (
        <label key={f.label} className="flex items-center justify-between gap-2 px-1.5 py-0.5">
          <span className="text-[11px] text-ink2">{f.label}</span>
          <input
            ref={i === 0 ? first : undefined}
            aria-label={f.label}
            autoComplete="off"
            className="w-20 min-w-0 bg-transparent text-right font-semibold outline-none placeholder:text-ink placeholder:opacity-100"
            placeholder={f.live}
            value={f.typed}
            onChange={(e) => runner.answer({ kind: 'type', field: i, text: e.target.value })}
          />
        </label>
      ))}
    </div>
  )
}

/** Choices of the tool at work that stand over the bar of verbs. */
export function ToolChoices() {
  const choices = useRunning((r) => r?.choices ?? null)
  if (choices?.where !== 'bar') return null
  return (
    <div
      className="absolute inset-x-0 bottom-[92px] z-10 flex justify-center gap-1"
      role="group"
      aria-label={choices.label}
    >
      {choices.options.map((k) => (
        <button
          key={k}
          className="btn btn-xs rounded-full font-normal"
          aria-pressed={k === choices.chosen}
          onClick={() => {
            runner.answer({ kind: 'choose', choice: k })
            document.querySelector<HTMLElement>('[data-live] input')?.focus({ preventScroll: true })
          }}
        >
          {k}
        </button>
      ))}
    </div>
  )
}

import { X } from 'lucide-react'
import { useCallback, useEffect, useRef, useState, type PointerEvent as PE } from 'react'
import type { Picture } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { useOf, useProject } from '../app/hooks'
import { useAppDispatch } from '../app/store'
import { benchOpened, type BenchTask } from '../app/view-slice'
import { useKeys } from '../common/keys'
import { useHold } from '../tools/hold'
import { Loupe } from './Loupe'
import type { BenchLine, BenchWorld } from './tasks/kind'
import { TASKS } from './tasks/list'
import { useTask } from './use-task'

const STEPS: Record<string, Vec2> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }
const hundredths = (p: Vec2): Vec2 => [Math.round(p[0] * 100) / 100, Math.round(p[1] * 100) / 100]

/** One picture, as large as there is room: points are picked on it with a loupe, by mouse or keyboard. */
export function Bench({ picture: id, task }: { picture: string; task: BenchTask }) {
  const picture = useOf(({ project }) => project.pictures[id])
  const entry = TASKS.find((t) => t.task.name === task)
  return picture && entry ? <AtBench picture={picture} entry={entry} /> : null
}

function AtBench({ picture, entry }: { picture: Picture; entry: (typeof TASKS)[number] }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const { state, send, points: pointsNow } = useTask(entry.task, picture)
  const { points } = state
  const world: BenchWorld = { project, scheme, picture, mint: () => '' }
  const box = useRef<HTMLDivElement>(null)
  const [look, setLook] = useState<{ k: number; x: number; y: number } | null>(null)
  const [at, setAt] = useState<Vec2 | null>(null)
  const { hold, moves } = useHold<'picture'>()

  useEffect(() => {
    const element = box.current
    if (!element) return
    const fit = () => {
      const k = Math.min((element.clientWidth - 40) / picture.width, (element.clientHeight - 100) / picture.height)
      setLook({
        k,
        x: (element.clientWidth - picture.width * k) / 2,
        y: 30 + (element.clientHeight - 90 - picture.height * k) / 2,
      })
    }
    fit()
    const wheel = (e: WheelEvent) => {
      e.preventDefault()
      const r = element.getBoundingClientRect()
      setLook((v) => {
        if (!v) return v
        const k = Math.min(40, Math.max(0.02, v.k * Math.exp(-e.deltaY * 0.0016)))
        const [mx, my] = [e.clientX - r.left, e.clientY - r.top]
        return { k, x: mx - ((mx - v.x) * k) / v.k, y: my - ((my - v.y) * k) / v.k }
      })
    }
    element.addEventListener('wheel', wheel, { passive: false })
    return () => element.removeEventListener('wheel', wheel)
  }, [picture.width, picture.height])

  const pixel = useCallback(
    (e: PE): Vec2 => {
      const r = box.current?.getBoundingClientRect()
      return look
        ? [(e.clientX - (r?.left ?? 0) - look.x) / look.k, (e.clientY - (r?.top ?? 0) - look.y) / look.k]
        : [0, 0]
    },
    [look],
  )
  const add = useCallback((p: Vec2) => send({ kind: 'pick', at: hundredths(p) }), [send])
  useKeys(
    useCallback(
      (e, typing) => {
        if (typing || document.querySelector('dialog[open]')) return false
        const step = STEPS[e.key]
        const picked = pointsNow()
        const last = picked.at(-1)
        if (step && last) {
          const by = e.shiftKey ? 0.1 : 1
          const next = hundredths([last[0] + step[0] * by, last[1] + step[1] * by])
          send({ kind: 'change', set: { points: [...picked.slice(0, -1), next] } })
          setAt(next)
          return true
        }
        // In a question Enter presses the answer that has the focus.
        if (e.key === 'Enter')
          return !(e.target instanceof Element && e.target.closest('[data-question]')) && send({ kind: 'accept' })
        if (e.key === 'Escape') {
          if (picked.length) send({ kind: 'change', set: { points: picked.slice(0, -1) } })
          else dispatch(benchOpened(null))
          return true
        }
        return !e.ctrlKey && !e.metaKey && send({ kind: 'key', key: e.key })
      },
      [dispatch, send, pointsNow],
    ),
  )
  const px = (p: Vec2): Vec2 => (look ? [p[0] * look.k + look.x, p[1] * look.k + look.y] : [0, 0])
  const all: BenchLine[] = [
    ...entry.task.lines(state, world),
    ...(points.length ? [{ points, closed: false, tone: 'live' as const }] : []),
  ]
  const colour = { live: 'var(--cut)', kept: 'var(--ink)', faint: 'var(--ink3)' }
  return (
    <div className="absolute inset-0 z-20 flex bg-paper" aria-label={`${picture.name}, on the bench`} role="region">
      <div
        ref={box}
        data-bench={JSON.stringify(look)}
        className="relative min-w-0 flex-1 touch-none overflow-hidden cursor-crosshair"
        role="application"
        tabIndex={0}
        aria-label="Picture: click to pick a point; arrow keys move the last one by a pixel, with Shift by a tenth"
        onPointerDown={(e) => {
          if (!look) return
          const [from, spot, isPick] = [look, pixel(e), e.button === 0]
          hold(e, 'picture', {
            label: 'look',
            slack: 4,
            answer: ({ at: [x, y] }) => ({
              say: [],
              look: () => setLook({ ...from, x: from.x + x - e.clientX, y: from.y + y - e.clientY }),
            }),
            ...(isPick ? { click: () => add(spot) } : {}),
          })
        }}
        onPointerMove={(e) => {
          setAt(pixel(e))
          moves.onPointerMove(e)
        }}
        onPointerUp={moves.onPointerUp}
        onPointerCancel={moves.onPointerCancel}
        onPointerLeave={() => setAt(null)}
        onContextMenu={(e) => e.preventDefault()}
      >
        {look && (
          <img
            src={`/api/assets/${picture.asset}`}
            alt={picture.name}
            draggable={false}
            className="pointer-events-none absolute top-0 left-0 max-w-none origin-top-left"
            style={{
              width: picture.width,
              height: picture.height,
              transform: `translate(${look.x}px, ${look.y}px) scale(${look.k})`,
              imageRendering: look.k > 3 ? 'pixelated' : 'auto',
            }}
          />
        )}
        <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden>
          {all.map((l, i) => {
            const on = l.points.map(px)
            return (
              <g key={i}>
                <path
                  d={on.map(([x, y], k) => `${k ? 'L' : 'M'}${x} ${y}`).join('') + (l.closed ? 'Z' : '')}
                  fill={l.closed && l.tone === 'live' ? 'var(--cutsoft)' : 'none'}
                  fillOpacity={0.45}
                  stroke={colour[l.tone]}
                  strokeWidth={l.tone === 'faint' ? 1 : 1.6}
                />
                {on.map(([x, y], k) => (
                  <g key={k}>
                    <circle cx={x} cy={y} r={5} fill="none" stroke={colour[l.tone]} strokeWidth={1.3} />
                    <path
                      d={`M${x - 9} ${y}H${x - 3}M${x + 3} ${y}H${x + 9}M${x} ${y - 9}V${y - 3}M${x} ${y + 3}V${y + 9}`}
                      stroke={colour[l.tone]}
                      strokeWidth={1}
                    />
                  </g>
                ))}
                {l.label && on[0] && (
                  <text
                    x={on[0][0] + 10}
                    y={on[0][1] - 8}
                    fontSize={12}
                    fontWeight={650}
                    fill={colour[l.tone]}
                    style={{ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 4 }}
                  >
                    {l.label}
                  </text>
                )}
              </g>
            )
          })}
        </svg>
        {at && <Loupe picture={picture} at={at} right={(px(at)[0] ?? 0) < (box.current?.clientWidth ?? 0) / 2} />}
        <div
          className="absolute top-3 left-3 flex gap-1.5"
          role="group"
          aria-label="Task"
          onPointerDown={(e) => e.stopPropagation()}
          onPointerUp={(e) => e.stopPropagation()}
        >
          {TASKS.map(({ task: t }) => (
            <button
              key={t.name}
              className="btn btn-xs rounded-full font-normal"
              aria-pressed={t.name === entry.task.name}
              onClick={() => dispatch(benchOpened({ picture: picture.id, task: t.name }))}
            >
              {t.label}
            </button>
          ))}
        </div>
        {at && (
          <p className="absolute right-3 bottom-2 rounded bg-paper/85 px-1.5 text-[11px] text-ink2">
            pixel {at[0].toFixed(1)}, {at[1].toFixed(1)}
          </p>
        )}
      </div>
      <aside
        className="w-[264px] shrink-0 overflow-y-auto border-l border-line bg-panel px-4 py-3.5"
        aria-label="Details"
      >
        <div className="mb-2 flex items-center justify-between">
          <p className="eyebrow truncate">{picture.name}</p>
          <button
            className="cursor-pointer p-0.5"
            aria-label="Close the bench"
            title="Back to the stage (Escape)"
            onClick={() => dispatch(benchOpened(null))}
          >
            <X size={15} />
          </button>
        </div>
        <entry.Panel picture={picture} state={state} hint={entry.task.hint(state, world)} send={send} />
      </aside>
    </div>
  )
}

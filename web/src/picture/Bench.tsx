import { X } from 'lucide-react'
import { useCallback, useEffect, useRef, useState, type ComponentType, type PointerEvent as PE } from 'react'
import type { Picture } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { useProject } from '../app/hooks'
import { useAppDispatch } from '../app/store'
import { benchOpened, type BenchTask } from '../app/view-slice'
import { useKeys } from '../common/keys'
import { useHold } from '../tools/hold'
import { CalibratePanel } from './CalibratePanel'
import { CropPanel } from './CropPanel'
import { LevelsPanel } from './LevelsPanel'
import { Loupe } from './Loupe'
import { MeasurePanel } from './MeasurePanel'
import { TracePanel } from './TracePanel'
import type { BenchLine, BenchWork } from './bench-work'

/** What is done on the bench. A new task is a panel, and a line here. */
const TASKS: { id: BenchTask; label: string; Panel: ComponentType<{ picture: Picture; work: BenchWork }> }[] = [
  { id: 'calibrate', label: 'Calibrate', Panel: CalibratePanel },
  { id: 'measure', label: 'Measure', Panel: MeasurePanel },
  { id: 'trace', label: 'Trace', Panel: TracePanel },
  { id: 'levels', label: 'Read levels', Panel: LevelsPanel },
  { id: 'crop', label: 'Crop', Panel: CropPanel },
]

const STEPS: Record<string, Vec2> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }
const hundredths = (p: Vec2): Vec2 => [Math.round(p[0] * 100) / 100, Math.round(p[1] * 100) / 100]

/** One picture, as large as there is room: points are picked on it with a loupe, by mouse or keyboard. */
export function Bench({ picture: id, task }: { picture: string; task: BenchTask }) {
  const dispatch = useAppDispatch()
  const { project } = useProject()
  const picture = project.pictures[id]
  const box = useRef<HTMLDivElement>(null)
  const [look, setLook] = useState<{ k: number; x: number; y: number } | null>(null)
  const [points, setPoints] = useState<Vec2[]>([])
  const [lines, setLines] = useState<BenchLine[]>([])
  const [at, setAt] = useState<Vec2 | null>(null)
  const onPick = useRef<((p: Vec2) => Vec2[] | null) | null>(null)
  const onEnter = useRef<(() => void) | null>(null)
  const onKey = useRef<((e: KeyboardEvent) => boolean) | null>(null)
  const { hold, moves } = useHold<'picture'>()
  const latest = useRef(points)
  latest.current = points

  useEffect(() => {
    const element = box.current
    if (!element || !picture) return
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
  }, [picture?.width, picture?.height]) // eslint-disable-line react-hooks/exhaustive-deps

  const pixel = useCallback(
    (e: PE): Vec2 => {
      const r = box.current?.getBoundingClientRect()
      return look
        ? [(e.clientX - (r?.left ?? 0) - look.x) / look.k, (e.clientY - (r?.top ?? 0) - look.y) / look.k]
        : [0, 0]
    },
    [look],
  )
  const add = useCallback((p: Vec2) => {
    const point = hundredths(p)
    setPoints(onPick.current?.(point) ?? [...latest.current, point])
  }, [])
  useKeys(
    useCallback(
      (e, typing) => {
        if (typing || document.querySelector('dialog[open]')) return false
        const step = STEPS[e.key]
        const last = latest.current.at(-1)
        if (step && last) {
          const by = e.shiftKey ? 0.1 : 1
          const next = hundredths([last[0] + step[0] * by, last[1] + step[1] * by])
          setPoints([...latest.current.slice(0, -1), next])
          setAt(next)
          return true
        }
        if (e.key === 'Enter') {
          onEnter.current?.()
          return true
        }
        if (e.key === 'Escape') {
          if (latest.current.length) setPoints(latest.current.slice(0, -1))
          else dispatch(benchOpened(null))
          return true
        }
        return onKey.current?.(e) ?? false
      },
      [dispatch],
    ),
  )
  if (!picture) return null
  const work: BenchWork = { points, setPoints, setLines, onPick, onEnter, onKey }
  const Panel = TASKS.find((t) => t.id === task)?.Panel
  const px = (p: Vec2): Vec2 => (look ? [p[0] * look.k + look.x, p[1] * look.k + look.y] : [0, 0])
  const all: BenchLine[] = [...lines, ...(points.length ? [{ points, closed: false, tone: 'live' as const }] : [])]
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
          {TASKS.map((t) => (
            <button
              key={t.id}
              className="btn btn-xs rounded-full font-normal"
              aria-pressed={t.id === task}
              onClick={() => dispatch(benchOpened({ picture: id, task: t.id }))}
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
        {Panel && <Panel picture={picture} work={work} />}
      </aside>
    </div>
  )
}

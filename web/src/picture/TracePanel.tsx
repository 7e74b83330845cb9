import { proxy } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import { toast } from 'sonner'
import { batch } from '@geotome/core/edits'
import {
  inOrder,
  nextOrder,
  numbersOf,
  Refusal,
  scalingOf,
  showNumber,
  type FoundShape,
  type Picture,
  type Trace,
  numberedName,
  namesOf,
} from '@geotome/core/project'
import { arcBetween, arcPoints, bulgeAlong, type Vec2, gapOf } from '@geotome/core/solid'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { Section } from '../common/fields'
import { studyWorker } from '../worker/client'
import type { BenchWork } from './bench-work'
import type { BenchLine } from './bench-work'

/** Lines traced by hand, straight or as arcs that go on from the last side; or closed shapes found in ink, to be accepted one by one. */
export function TracePanel({ picture: p, work }: { picture: Picture; work: BenchWork }) {
  const { project } = useProject()
  const { points, setPoints, setLines, onPick, onEnter, onKey } = work
  const [arc, setArc] = useState(false)
  const [bulges, setBulges] = useState<number[]>([])
  const [within, setWithin] = useState('5')
  const [busy, setBusy] = useState<{ done: number; what: string } | null>(null)
  const [found, setFound] = useState<(FoundShape & { take: boolean })[] | null>(null)
  const stopped = useRef(false)
  const { scale } = scalingOf(p, numbersOf(project, null))
  const kept = inOrder(project.traces).filter((t) => t.picture === p.id)
  useEffect(() => {
    const lines: BenchLine[] = kept.flatMap((t) =>
      t.loops.map((l) => ({ points: drawn(l.points, l.bulges, t.closed), closed: t.closed, tone: 'faint' as const })),
    )
    found?.forEach((f, i) => {
      for (const loop of [f.outer, ...f.holes])
        lines.push({
          points: loop,
          closed: true,
          tone: f.take ? 'live' : 'faint',
          ...(loop === f.outer ? { label: String(i + 1) } : {}),
        })
    })
    if (points.length > 1) lines.push({ points: drawn(points, bulges, false), closed: false, tone: 'live' })
    setLines(lines)
  }, [project.traces, p.id, found, points, bulges, setLines]) // eslint-disable-line react-hooks/exhaustive-deps
  const add = (traces: Omit<Trace, 'id' | 'order' | 'name' | 'picture'>[]) => {
    const names = namesOf(project.traces)
    return makeEdit(`trace on ${p.name}`.slice(0, 190), () =>
      batch(
        traces.map((t, i) => {
          const name = numberedName('Traced', names)
          names.push(name)
          return {
            edit: 'trace.add' as const,
            thing: { id: crypto.randomUUID(), name, order: nextOrder(project.traces) + i, picture: p.id, ...t },
          }
        }),
      ),
    )
  }
  const finish = (closed: boolean) => {
    if (points.length < (closed ? 3 : 2)) {
      toast.error(closed ? 'A closed outline needs three corners.' : 'A line needs two points.')
      return
    }
    if (add([{ closed, loops: [{ points, bulges: points.map((_, i) => bulges[i] ?? 0) }] }])) {
      setPoints([])
      setBulges([])
    }
  }
  useEffect(() => {
    onPick.current = (point) => {
      const first = points[0]
      if (first && points.length > 2 && gapOf(first, point) < 6) {
        finish(true)
        return []
      }
      const [before, last] = [points.at(-2), points.at(-1)]
      const way = before && last ? endOf(before, last, bulges[points.length - 2] ?? 0) : null
      if (last)
        setBulges([
          ...points.slice(0, -1).map((_, i) => bulges[i] ?? 0),
          arc && way ? Math.round(bulgeAlong(last, way, point) * 1e6) / 1e6 : 0,
        ])
      return [...points, point]
    }
    onEnter.current = () => {
      if (points.length) finish(true)
    }
    return () => {
      onPick.current = null
      onEnter.current = null
    }
  })
  useEffect(() => {
    onKey.current = (e) => {
      if (e.key.toLowerCase() !== 'a' || e.ctrlKey || e.metaKey) return false
      setArc((v) => !v)
      return true
    }
    return () => {
      onKey.current = null
    }
  }, [onKey])
  const find = async () => {
    stopped.current = false
    setBusy({ done: 0, what: 'Reading the picture' })
    try {
      const bitmap = await createImageBitmap(await (await fetch(`/api/assets/${p.asset}`)).blob())
      const [x0, y0, x1, y1] = (p.crop ?? [0, 0, p.width, p.height]).map(Math.round) as [number, number, number, number]
      const canvas = new OffscreenCanvas(x1 - x0, y1 - y0)
      const g = canvas.getContext('2d', { willReadFrequently: true })
      g?.drawImage(bitmap, -x0, -y0)
      const data = g?.getImageData(0, 0, x1 - x0, y1 - y0)
      if (!data) throw new Error('no picture')
      const degrees = Number(within)
      const shapes = await studyWorker.trace(
        { width: data.width, height: data.height, data: data.data },
        { within: Number.isFinite(degrees) ? Math.min(30, Math.max(0, degrees)) : 5, smallest: 400 },
        proxy((done: number, what: string) => {
          if (!stopped.current) setBusy({ done, what })
        }),
      )
      if (stopped.current) return
      const shift = (loop: Vec2[]) =>
        loop.map(([x, y]): Vec2 => [Math.round((x + x0) * 100) / 100, Math.round((y + y0) * 100) / 100])
      setFound(shapes.map((f) => ({ outer: shift(f.outer), holes: f.holes.map(shift), area: f.area, take: true })))
      if (shapes.length === 0)
        toast.error('No closed shape was found. Crop the picture to the sketch, or trace it by hand.')
    } catch (e) {
      if (stopped.current) return
      toast.error(
        e instanceof Refusal ? e.message : 'The picture could not be read. Reload the page, or add it once more.',
      )
    } finally {
      setBusy(null)
    }
  }
  const taken = found?.filter((f) => f.take) ?? []
  return (
    <>
      <Section title="By hand">
        <p className="mb-1.5 text-[12px] text-ink2" role="status" data-hint>
          Click corner after corner; Enter or a click on the first one closes. A changes between straight sides and arcs
          that go on from the last one
        </p>
        <div className="mb-1.5 flex gap-1" role="group" aria-label="The next side">
          {(
            [
              ['straight', false],
              ['tangent arc', true],
            ] as const
          ).map(([label, v]) => (
            <button
              key={label}
              className="btn btn-xs rounded-full font-normal flex-1 px-1"
              aria-pressed={arc === v}
              onClick={() => setArc(v)}
            >
              {label}
            </button>
          ))}
        </div>
        <div className="flex gap-1.5">
          <button
            className="btn btn-sm h-8 flex-1 text-[12px]"
            disabled={points.length < 3}
            onClick={() => finish(true)}
          >
            Close it
          </button>
          <button
            className="btn btn-sm h-8 flex-1 text-[12px]"
            disabled={points.length < 2}
            onClick={() => finish(false)}
          >
            Keep open
          </button>
        </div>
      </Section>
      <Section title="In ink, by itself">
        <label className="mb-1.5 flex items-center justify-between text-ink2">
          right angles true within
          <span>
            <input
              aria-label="right angles within"
              className="input input-sm w-14 text-right font-semibold"
              value={within}
              onChange={(e) => setWithin(e.target.value)}
            />
            °
          </span>
        </label>
        {busy ? (
          <div>
            <p className="text-[12px] text-ink2" role="status">
              {busy.what}
            </p>
            <progress className="progress w-full" value={busy.done} max={1} aria-label="how far it is" />
            <button
              className="btn btn-sm h-7 w-full text-[12px]"
              onClick={() => {
                stopped.current = true
                setBusy(null)
              }}
            >
              Stop
            </button>
          </div>
        ) : (
          <button className="btn btn-sm w-full" onClick={() => void find()}>
            Find closed shapes
          </button>
        )}
        {found && found.length > 0 && (
          <>
            <ul className="mt-2">
              {found.map((f, i) => (
                <li key={i} data-found={i + 1} className="border-b border-line py-1">
                  <label className="flex cursor-pointer items-center justify-between text-[12px]">
                    <span>
                      <b>{i + 1}</b> {f.outer.length} corners
                      {f.holes.length
                        ? `, ${f.holes.length === 1 ? 'a court' : `${f.holes.length} courts`} of ${f.holes.map((h) => h.length).join(' and ')}`
                        : ''}
                    </span>
                    <span className="flex items-center gap-1.5">
                      {p.pairs.length > 0 && (
                        <b data-found-area>{showNumber(f.area * scale * scale, 'area', 'm')} m²</b>
                      )}
                      <input
                        type="checkbox"
                        aria-label={`take shape ${i + 1}`}
                        className="checkbox checkbox-xs"
                        checked={f.take}
                        onChange={(e) =>
                          setFound(found.map((o, k) => (k === i ? { ...o, take: e.target.checked } : o)))
                        }
                      />
                    </span>
                  </label>
                </li>
              ))}
            </ul>
            <div className="mt-2 flex gap-1.5">
              <button
                className="btn btn-sm btn-primary flex-1"
                disabled={taken.length === 0}
                onClick={() => {
                  if (
                    add(
                      taken.map((f) => ({
                        closed: true,
                        loops: [f.outer, ...f.holes].map((loop) => ({ points: loop, bulges: loop.map(() => 0) })),
                      })),
                    )
                  )
                    setFound(null)
                }}
              >
                Keep {taken.length}
              </button>
              <button className="btn btn-sm" onClick={() => setFound(null)}>
                None
              </button>
            </div>
          </>
        )}
      </Section>
      {kept.length > 0 && (
        <Section title="Traced on it">
          <ul>
            {kept.map((t) => (
              <li key={t.id} className="row">
                <span>{t.name}</span>
                <span className="text-ink2">{t.loops.map((l) => l.points.length).join(' and ')} corners</span>
              </li>
            ))}
          </ul>
          <p className="mt-1 text-[11px] text-ink2">
            They become masses, the site or neighbours, and are compared, in the list of pictures.
          </p>
        </Section>
      )}
    </>
  )
}

/** Corners with the facets of their arcs, as they are drawn. */
const drawn = (points: Vec2[], bulges: readonly number[], closed: boolean): Vec2[] =>
  points.flatMap((p, i): Vec2[] => {
    const q = points[i + 1] ?? (closed ? points[0] : undefined)
    const arc = q && arcBetween(p, q, bulges[i] ?? 0)
    return arc ? arcPoints(arc).slice(0, -1) : [p]
  })

/** The direction in which a side ends. */
function endOf(a: Vec2, b: Vec2, bulge: number): Vec2 {
  const turn = 2 * Math.atan(bulge)
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  return [c * (b[0] - a[0]) - s * (b[1] - a[1]), s * (b[0] - a[0]) + c * (b[1] - a[1])]
}

import { proxy } from 'comlink'
import { useRef, useState } from 'react'
import { inOrder, numbersOf, Refusal, scalingOf, showQuantity } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { useProject } from '../app/hooks'
import { Section } from '../common/fields'
import { studyWorker } from '../worker/client'
import type { PanelOf } from './tasks/kind'
import type { Tracing } from './tasks/trace'
import { tellFault } from '../common/tell'

/** Lines traced by hand, straight or as arcs that go on from the last side; or closed shapes found in ink, to be accepted one by one. */
export function TracePanel({ picture: p, state, hint, send }: PanelOf<Tracing>) {
  const { project } = useProject()
  const { points, arc, found } = state
  const [within, setWithin] = useState('5')
  const [busy, setBusy] = useState<{ done: number; what: string } | null>(null)
  const stopped = useRef(false)
  const { scale } = scalingOf(p, numbersOf(project, null))
  const kept = inOrder(project.traces).filter((t) => t.picture === p.id)
  const setFound = (now: Tracing['found']) => send({ kind: 'change', set: { found: now } })
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
      setFound(shapes.map((f) => ({ ...f, outer: shift(f.outer), holes: f.holes.map(shift), take: true })))
      if (shapes.length === 0)
        tellFault('No closed shape was found. Crop the picture to the sketch, or trace it by hand.')
    } catch (e) {
      if (stopped.current) return
      tellFault(
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
          {hint}
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
              onClick={() => send({ kind: 'change', set: { arc: v } })}
            >
              {label}
            </button>
          ))}
        </div>
        <div className="flex gap-1.5">
          <button
            className="btn btn-sm h-8 flex-1 text-[12px]"
            disabled={points.length < 3}
            onClick={() => send({ kind: 'accept' })}
          >
            Close it
          </button>
          <button
            className="btn btn-sm h-8 flex-1 text-[12px]"
            disabled={points.length < 2}
            onClick={() => send({ kind: 'accept', how: 'open' })}
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
                      <b className="mr-1">{i + 1}:</b>{' '}
                      {f.bulges[0]?.some((b) => b !== 0) ? 'a circle' : `${f.outer.length} corners`}
                      {f.holes.length
                        ? `, ${f.holes.length === 1 ? 'a court' : `${f.holes.length} courts`} of ${f.holes.map((h) => h.length).join(' and ')}`
                        : ''}
                    </span>
                    <span className="flex items-center gap-1.5">
                      {p.pairs.length > 0 && (
                        <b data-found-area>{showQuantity(f.area * scale * scale, 'area', project)}</b>
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
                onClick={() => send({ kind: 'accept', how: 'found' })}
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

import { useEffect, useRef, useState } from 'react'
import { calibrate, numbersOf, readTyped, Refusal, showQuantity, type Pair, type Picture } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { Figure, Section } from '../common/fields'
import type { BenchWork } from './bench-work'
import { PointFields } from './PointFields'

/** Two points and how far they are apart: the picture's scale, and its tilt where they lie level or plumb. More pairs: least squares, with the error. */
export function CalibratePanel({ picture: p, work }: { picture: Picture; work: BenchWork }) {
  const { project, scheme } = useProject()
  const { points, setPoints, setLines, onPick, onEnter } = work
  const [length, setLength] = useState('')
  const [lies, setLies] = useState<Pair['lies']>('level')
  const [pinning, setPinning] = useState(false)
  const field = useRef<HTMLInputElement>(null)
  const set = (label: string, fields: Partial<Picture>) =>
    makeEdit(`${label} of ${p.name}`.slice(0, 190), { edit: 'picture.change', id: p.id, set: fields })
  useEffect(() => {
    setLines([
      ...p.pairs.map((pair) => ({ points: [pair.a, pair.b], closed: false, tone: 'faint' as const })),
      { points: [p.pin.px], closed: false, tone: 'kept' as const, label: 'pin' },
    ])
  }, [p.pairs, p.pin, setLines])
  useEffect(() => {
    onPick.current = (point) => {
      if (pinning) {
        set('pin', { pin: { ...p.pin, px: point } })
        setPinning(false)
        return points
      }
      const next: Vec2[] = points.length >= 2 ? [point] : [...points, point]
      if (next.length === 2) setTimeout(() => field.current?.focus())
      return next
    }
    return () => {
      onPick.current = null
    }
  })
  const typed = (() => {
    if (!length.trim()) return null
    try {
      return readTyped(length, 'length', project, scheme)
    } catch (e) {
      if (e instanceof Refusal) return { fault: e.message }
      throw e
    }
  })()
  const [a, b] = points
  const accept = () => {
    if (!a || !b || !typed || 'fault' in typed) return
    if (set('calibrate', { pairs: [...p.pairs, { id: crypto.randomUUID(), a, b, length: typed.num, lies }] })) {
      setPoints([])
      setLength('')
    }
  }
  useEffect(() => {
    onEnter.current = accept
  })
  const numbers = numbersOf(project, null)
  const found = calibrate(p, numbers)
  const would =
    a && b && typed && !('fault' in typed)
      ? (() => {
          try {
            return calibrate({ pairs: [...p.pairs, { id: 'new', a, b, length: typed.num, lies }] }, numbers)
          } catch (e) {
            if (e instanceof Refusal) return null
            throw e
          }
        })()
      : null
  return (
    <>
      <p className="mb-2 text-[12px] text-ink2" role="status" data-hint>
        {p.locked
          ? 'The picture is locked: unlock it to calibrate it.'
          : pinning
            ? 'Click the point that is tied to the model'
            : points.length < 2
              ? `Click ${points.length === 0 ? 'one end' : 'the other end'} of a length that you know`
              : 'Type how far the two points are apart, Enter'}
      </p>
      <PointFields points={points} count={2} onChange={setPoints} />
      <form
        onSubmit={(e) => {
          e.preventDefault()
          accept()
        }}
      >
        <label className="mb-1 flex h-9 items-center justify-between gap-2 rounded-md border border-line bg-field px-2.5">
          <span className="text-ink2">they are apart</span>
          <input
            ref={field}
            aria-label="they are apart"
            className="min-w-0 flex-1 bg-transparent text-right font-semibold outline-none"
            value={length}
            placeholder={`length, ${project.unit}`}
            onChange={(e) => setLength(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === 'Escape') {
                e.stopPropagation()
                e.currentTarget.blur()
              }
            }}
          />
        </label>
        {typed && (
          <p className={`mb-1 px-1 text-[11px] ${'fault' in typed ? 'text-error' : 'text-ink2'}`}>
            {'fault' in typed ? typed.fault : `= ${showQuantity(typed.value, 'length', project)}`}
          </p>
        )}
        <div className="mb-2 flex gap-1" role="group" aria-label="They lie">
          {(['level', 'plumb', 'anyhow'] as const).map((l) => (
            <button
              key={l}
              type="button"
              className="btn btn-xs rounded-full font-normal flex-1 px-1"
              aria-pressed={lies === l}
              onClick={() => setLies(l)}
            >
              {l}
            </button>
          ))}
        </div>
        {would && (
          <p className="mb-2 px-1 text-[12px] text-ink2">
            gives {(would.scale * 1000).toFixed(4)} mm/px{lies === 'anyhow' ? '' : `, tilt ${would.tilt.toFixed(3)}°`}
            {would.off.length > 1 ? `, error ${would.percent.toFixed(2)} %` : ''}
          </p>
        )}
        <button
          className="btn btn-sm btn-primary mb-4 w-full"
          disabled={!a || !b || !typed || 'fault' in typed || p.locked}
        >
          {p.pairs.length ? 'Add this pair' : 'Calibrate'}
        </button>
      </form>
      {found && (
        <Section title="Calibrated">
          <Figure label="scale">
            <span data-figure="scale">{(found.scale * 1000).toFixed(4)}</span> mm/px
          </Figure>
          <Figure label="tilt taken off">
            <span data-figure="tilt">{found.tilt.toFixed(3)}</span>°
          </Figure>
          <Figure label="pairs">{p.pairs.length}</Figure>
          {p.pairs.length > 1 && (
            <Figure label="error">
              {(found.rms * 1000).toFixed(1)} mm, {found.percent.toFixed(2)} %
            </Figure>
          )}
          {p.pairs.map((pair, i) => (
            <Figure key={pair.id} label={`pair ${i + 1}, ${pair.lies}`}>
              {showQuantity(numbers.length(pair.length), 'length', project)}{' '}
              <button
                className="cursor-pointer font-normal text-ink2 underline"
                disabled={p.locked}
                onClick={() => set('remove a pair', { pairs: p.pairs.filter((o) => o.id !== pair.id) })}
              >
                remove
              </button>
            </Figure>
          ))}
        </Section>
      )}
      <Section title="Pin">
        <p className="mb-1.5 text-[12px] text-ink2">
          The point of the picture that is tied to the model, now at pixel{' '}
          {p.pin.px.map((c) => c.toFixed(0)).join(', ')}.
        </p>
        <button
          className="btn btn-sm w-full"
          aria-pressed={pinning}
          disabled={p.locked}
          onClick={() => setPinning(!pinning)}
        >
          {pinning ? 'Click it on the picture' : 'Set the pin'}
        </button>
      </Section>
    </>
  )
}

import { useEffect, useRef } from 'react'
import { calibrate, numbersOf, showQuantity, type Picture } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { Figure, Section } from '../common/fields'
import { PointFields } from './PointFields'
import { PairQuestion } from './PairQuestion'
import { pairDoubt, typedLength, wouldGive, type Calibrating } from './tasks/calibrate'
import { labelled, type PanelOf } from './tasks/kind'

/**
 * Two points and how far they are apart: the picture's scale, and its tilt where they lie level or plumb. More pairs: least squares, with
 * the error.
 */
export function CalibratePanel({ picture: p, state, hint, send }: PanelOf<Calibrating>) {
  const { project, scheme } = useProject()
  const { points, length, lies, pinning } = state
  const field = useRef<HTMLInputElement>(null)
  const change = (set: Partial<Calibrating>) => send({ kind: 'change', set })
  const remove = (id: string) =>
    makeEdit(labelled('remove a pair of', p), {
      edit: 'picture.change',
      id: p.id,
      set: { pairs: p.pairs.filter((o) => o.id !== id) } satisfies Partial<Picture>,
    })
  const picked = points.length
  // Whoever types the points keeps the order of the fields; after two clicks the length is next.
  useEffect(() => {
    if (picked === 2 && !document.activeElement?.closest('[data-points]')) field.current?.focus()
  }, [picked])
  const world = { project, scheme, picture: p, mint: () => 'new' }
  const typed = typedLength(state, world)
  const would = wouldGive(state, world)
  const doubt = pairDoubt(state, world)
  const numbers = numbersOf(project, null)
  const found = calibrate(p, numbers)
  return (
    <>
      <p className="mb-2 text-[12px] text-ink2" role="status" data-hint>
        {hint}
      </p>
      <PointFields points={points} count={2} onChange={(all) => change({ points: all })} />
      <form
        onSubmit={(e) => {
          e.preventDefault()
          send({ kind: 'accept' })
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
            onChange={(e) => change({ length: e.target.value })}
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
              onClick={() => change({ lies: l })}
            >
              {l}
            </button>
          ))}
        </div>
        {would && !doubt && (
          <p className="mb-2 px-1 text-[12px] text-ink2">
            gives {(would.scale * 1000).toFixed(4)} mm/px{lies === 'anyhow' ? '' : `, tilt ${would.tilt.toFixed(3)}°`}
            {would.off.length > 1 ? `, error ${would.percent.toFixed(2)} %` : ''}
          </p>
        )}
        {doubt ? (
          <PairQuestion
            doubt={doubt}
            lies={lies}
            disabled={p.locked}
            change={change}
            accept={() => send({ kind: 'accept' })}
          />
        ) : (
          <button
            className="btn btn-sm btn-primary mb-4 w-full"
            disabled={picked < 2 || !typed || 'fault' in typed || p.locked}
          >
            {p.pairs.length ? 'Add this pair' : 'Calibrate'}
          </button>
        )}
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
                onClick={() => remove(pair.id)}
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
          onClick={() => change({ pinning: !pinning })}
        >
          {pinning ? 'Click it on the picture' : 'Set the pin'}
        </button>
      </Section>
    </>
  )
}

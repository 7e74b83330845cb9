import { valibotResolver } from '@hookform/resolvers/valibot'
import { useForm } from 'react-hook-form'
import * as v from 'valibot'
import type { Vec2 } from '@geotome/core/solid'
import {
  numbersOf,
  readCorners,
  readLegs,
  readTyped,
  EXAMPLES,
  Refusal,
  sayBearing,
  showNumber,
  showQuantity,
  siteFigures,
  siteRing,
  walk,
} from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { Section } from '../common/fields'
import { siteEdit } from '@geotome/core/groundwork'
import { inUnits } from '../common/tell'

const WAYS = [
  { id: 'rectangle', label: 'Rectangle' },
  { id: 'points', label: 'Points' },
  { id: 'legs', label: 'Lengths' },
] as const

const FormSchema = v.object({
  way: v.picklist(WAYS.map((w) => w.id)),
  width: v.string(),
  depth: v.string(),
  x: v.string(),
  y: v.string(),
  points: v.string(),
  legs: v.string(),
})
type Form = v.InferOutput<typeof FormSchema>

/** A site typed as a rectangle, by its corners, or by lengths and directions; what comes of it shows before it is made. */
export function SiteEntry({ onDone, cancel }: { onDone: () => void; cancel: (() => void) | null }) {
  const { project, scheme } = useProject()
  const ring = project.site ? siteRing(project.site, numbersOf(project, null)) : []
  const { register, handleSubmit, watch, setValue } = useForm({
    resolver: valibotResolver(FormSchema),
    defaultValues: {
      way: 'rectangle',
      width: '',
      depth: '',
      x: '0',
      y: '0',
      points: ring.map((p) => p.join(', ')).join('\n'),
      legs: '',
    } as Form,
  })
  const form = watch()
  const { way } = form
  const length = (text: string) => readTyped(text, 'length', project, scheme).value
  const z = (v: number) => showNumber(v, 'length', project)
  const entered = isEmpty(form)
    ? null
    : tried(() => {
        if (way === 'points') return { points: readCorners(form.points, length), closing: null }
        if (way === 'legs') return walk([0, 0], readLegs(form.legs, length))
        const [w, d, x, y] = [form.width, form.depth, form.x || '0', form.y || '0'].map(length) as [
          number,
          number,
          number,
          number,
        ]
        const points: Vec2[] = [
          [x, y],
          [x + w, y],
          [x + w, y + d],
          [x, y + d],
        ]
        return { points, closing: null }
      })
  const figures = entered && 'ok' in entered && entered.ok.points.length > 2 ? siteFigures(entered.ok.points) : null
  const accept = handleSubmit(() => {
    if (
      entered &&
      'ok' in entered &&
      makeEdit('site boundary', () => siteEdit(project, () => crypto.randomUUID(), entered.ok.points))
    )
      onDone()
  })
  const field = 'input input-sm w-full min-w-0 text-right font-semibold'
  const area = 'textarea textarea-sm h-36 w-full resize-y py-1.5 font-medium leading-5'
  return (
    <Section title="Type the boundary">
      <div className="mb-2 flex gap-1" role="group" aria-label="How it is typed">
        {WAYS.map((w) => (
          <button
            key={w.id}
            className="btn btn-xs rounded-full font-normal flex-1 px-1"
            aria-pressed={way === w.id}
            onClick={() => setValue('way', w.id)}
          >
            {w.label}
          </button>
        ))}
      </div>
      <form onSubmit={(e) => void accept(e)}>
        {way === 'rectangle' && (
          <div className="grid grid-cols-2 gap-1.5">
            {(
              [
                ['width', 'width, east'],
                ['depth', 'depth, north'],
                ['x', 'corner east'],
                ['y', 'corner north'],
              ] as const
            ).map(([key, label]) => (
              <label key={key} className="text-[12px] text-ink2">
                {label}
                <input aria-label={label} className={field} {...register(key)} />
              </label>
            ))}
          </div>
        )}
        {way === 'points' && (
          <label className="text-[12px] text-ink2">
            a corner a line: east, north
            <textarea
              aria-label="corners"
              className={area}
              {...register('points')}
              placeholder={EXAMPLES[project.unit].corners}
            />
          </label>
        )}
        {way === 'legs' && (
          <label className="text-[12px] text-ink2">
            a leg a line: length, direction (east, 92.5°, N 45 E, left 90)
            <textarea
              aria-label="lengths and directions"
              className={area}
              {...register('legs')}
              placeholder={EXAMPLES[project.unit].legs}
            />
          </label>
        )}
        <div role="status" className="my-1.5 min-h-5 text-[12px]" data-entered>
          {entered && 'fault' in entered && <p className="text-error">{entered.fault}</p>}
          {entered && 'ok' in entered && entered.ok.closing && (
            <p>
              closing segment{' '}
              <b>
                {sayBearing(entered.ok.closing.bearing)} {z(entered.ok.closing.length)}
              </b>
            </p>
          )}
          {figures && (
            <p>
              <b>{showQuantity(figures.area, 'area', project)}</b>, boundary <b>{z(figures.perimeter)}</b>
            </p>
          )}
        </div>
        <div className="flex gap-1.5">
          <button type="submit" className="btn btn-sm btn-primary flex-1" disabled={!figures}>
            Make it the site
          </button>
          {cancel && (
            <button type="button" className="btn btn-sm" onClick={cancel}>
              Cancel
            </button>
          )}
        </div>
      </form>
    </Section>
  )
}

const isEmpty = ({ way, ...form }: Form): boolean =>
  (way === 'rectangle' ? [form.width, form.depth] : way === 'points' ? [form.points] : [form.legs]).some(
    (text) => !text.trim(),
  )

const tried = <T,>(read: () => T): { ok: T } | { fault: string } => {
  try {
    return { ok: read() }
  } catch (e) {
    if (e instanceof Refusal) return { fault: inUnits(e.message) }
    throw e
  }
}

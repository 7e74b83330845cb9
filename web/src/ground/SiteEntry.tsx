import { useState } from 'react'
import { loopArea, type Vec2 } from '@geotome/core/solid'
import {
  numbersOf,
  readLegs,
  readTyped,
  Refusal,
  refuse,
  sayBearing,
  showNumber,
  siteFigures,
  siteRing,
  walk,
} from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { Section } from '../common/fields'
import { siteEdit } from '@geotome/core/groundwork'

const WAYS = [
  { id: 'rectangle', label: 'Rectangle' },
  { id: 'points', label: 'Points' },
  { id: 'legs', label: 'Lengths' },
] as const

/** A site typed as a rectangle, by its corners, or by lengths and directions; what comes of it shows before it is made. */
export function SiteEntry({ onDone, cancel }: { onDone: () => void; cancel: (() => void) | null }) {
  const { project, scheme } = useProject()
  const [way, setWay] = useState<(typeof WAYS)[number]['id']>('rectangle')
  const ring = project.site ? siteRing(project.site, numbersOf(project, null)) : []
  const [size, setSize] = useState({ width: '', depth: '', x: '0', y: '0' })
  const [points, setPoints] = useState(ring.map((p) => p.join(', ')).join('\n'))
  const [legs, setLegs] = useState('')
  const length = (text: string) => readTyped(text, 'length', project, scheme).value
  const z = (v: number) => showNumber(v, 'length', project)
  const empty =
    way === 'rectangle' ? !size.width.trim() || !size.depth.trim() : way === 'points' ? !points.trim() : !legs.trim()
  const entered = empty
    ? null
    : tried(() => {
        if (way === 'rectangle') {
          const [w, d, x, y] = [length(size.width), length(size.depth), length(size.x || '0'), length(size.y || '0')]
          return {
            points: [
              [x, y],
              [x + w, y],
              [x + w, y + d],
              [x, y + d],
            ] as Vec2[],
            closing: null,
          }
        }
        if (way === 'points') return { points: readPoints(points, length), closing: null }
        const walked = walk([0, 0], readLegs(legs, length))
        return { points: walked.points, closing: walked.closing }
      })
  const figures = entered && 'ok' in entered && entered.ok.points.length > 2 ? siteFigures(entered.ok.points) : null
  const accept = () => {
    if (
      entered &&
      'ok' in entered &&
      makeEdit('site boundary', () => siteEdit(project, () => crypto.randomUUID(), entered.ok.points))
    )
      onDone()
  }
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
            onClick={() => setWay(w.id)}
          >
            {w.label}
          </button>
        ))}
      </div>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          accept()
        }}
      >
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
                <input
                  aria-label={label}
                  className={field}
                  value={size[key]}
                  onChange={(e) => setSize({ ...size, [key]: e.target.value })}
                />
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
              value={points}
              onChange={(e) => setPoints(e.target.value)}
              placeholder={'0, 0\n28, 0\n31, 19\n2, 22'}
            />
          </label>
        )}
        {way === 'legs' && (
          <label className="text-[12px] text-ink2">
            a leg a line: length, direction (east, 92.5°, N 45 E, left 90)
            <textarea
              aria-label="lengths and directions"
              className={area}
              value={legs}
              onChange={(e) => setLegs(e.target.value)}
              placeholder={'9.4 east\n5.6 north\n3.7 west'}
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
              <b>{showNumber(figures.area, 'area', 'm')} m²</b>, boundary <b>{z(figures.perimeter)}</b>
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

/** A point a line: two numbers parted by a comma, a semicolon or a space; brackets around them do not matter. */
function readPoints(text: string, length: (t: string) => number): Vec2[] {
  const rows = text
    .replace(/\)\s*[,;]?\s*\(/g, ')\n(')
    .split('\n')
    .map((r) => r.trim().replace(/^\(|\)$/g, ''))
    .filter(Boolean)
  const points = rows.map((row, i): Vec2 => {
    const parts = row.split(/[;,\t]|\s{2,}/).length === 2 ? row.split(/[;,\t]|\s{2,}/) : row.split(/\s+/)
    if (parts.length !== 2)
      return refuse(
        'formula',
        `Line ${i + 1}, "${row.slice(0, 30)}", is no point.`,
        'Write east and north, for example 28, 0.',
      )
    return [length(parts[0] ?? ''), length(parts[1] ?? '')]
  })
  return points.length >= 3 && Math.abs(loopArea(points)) >= 0
    ? points
    : refuse(
        'outline',
        `${points.length} ${points.length === 1 ? 'corner is' : 'corners are'} typed.`,
        'A site needs at least three.',
      )
}

const tried = <T,>(read: () => T): { ok: T } | { fault: string } => {
  try {
    return { ok: read() }
  } catch (e) {
    if (e instanceof Refusal) return { fault: e.message }
    throw e
  }
}

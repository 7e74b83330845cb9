import { useEffect, useState } from 'react'
import { toast } from 'sonner'
import {
  inOrder,
  MEASURES,
  nextOrder,
  numbersOf,
  pointsOf,
  Refusal,
  showQuantity,
  valueOf,
  type MeasureKind,
  type Picture,
  numberedName,
  namesOf,
} from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { Figure, Section } from '../common/fields'
import type { BenchWork } from './bench-work'
import { PointFields } from './PointFields'

const KINDS = Object.keys(MEASURES) as MeasureKind[]
const WANTS: Record<MeasureKind, string> = {
  distance: 'Click two points',
  rise: 'Click the lower, then the higher point',
  angle: 'Click the end of a leg, the corner, the end of the other leg',
  radius: 'Click three points on the circle',
  area: 'Click the corners in turn, Enter keeps it',
}

/** Lengths, heights, angles, radii and areas on a picture; each is kept under a name that every field takes. */
export function MeasurePanel({ picture: p, work }: { picture: Picture; work: BenchWork }) {
  const { project } = useProject()
  const { points, setPoints, setLines, onPick, onEnter } = work
  const [kind, setKind] = useState<MeasureKind>('distance')
  const [drawn, setDrawn] = useState(false)
  const numbers = numbersOf(project, null)
  const {
    quantity,
    points: [least, most],
  } = MEASURES[kind]
  const kept = inOrder(project.measures).filter((m) => m.picture === p.id)
  useEffect(() => {
    setLines(
      kept.map((m) => ({
        points: m.points.map(([x = 0, y = 0]) => [x, y] as [number, number]),
        closed: m.kind === 'area',
        tone: 'kept' as const,
        label: m.name,
      })),
    )
  }, [project.measures, p.id, setLines]) // eslint-disable-line react-hooks/exhaustive-deps
  const complete = points.length >= least && points.length <= most
  const value =
    points.length >= least
      ? (() => {
          try {
            return valueOf(kind, pointsOf({ name: 'It', picture: p.id, points }, project.pictures, numbers))
          } catch (e) {
            if (e instanceof Refusal) return null
            throw e
          }
        })()
      : null
  const keep = (all: [number, number][]) => {
    try {
      valueOf(kind, pointsOf({ name: 'The measure', picture: p.id, points: all }, project.pictures, numbers))
    } catch (e) {
      if (e instanceof Refusal) {
        toast.error(e.message)
        setPoints([])
        return
      }
      throw e
    }
    makeEdit(`measure ${kind} on ${p.name}`.slice(0, 190), {
      edit: 'measure.add',
      thing: {
        id: crypto.randomUUID(),
        name: numberedName(kind, namesOf(project.measures), 1, '_'),
        order: nextOrder(project.measures),
        kind,
        picture: p.id,
        points: all,
        same: null,
      },
    })
    setPoints([])
  }
  useEffect(() => {
    onPick.current = (point) => {
      const centre = points[0]
      if (kind === 'radius' && drawn && centre) {
        keep(aroundCentre(centre, point))
        return []
      }
      const all = [...points, point]
      if (kind !== 'area' && all.length === most) {
        keep(all)
        return []
      }
      return all
    }
    onEnter.current = () => {
      if (complete) keep(points)
    }
    return () => {
      onPick.current = null
      onEnter.current = null
    }
  })
  return (
    <>
      <div className="mb-2 flex flex-wrap gap-1" role="group" aria-label="What is measured">
        {KINDS.map((k) => (
          <button
            key={k}
            className="btn btn-xs rounded-full font-normal px-2"
            aria-pressed={k === kind}
            onClick={() => {
              setKind(k)
              setPoints([])
            }}
          >
            {k}
          </button>
        ))}
      </div>
      <p className="mb-2 text-[12px] text-ink2" role="status" data-hint>
        {p.pairs.length === 0 ? 'The picture is not calibrated: what is measured means nothing yet. ' : ''}
        {kind === 'radius' && drawn ? 'Click the centre of the circle, then a point on it' : WANTS[kind]}. Escape goes
        back
      </p>
      {kind === 'radius' && (
        <div className="mb-2 flex gap-1" role="group" aria-label="The circle by">
          {(
            [
              ['three points', false],
              ['centre and rim', true],
            ] as const
          ).map(([label, v]) => (
            <button
              key={label}
              className="btn btn-xs rounded-full font-normal flex-1 px-1"
              aria-pressed={drawn === v}
              onClick={() => {
                setDrawn(v)
                setPoints([])
              }}
            >
              {label}
            </button>
          ))}
        </div>
      )}
      {value !== null && (
        <p className="mb-2 text-[22px] font-bold" data-live>
          {showQuantity(value, quantity, project)}
        </p>
      )}
      {kind !== 'area' && !(kind === 'radius' && drawn) && (
        <PointFields points={points} count={most} onChange={setPoints} />
      )}
      {complete && value !== null && (
        <button className="btn btn-sm mb-3 w-full" onClick={() => keep(points)}>
          Keep it
        </button>
      )}
      <Section title="Measured on it">
        {kept.length === 0 && <p className="text-ink2">Nothing yet.</p>}
        {kept.map((m) => (
          <Figure key={m.id} label={m.name}>
            <span data-measure={m.name}>
              {showQuantity(
                numbers.value({ formula: `{${m.id}}` }, MEASURES[m.kind].quantity),
                MEASURES[m.kind].quantity,
                project,
              )}
            </span>
          </Figure>
        ))}
      </Section>
    </>
  )
}

/** A circle drawn from its centre, as three points on it. */
const aroundCentre = ([x, y]: [number, number], rim: [number, number]): [number, number][] =>
  [0, 1, 2].map((i): [number, number] => {
    const [c, s] = [Math.cos((i * 2 * Math.PI) / 3), Math.sin((i * 2 * Math.PI) / 3)]
    const [dx, dy] = [rim[0] - x, rim[1] - y]
    return [x + c * dx - s * dy, y + s * dx + c * dy]
  })

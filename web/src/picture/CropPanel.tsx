import { useEffect } from 'react'
import type { Picture } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { makeEdit } from '../app/session'
import type { BenchWork } from './bench-work'
import { PointFields } from './PointFields'

/** What of the picture is shown: two corners; nothing of it is lost. */
export function CropPanel({ picture: p, work }: { picture: Picture; work: BenchWork }) {
  const { points, setPoints, setLines, onPick, onEnter } = work
  const box = (a: Vec2, b: Vec2): Vec2[] => [a, [b[0], a[1]], b, [a[0], b[1]]]
  const [a, b] = points
  useEffect(() => {
    setLines([
      ...(p.crop
        ? [{ points: box([p.crop[0], p.crop[1]], [p.crop[2], p.crop[3]]), closed: true, tone: 'faint' as const }]
        : []),
      ...(a && b ? [{ points: box(a, b), closed: true, tone: 'live' as const }] : []),
    ])
  }, [p.crop, a, b, setLines])
  const inside = (v: number, most: number) => Math.min(most, Math.max(0, v))
  const accept = () => {
    if (!a || !b) return
    const crop: [number, number, number, number] = [
      inside(Math.min(a[0], b[0]), p.width),
      inside(Math.min(a[1], b[1]), p.height),
      inside(Math.max(a[0], b[0]), p.width),
      inside(Math.max(a[1], b[1]), p.height),
    ]
    if (makeEdit(`crop ${p.name}`.slice(0, 190), { edit: 'picture.change', id: p.id, set: { crop } })) setPoints([])
  }
  useEffect(() => {
    onPick.current = (point) => (points.length >= 2 ? [point] : [...points, point])
    onEnter.current = accept
    return () => {
      onPick.current = null
      onEnter.current = null
    }
  })
  return (
    <>
      <p className="mb-2 text-[12px] text-ink2" role="status" data-hint>
        Click two opposite corners of what is to be shown, Enter crops. Nothing is lost: the whole can be shown again
      </p>
      <PointFields points={points} count={2} onChange={setPoints} />
      <button className="btn btn-sm btn-primary mb-1.5 w-full" disabled={!a || !b || p.locked} onClick={accept}>
        Crop
      </button>
      <button
        className="btn btn-sm w-full"
        disabled={!p.crop || p.locked}
        onClick={() =>
          makeEdit(`all of ${p.name}`.slice(0, 190), { edit: 'picture.change', id: p.id, set: { crop: null } })
        }
      >
        Show all of it
      </button>
    </>
  )
}

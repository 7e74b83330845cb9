import type { Vec2 } from '@geotome/core/solid'
import { labelled, type BenchAnswer, type BenchWorld, type Picking, type Task } from './kind'

/** Two corners of what of the picture is shown; nothing of it is lost. */
export const cropTask: Task<Picking> = {
  name: 'crop',
  label: 'Crop',
  begin: () => ({ points: [] }),
  answer: (s, event, world) => {
    switch (event.kind) {
      case 'pick':
        return { state: { points: s.points.length >= 2 ? [event.at] : [...s.points, event.at] } }
      case 'accept':
        return cropped(s, world)
      case 'change':
        return { state: { ...s, ...event.set } }
      case 'key':
        return null
    }
  },
  hint: () =>
    'Click two opposite corners of what is to be shown, Enter crops. Nothing is lost: the whole can be shown again',
  lines: ({ points: [a, b] }, { picture: { crop } }) => [
    ...(crop ? [{ points: box([crop[0], crop[1]], [crop[2], crop[3]]), closed: true, tone: 'faint' as const }] : []),
    ...(a && b ? [{ points: box(a, b), closed: true, tone: 'live' as const }] : []),
  ],
}

const box = (a: Vec2, b: Vec2): Vec2[] => [a, [b[0], a[1]], b, [a[0], b[1]]]

function cropped(s: Picking, { picture: p }: BenchWorld): BenchAnswer<Picking> {
  const [a, b] = s.points
  if (!a || !b) return { state: s }
  const inside = (v: number, most: number) => Math.min(most, Math.max(0, v))
  const crop: [number, number, number, number] = [
    inside(Math.min(a[0], b[0]), p.width),
    inside(Math.min(a[1], b[1]), p.height),
    inside(Math.max(a[0], b[0]), p.width),
    inside(Math.max(a[1], b[1]), p.height),
  ]
  const edit = () => ({ edit: 'picture.change' as const, id: p.id, set: { crop } })
  return { state: s, made: { label: labelled('crop', p), edit, then: { points: [] } } }
}

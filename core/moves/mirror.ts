import { boxOf, type Arc, type Outline, type Vec2 } from '../solid'
import type { Num } from '../values'
import { moveKind } from './define'
import { direction } from './fields'
import type { MoveBase } from './kind'
import { outlineOf, reversed } from './outline'

export interface MirrorMove extends MoveBase {
  move: 'mirror'
  /** degrees: where the line of the mirror runs to, through the middle of the outline's extent */ direction: Num
}

/** Mirrors the outline in a line through the middle of its extent. Sides keep their names. */
export const mirror = moveKind<MirrorMove>({
  move: 'mirror',
  called: 'a mirror',
  group: 'plan',
  takes: 'plan',
  gives: 'plan',
  fields: { direction: direction('in a line that runs to', 'mass') },
  starts: ({ plan }) => (plan.length ? { direction: 90 } : null),
  build: (form, m, { numbers }) => {
    const lines = outlineOf(form)
    const box = boxOf(lines.flatMap((l) => l.points.flatMap(([x, y]) => [x, y, 0])))
    const middle: Vec2 = [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2]
    return { ...form, outline: lines.map((l) => mirrored(l, middle, (numbers.angle(m.direction) * Math.PI) / 180)) }
  },
})

/** A closed line mirrored in the line through a point in a direction (radians); it is run in the same sense as before. */
export function mirrored(line: Outline, [x, y]: Vec2, direction: number): Outline {
  const [c, s] = [Math.cos(2 * direction), Math.sin(2 * direction)]
  const there = ([px, py]: Vec2): Vec2 => [x + c * (px - x) + s * (py - y), y + s * (px - x) - c * (py - y)]
  const arcs = new Map<Arc, Arc>()
  const arcOf = (arc: Arc) => {
    let a = arcs.get(arc)
    if (!a) {
      const [ax, ay] = there([arc.x, arc.y])
      arcs.set(arc, (a = { ...arc, x: ax, y: ay, from: 2 * direction - arc.from, sweep: -arc.sweep }))
    }
    return a
  }
  return reversed({ ...line, points: line.points.map(there), arcs: line.arcs.map((a) => a && arcOf(a)) })
}

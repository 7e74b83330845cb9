import type { Taken, World } from './kind'
import { isThree, type DrawKind, type DrawState } from './outline-state'
import { axesOn } from './planes'
import type { OutlineUse } from './outlines/kind'

/** What is wanted next while an outline is drawn. */
export function outlineHint(kind: DrawKind, s: DrawState, use: OutlineUse, world: World, taken: Taken): string {
  const what = use.what(world, taken)
  if (s.stage === 'height')
    return use.depth
      ? `${use.depth.hint}, Escape goes back`
      : 'Move up or down for the height (it catches levels), or type it. Enter or a click accepts, Escape goes back'
  if (s.points.length === 0) {
    const named = use.isNamed || kind === 'polygon' ? what : `the ${kind}`
    return `Click the ${kind === 'circle' ? 'centre' : 'first corner'} of ${named}, or type its place: ${axesOn(taken.on).join(', Tab, ')}, Enter`
  }
  if (kind === 'circle') return 'Click a point on the circle, or type its radius, Enter'
  if (kind === 'rectangle' && isThree(s))
    return s.points.length === 1
      ? 'Click the other end of its first side, or type length, Tab, direction, Enter'
      : 'Click how deep it is, or type it, Enter'
  if (kind === 'rectangle') return 'Click the opposite corner, or type the width, Tab, the depth, Enter'
  if (s.side === 'arc' && !s.through)
    return 'Click a point that the arc passes, then its end; or type its rise. A changes to the next kind of side'
  if (s.side === 'arc') return 'Click where the arc ends'
  if (s.side === 'curve')
    return 'Click the next point that the free curve passes; Enter closes the outline. A changes to the next kind of side'
  if (s.side === 'tangent')
    return 'Click where the arc ends that goes on from the last side. A changes to the next kind of side'
  if (use.ends)
    return 'Click a second point: the line through both parts the face. Or type a length, Tab, a direction, Enter'
  if (use.isOpen)
    return 'Click the next point of the line; Enter ends it and turns it about the first point of the plane. A draws an arc'
  return s.points.length < 3
    ? 'Click the next corner, or type a length (Tab: direction), Enter. A draws an arc, Shift holds to an axis'
    : 'Click the next corner; Enter or a click on the first corner closes the outline. A draws an arc'
}

import { rectsMeet, type Rect } from './rect'
import { TOLERANCE } from '../values'

/**
 * Groups things whose rectangles in plan touch, directly or over others, and which `meet` says belong together; groups and
 * their members in the order given. A sweep along x, so that distant things are never compared.
 */
export function groupsThatMeet<T>(things: T[], rectOf: (thing: T) => Rect, meet: (a: T, b: T) => boolean): T[][] {
  const rects = things.map(rectOf)
  const parent = things.map((_, i) => i)
  const root = (i: number): number => {
    let r = i
    while (parent[r] !== r) r = parent[r] as number
    return r
  }
  const byX = things.map((_, i) => i).sort((a, b) => (rects[a] as Rect).x0 - (rects[b] as Rect).x0)
  let active: number[] = []
  for (const i of byX) {
    const rect = rects[i] as Rect
    active = active.filter((o) => (rects[o] as Rect).x1 >= rect.x0 - TOLERANCE.point)
    for (const o of active)
      if (rectsMeet(rects[o] as Rect, rect) && meet(things[o] as T, things[i] as T)) parent[root(i)] = root(o)
    active.push(i)
  }
  const groups = new Map<number, T[]>()
  things.forEach((thing, i) => {
    const list = groups.get(root(i))
    if (list) list.push(thing)
    else groups.set(root(i), [thing])
  })
  return [...groups.values()]
}

import type { Vec2 } from './place'
import { rectOf, rectsMeet, type Rect, type Region } from './rect'
import { TOLERANCE } from '../values'

/**
 * Regions with what touches made to meet: corners closer than the tolerance to a corner of an earlier region become that corner, and
 * those that lie on a side of another become corners of it too. So sides that touch are the very same, and vanish when the regions are
 * united.
 */
export function regionsMeeting(regions: Region[]): Region[] {
  const rects = regions.map(rectOf)
  const near = (p: Vec2, r: Rect) =>
    p[0] > r.x0 - TOUCH && p[0] < r.x1 + TOUCH && p[1] > r.y0 - TOUCH && p[1] < r.y1 + TOUCH
  const others = regions.map((_, i) =>
    regions.flatMap((_, j) => (j !== i && rectsMeet(rects[i] as Rect, rects[j] as Rect, TOUCH) ? [j] : [])),
  )
  if (others.every((list) => list.length === 0)) return regions
  const met = sharedCorners(regions, rects, others, near)
  return met.map((region, i) => {
    const close = (others[i] ?? []).flatMap((j) =>
      (met[j] ?? []).flatMap((loop) => loop.filter((p) => near(p, rects[i] as Rect))),
    )
    return close.length === 0
      ? region
      : withCorners(
          region,
          close.sort((p, q) => p[0] - q[0]),
        )
  })
}

const TOUCH = TOLERANCE.touch

function sharedCorners(
  regions: Region[],
  rects: Rect[],
  others: number[][],
  near: (p: Vec2, r: Rect) => boolean,
): Region[] {
  const corners = regions.reduce((n, r) => n + r.reduce((m, l) => m + l.length, 0), 0)
  const { find, add } = corners <= FEW ? inTurn() : inCells()
  return regions.map((region, i) => {
    const mine: Vec2[] = []
    const met = region.map((loop) =>
      loop.map((p) => {
        if (!(others[i] ?? []).some((j) => near(p, rects[j] as Rect))) return p
        const hit = find(p)
        if (!hit) mine.push(p)
        return hit ?? p
      }),
    )
    // Only now, so that two corners of one region never become one.
    mine.forEach(add)
    return met
  })
}

/** A store of points that finds one within the tolerance of another. */
interface Found {
  find: (p: Vec2) => Vec2 | null
  add: (p: Vec2) => void
}
const isOne = (p: Vec2, q: Vec2) => Math.abs(p[0] - q[0]) < TOUCH && Math.abs(p[1] - q[1]) < TOUCH

/** up to how many corners looking at each is quicker than finding its cell */
const FEW = 64
function inTurn(): Found {
  const points: Vec2[] = []
  return { find: (p) => points.find((q) => isOne(p, q)) ?? null, add: (p) => points.push(p) }
}

function inCells(): Found {
  const cells = new Map<string, Vec2[]>()
  const cell = (c: number) => Math.floor(c / (4 * TOUCH))
  return {
    find: (p) => {
      for (let dx = -1; dx <= 1; dx++)
        for (let dy = -1; dy <= 1; dy++) {
          const hit = cells.get(`${cell(p[0]) + dx} ${cell(p[1]) + dy}`)?.find((q) => isOne(p, q))
          if (hit) return hit
        }
      return null
    },
    add: (p) => {
      const key = `${cell(p[0])} ${cell(p[1])}`
      const list = cells.get(key)
      if (list) list.push(p)
      else cells.set(key, [p])
    },
  }
}

/** A region whose sides have those of the given points (sorted by x) for corners that lie on them. */
function withCorners(region: Region, points: Vec2[]): Region {
  const first = (x: number) => {
    let [low, high] = [0, points.length]
    while (low < high) {
      const mid = (low + high) >> 1
      if ((points[mid] as Vec2)[0] < x) low = mid + 1
      else high = mid
    }
    return low
  }
  return region.map((loop) =>
    loop.flatMap((a, i) => {
      const b = loop[(i + 1) % loop.length] as Vec2
      const [dx, dy] = [b[0] - a[0], b[1] - a[1]]
      const length = Math.hypot(dx, dy)
      if (length < 2 * TOUCH) return [a]
      const on: { t: number; p: Vec2 }[] = []
      const [low, high] = [Math.min(a[1], b[1]) - TOUCH, Math.max(a[1], b[1]) + TOUCH]
      const end = Math.max(a[0], b[0]) + TOUCH
      for (let k = first(Math.min(a[0], b[0]) - TOUCH); k < points.length && (points[k] as Vec2)[0] < end; k++) {
        const p = points[k] as Vec2
        if (p[1] < low || p[1] > high) continue
        const t = ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / length
        if (t > TOUCH && t < length - TOUCH && Math.abs((p[0] - a[0]) * dy - (p[1] - a[1]) * dx) / length < TOUCH)
          on.push({ t, p })
      }
      return on.length === 0 ? [a] : [a, ...on.sort((p, q) => p.t - q.t).map((o) => o.p)]
    }),
  )
}

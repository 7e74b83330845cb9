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
  const { find, add } = inCells()
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

/** Points in cells that are four times the tolerance wide: those within it lie in the point's own cell, or in one that it lies close to. */
function inCells(): Found {
  const cells = new Map<number, Vec2[]>()
  return {
    find: (p) => {
      const [west, east] = [Math.floor((p[0] - TOUCH) / WIDE), Math.floor((p[0] + TOUCH) / WIDE)]
      const [south, north] = [Math.floor((p[1] - TOUCH) / WIDE), Math.floor((p[1] + TOUCH) / WIDE)]
      for (let x = west; x <= east; x++)
        for (let y = south; y <= north; y++) {
          const hit = cells.get(x * STRIDE + y)?.find((q) => isOne(p, q))
          if (hit) return hit
        }
      return null
    },
    add: (p) => {
      const key = Math.floor(p[0] / WIDE) * STRIDE + Math.floor(p[1] / WIDE)
      const list = cells.get(key)
      if (list) list.push(p)
      else cells.set(key, [p])
    },
  }
}
const WIDE = 4 * TOUCH
/** cells between two columns; that some share a number far from zero does no harm */
const STRIDE = 2 ** 26

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

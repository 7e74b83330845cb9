import { gapOf, TOLERANCE, type Region, type Vec2 } from '../solid'
import { cellsAlong, heightAt, type Tin } from './tin'

/**
 * A straight line laid on the ground: its ends, and each place between them at which it crosses a side of a triangle, in order, m. `z` is
 * null beyond the survey.
 */
export function alongGround(tin: Tin, a: Vec2, b: Vec2): { at: Vec2; z: number | null }[] {
  const { points: p, triangles, grid } = tin
  const long = gapOf(a, b)
  const ends = [
    { t: 0, at: a, z: heightAt(tin, ...a) },
    { t: long, at: b, z: heightAt(tin, ...b) },
  ]
  if (long < TOLERANCE.point) return ends.slice(0, 1)
  const [dx, dy] = [(b[0] - a[0]) / long, (b[1] - a[1]) / long]
  /** how far a corner lies to the left of the line, and how far along it; m */
  const seen = (v: number): [number, number] => {
    const [x, y] = [(p[v * 3] as number) - a[0], (p[v * 3 + 1] as number) - a[1]]
    return [dx * y - dy * x, dx * x + dy * y]
  }
  const sides = new Set<string>()
  const found: { t: number; at: Vec2; z: number | null }[] = []
  const crossed = (v: number, w: number) => {
    const [low, high] = v < w ? [v, w] : [w, v]
    const key = `${low} ${high}`
    if (sides.has(key)) return
    sides.add(key)
    const [[s1, t1], [s2, t2]] = [seen(low), seen(high)]
    const [z1, z2] = [p[low * 3 + 2] as number, p[high * 3 + 2] as number]
    const put = (t: number, z: number) => {
      if (t > TOLERANCE.point && t < long - TOLERANCE.point) found.push({ t, at: [a[0] + dx * t, a[1] + dy * t], z })
    }
    if (Math.abs(s1) < TOLERANCE.rounding && Math.abs(s2) < TOLERANCE.rounding) {
      put(t1, z1)
      put(t2, z2)
    } else if (s1 <= 0 !== s2 <= 0 || s1 === 0 || s2 === 0) {
      const f = s1 / (s1 - s2)
      put(t1 + f * (t2 - t1), z1 + f * (z2 - z1))
    }
  }
  cellsAlong(grid, a, b, (c) => {
    for (let k = grid.start[c] as number; k < (grid.start[c + 1] as number); k++) {
      const t = (grid.items[k] as number) * 3
      const [u, v, w] = [triangles[t] as number, triangles[t + 1] as number, triangles[t + 2] as number]
      crossed(u, v)
      crossed(v, w)
      crossed(w, u)
    }
  })
  const [start, end] = ends as [(typeof found)[number], (typeof found)[number]]
  const inside = found
    .sort((one, other) => one.t - other.t)
    .filter(({ t }, i, all) => t - (all[i - 1]?.t ?? -Infinity) > TOLERANCE.point)
  return [start, ...inside, end].map(({ at, z }) => ({ at, z }))
}

/** The ground along a foot: lowest, mean (along its length) and highest, m; null where none of it lies on the survey. */
export interface FootGround {
  lowest: number
  mean: number
  highest: number
  /** how much of the foot lies beyond the survey, 0 to 1 */ beyond: number
}

/**
 * The ground along the loops of a foot: exactly, since between two places at which a side crosses an edge of the survey's triangles the
 * ground is straight. Null where none of it lies on the survey.
 */
export function groundAlong(tin: Tin, foot: Region): FootGround | null {
  let [lowest, highest, sum, length, off] = [Infinity, -Infinity, 0, 0, 0]
  for (const loop of foot)
    loop.forEach((p, i) => {
      const stops = alongGround(tin, p, loop[(i + 1) % loop.length] as Vec2)
      stops.forEach(({ at, z }, k) => {
        if (z !== null) [lowest, highest] = [Math.min(lowest, z), Math.max(highest, z)]
        const next = stops[k + 1]
        if (!next) return
        const long = gapOf(next.at, at)
        if (z === null || next.z === null) off += long
        else {
          sum += (long * (z + next.z)) / 2
          length += long
        }
      })
    })
  return length > 0 ? { lowest, mean: sum / length, highest, beyond: off / (off + length) } : null
}

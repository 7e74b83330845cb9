import { length, times, type Item } from '../../moves'
import { arcBetween, gapOf, type Vec2 } from '../../solid'
import { refuse, tidy, TOLERANCE, type Num, type Numbers } from '../../values'
import { whole, type Frame, type Place, type WayKind } from './kind'

export interface PathWay {
  way: 'path'
  /** its corners on the site, m; `bulge` of the arc to the next (see outline) */
  path: (Item & { x: Num; y: Num; bulge: Num })[]
  /** m from one to the next along the path; null: evenly from end to end */ pitch: Num | null
  count: Num
  /**
   * whether they stand closer on arcs, so that what is as long as the pitch leaves no gap there, and how far it
   * reaches beside the path, m
   */
  bends?: 'same' | 'closed'
  reach?: Num
  follow: 'turned' | 'straight'
}

const isClosed = (w: PathWay): boolean => w.pitch !== null && w.bends === 'closed'

/** Along a path: at a fixed pitch from its beginning, or spread evenly over its length. Keys: 2, 3 ... from the original. */
export const path: WayKind<PathWay> = {
  way: 'path',
  called: 'along a path',
  fields: {
    path: {
      is: 'list',
      label: 'path on the site',
      one: 'corner',
      least: 2,
      most: 500,
      item: {
        x: length('east'),
        y: length('north'),
        bulge: times('arc to the next', { hint: '0 straight, 1 a semicircle.' }),
      },
      next: (items) => {
        const last = items.at(-1) as { x?: Num; y?: Num } | undefined
        const [x, y] = [Number(last?.x ?? 0), Number(last?.y ?? 0)]
        return { x: (Number.isFinite(x) ? x : 0) + 10, y: Number.isFinite(y) ? y : 0, bulge: 0 }
      },
    },
    pitch: length('pitch', { otherwise: 'spread evenly', from: TOLERANCE.least }),
    count: times('in all', { from: 1, to: 2000, when: (w) => w.pitch === null }),
    bends: {
      is: 'choice',
      label: 'on arcs',
      options: [
        { value: 'same', label: 'at the same pitch' },
        { value: 'closed', label: 'closer, so that no gap is left' },
      ],
      absent: 'same',
      when: (w) => w.pitch !== null,
    },
    reach: length('each reaches beside the path by', { from: 0, absent: 0, when: isClosed }),
    follow: {
      is: 'choice',
      label: 'each is',
      options: [
        { value: 'turned', label: 'turned with the path' },
        { value: 'straight', label: 'as it was drawn' },
      ],
    },
  },
  starts: ({ middle: [x, y], wide }) => ({
    path: [
      { id: 'a', x, y, bulge: 0 },
      { id: 'b', x: x + Math.ceil(wide * 6), y, bulge: 0 },
    ],
    pitch: null,
    count: 6,
    bends: 'same',
    reach: 0,
    follow: 'turned',
  }),
  places: (w, numbers) => {
    const stations = framesAlong(w, numbers)
    const first = stations[0] ?? refuse('geometry', 'The path has no length.', 'Put its corners apart.')
    return stations.map((to, nth): Place => ({
      key: String(nth + 1),
      nth,
      step: { from: first, to: w.follow === 'turned' ? to : { ...to, turn: first.turn } },
    }))
  },
  moved: (w, [dx, dy], numbers) => ({
    path: w.path.map((c) => ({ ...c, x: tidy(numbers.length(c.x) + dx), y: tidy(numbers.length(c.y) + dy) })),
  }),
  says: (w, numbers) => {
    if (w.pitch === null) {
      const n = whole(numbers, w.count)
      return n < 2 ? null : `each ${(pathLength(w, numbers) / (n - 1)).toFixed(4)} m from the last`
    }
    const [long, pitch] = [pathLength(w, numbers), numbers.length(w.pitch)]
    if (isClosed(w)) {
      const at = placesAlong(stretchesOf(w, numbers), w, numbers)
      return `${at.length} of them, ${(1000 * (long - (at.at(-1) ?? 0))).toFixed(1)} mm left`
    }
    const pitches = Math.floor(long / pitch + TOLERANCE.rounding)
    return `${pitches} pitches, ${(1000 * (long - pitches * pitch)).toFixed(1)} mm left`
  },
}

interface Stretch {
  at: (share: number) => Frame
  long: number
  /** m of the arc; null: straight */ radius: number | null
}

function stretchesOf({ path }: PathWay, numbers: Numbers): Stretch[] {
  const corners = path.map((c) => ({
    at: [numbers.length(c.x), numbers.length(c.y)] as Vec2,
    bulge: numbers.value(c.bulge, 'number'),
  }))
  return corners.slice(1).flatMap(({ at: b }, i): Stretch[] => {
    const { at: a, bulge } = corners[i] as (typeof corners)[number]
    const arc = arcBetween(a, b, bulge)
    const degrees = (radians: number) => (radians * 180) / Math.PI
    if (arc)
      return [
        {
          long: arc.r * Math.abs(arc.sweep),
          radius: arc.r,
          at: (t) => {
            const turn = arc.from + arc.sweep * t
            return {
              x: arc.x + arc.r * Math.cos(turn),
              y: arc.y + arc.r * Math.sin(turn),
              turn: degrees(turn) + 90 * Math.sign(arc.sweep),
            }
          },
        },
      ]
    const long = gapOf(a, b)
    const turn = degrees(Math.atan2(b[1] - a[1], b[0] - a[0]))
    const at = (t: number) => ({ x: a[0] + (b[0] - a[0]) * t, y: a[1] + (b[1] - a[1]) * t, turn })
    return long > 0 ? [{ long, radius: null, at }] : []
  })
}

/** m */
const pathLength = (w: PathWay, numbers: Numbers): number => stretchesOf(w, numbers).reduce((sum, s) => sum + s.long, 0)

/** The frames along the path: x runs with it. */
function framesAlong(w: PathWay, numbers: Numbers): Frame[] {
  const stretches = stretchesOf(w, numbers)
  const long = stretches.reduce((sum, s) => sum + s.long, 0)
  if (long < TOLERANCE.least) return []
  return placesAlong(stretches, w, numbers).map((s) => {
    const { stretch, left } = stretchAt(stretches, Math.min(long, s))
    return stretch.at(Math.min(1, left / stretch.long))
  })
}

/** Where along its stretches something stands: which of them, and how far along it, m. */
function stretchAt(stretches: readonly Stretch[], s: number): { stretch: Stretch; left: number } {
  let left = s
  for (const [k, stretch] of stretches.entries()) {
    if (left <= stretch.long + TOLERANCE.rounding || k === stretches.length - 1) return { stretch, left }
    left -= stretch.long
  }
  return { stretch: stretches.at(-1) as Stretch, left }
}

/** m along the path to each. */
function placesAlong(stretches: readonly Stretch[], w: PathWay, numbers: Numbers): number[] {
  const long = stretches.reduce((sum, s) => sum + s.long, 0)
  if (w.pitch === null) {
    const count = whole(numbers, w.count)
    return Array.from({ length: count }, (_, i) => (count > 1 ? (long / (count - 1)) * i : 0))
  }
  const pitch = numbers.length(w.pitch)
  if (!isClosed(w))
    return Array.from({ length: Math.floor(long / pitch + TOLERANCE.rounding) + 1 }, (_, i) => pitch * i)
  const reach = numbers.length(w.reach ?? 0)
  const at = [0]
  for (;;) {
    const s = at.at(-1) as number
    const step = closedStep(stretches, s, pitch, reach)
    if (s + step > long + TOLERANCE.rounding || at.length > MOST) return at
    at.push(s + step)
  }
}

const MOST = 2000
/** Halvings after which a step is known to less than a thousandth of a millimetre. */
const HALVINGS = 40

/**
 * The longest step (m), at most the pitch, after which two things of the pitch's length still meet at the outside of the bend between them,
 * so far beside the path. Straight stretches keep the pitch.
 */
function closedStep(stretches: readonly Stretch[], s: number, pitch: number, reach: number): number {
  const long = stretches.reduce((sum, stretch) => sum + stretch.long, 0)
  const frameAt = (at: number): Frame => {
    const { stretch, left } = stretchAt(stretches, Math.min(long, at))
    return stretch.at(Math.min(1, left / stretch.long))
  }
  if (!hasArc(stretches, s, s + pitch)) return pitch
  const from = frameAt(s)
  const meets = (step: number) => isClosedBetween(from, frameAt(s + step), pitch, reach)
  if (meets(pitch)) return pitch
  let [low, high] = [0, pitch]
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2
    if (meets(middle)) low = middle
    else high = middle
  }
  return low > TOLERANCE.least ? low : pitch
}

/** Whether a part of the path (m along it) has an arc in it. */
function hasArc(stretches: readonly Stretch[], from: number, to: number): boolean {
  let start = 0
  return stretches.some(({ long, radius }) => {
    const end = start + long
    const isIn = radius !== null && start < to - TOLERANCE.point && end > from + TOLERANCE.point
    start = end
    return isIn
  })
}

/** Whether two things that are `pitch` long, about two places of a path, meet at the outside of the bend between them. */
function isClosedBetween(a: Frame, b: Frame, pitch: number, reach: number): boolean {
  const radians = (degrees: number) => (degrees * Math.PI) / 180
  const [u, v] = [a, b].map(({ turn }): Vec2 => [Math.cos(radians(turn)), Math.sin(radians(turn))]) as [Vec2, Vec2]
  const cross = u[0] * v[1] - u[1] * v[0]
  // Outside is to the right of the way where the path turns left.
  const side = cross > 0 ? reach : -reach
  const [p, q] = [
    [a, u],
    [b, v],
  ].map(([at, way]): Vec2 => {
    const [{ x, y }, [wx, wy]] = [at as Frame, way as Vec2]
    return [x + side * wy, y - side * wx]
  }) as [Vec2, Vec2]
  const room = pitch / 2 + TOLERANCE.zero
  if (Math.abs(cross) < TOLERANCE.slope) return gapOf(p, q) <= 2 * room
  const [dx, dy] = [q[0] - p[0], q[1] - p[1]]
  const [onFirst, onSecond] = [(dx * v[1] - dy * v[0]) / cross, (dx * u[1] - dy * u[0]) / cross]
  return Math.abs(onFirst) <= room && Math.abs(onSecond) <= room
}

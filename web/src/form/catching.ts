import type { Vec2 } from '@geotome/core/solid'

/** A point that the pointer caught, with the word that says what it is. */
export interface Caught { point: Vec2; word: string | null; /** the line it lies on, to be drawn */ along: [Vec2, Vec2] | null }

export interface CatchContext {
  /** outlines of what is there already, m */
  outlines: Vec2[][]
  /** corners drawn so far */
  drawn: Vec2[]
  /** m to a pixel */
  pixel: number
  /** m */
  stride: number
  /** held to an axis */
  held: boolean
}

const REACH = 9

/**
 * Catches, nearest first: ends, middles, the beginning of what is drawn; then lines: along the axes through the last corner,
 * square to the last side, in line with the first corner; then the stride.
 */
export function catchPoint(raw: Vec2, context: CatchContext): Caught {
  const reach = REACH * context.pixel
  const near = (p: Vec2) => Math.hypot(p[0] - raw[0], p[1] - raw[1]) <= reach
  const [first, last] = [context.drawn[0], context.drawn.at(-1)]
  if (first && context.drawn.length > 2 && near(first)) return { point: first, word: 'close here', along: null }
  if (!context.held) {
    const sides = context.outlines.flatMap((o) => o.map((a, i): [Vec2, Vec2] => [a, o[(i + 1) % o.length] as Vec2]))
    const spots = [...sides.map(([a]) => ({ point: a, word: 'end' })), ...sides.map(([a, b]) => ({ point: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2] as Vec2, word: 'middle' }))]
    const spot = spots.filter((s) => near(s.point)).sort((s, t) => distance(s.point, raw) - distance(t.point, raw))[0]
    if (spot) return { ...spot, along: null }
    const onSide = sides.map(([a, b]) => ({ foot: footOn(a, b, raw), a, b })).filter(({ foot }) => foot && near(foot)).sort((s, t) => distance(s.foot as Vec2, raw) - distance(t.foot as Vec2, raw))[0]
    if (onSide?.foot && !last) return { point: alongStride(onSide.a, onSide.b, onSide.foot, context.stride), word: 'on side', along: [onSide.a, onSide.b] }
  }
  if (last) {
    const lines = linesFrom(context.drawn)
    const caught = lines.map((l) => ({ ...l, foot: projected(last, l.direction, raw) })).filter((l) => context.held || near(l.foot)).sort((s, t) => distance(s.foot, raw) - distance(t.foot, raw))[0]
    if (caught) {
      const reachTo = Math.round(((caught.foot[0] - last[0]) * caught.direction[0] + (caught.foot[1] - last[1]) * caught.direction[1]) / context.stride) * context.stride
      const aligned = first && context.drawn.length > 1 ? alignedWith(first, last, caught.direction, raw, reach) : null
      const point: Vec2 = aligned ?? [last[0] + caught.direction[0] * reachTo, last[1] + caught.direction[1] * reachTo]
      return { point: clean(point), word: aligned ? `${caught.word}, in line with the first corner` : caught.word, along: [last, point] }
    }
  }
  return { point: clean([Math.round(raw[0] / context.stride) * context.stride, Math.round(raw[1] / context.stride) * context.stride]), word: null, along: null }
}

/** Directions worth catching from the last corner: the axes, and square to or along the last side. */
function linesFrom(drawn: Vec2[]): { direction: Vec2; word: string }[] {
  const lines: { direction: Vec2; word: string }[] = [{ direction: [1, 0], word: 'along east' }, { direction: [0, 1], word: 'along north' }]
  const [before, last] = [drawn.at(-2), drawn.at(-1)]
  if (!before || !last) return lines
  const length = distance(before, last) || 1
  const d: Vec2 = [(last[0] - before[0]) / length, (last[1] - before[1]) / length]
  if (Math.abs(d[0]) < 1e-6 || Math.abs(d[1]) < 1e-6) return lines
  return [{ direction: [-d[1], d[0]], word: 'square to' }, { direction: d, word: 'straight on' }, ...lines]
}

function alignedWith(first: Vec2, last: Vec2, direction: Vec2, raw: Vec2, reach: number): Vec2 | null {
  for (const axis of [0, 1] as const) {
    const other = direction[axis]
    if (Math.abs(other) < 1e-6) continue
    const t = (first[axis] - last[axis]) / other
    const p: Vec2 = [last[0] + direction[0] * t, last[1] + direction[1] * t]
    if (Math.abs(t) > 1e-6 && distance(p, raw) < reach) return p
  }
  return null
}

const distance = (a: Vec2, b: Vec2) => Math.hypot(a[0] - b[0], a[1] - b[1])
const clean = ([x, y]: Vec2): Vec2 => [Math.round(x * 1e6) / 1e6, Math.round(y * 1e6) / 1e6]

function projected(from: Vec2, direction: Vec2, p: Vec2): Vec2 {
  const t = (p[0] - from[0]) * direction[0] + (p[1] - from[1]) * direction[1]
  return [from[0] + direction[0] * t, from[1] + direction[1] * t]
}

function footOn(a: Vec2, b: Vec2, p: Vec2): Vec2 | null {
  const length = distance(a, b)
  if (length < 1e-6) return null
  const foot = projected(a, [(b[0] - a[0]) / length, (b[1] - a[1]) / length], p)
  return distance(a, foot) <= length && distance(b, foot) <= length ? foot : null
}

function alongStride(a: Vec2, b: Vec2, foot: Vec2, stride: number): Vec2 {
  const length = distance(a, b)
  const t = Math.min(length, Math.round(distance(a, foot) / stride) * stride) / length
  return clean([a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t])
}

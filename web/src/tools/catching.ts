import { gapOf, onLine, type Vec2 } from '@geotome/core/solid'
import { alongStride, clean, footOn, meetings, onSweep, projected, type CatchEdge } from './catch-geometry'

export type { CatchEdge }

/** A point that the pointer caught, with the word that says what it is. */
export interface Caught {
  point: Vec2
  word: string | null
  /** the line it lies on, to be drawn */ along: [Vec2, Vec2] | null
  /** the direction from the last corner that it lies in, where that can be held */
  way?: Direction
}

/** A direction from the last corner that is held, or may be caught. */
export interface Direction {
  direction: Vec2
  word: string
}

export interface CatchContext {
  /** edges of what is there already */
  edges: CatchEdge[]
  /** corners drawn so far */
  drawn: Vec2[]
  /** m to a pixel */
  pixel: number
  /** m */
  stride: number
  /** held to an axis */
  held: boolean
  /** what the axes are called */
  axes?: readonly [string, string]
  /** points with words of their own: the marks of pictures */
  marks?: readonly { point: Vec2; word: string }[]
  /** the one direction from the last corner that is kept to */
  only?: Direction | null
}

const REACH = 9

/**
 * Catches, nearest first: ends, centres, middles, crossings, the beginning of what is drawn; then the feet of perpendiculars and tangents
 * from the last corner, and the edges themselves; then lines through it: along the axes, square to or on from the last side, in line
 * with the first corner; then the stride, counted from the last corner.
 */
export function catchPoint(raw: Vec2, context: CatchContext): Caught {
  const reach = REACH * context.pixel
  const near = (p: Vec2) => gapOf(p, raw) <= reach
  const [first, last] = [context.drawn[0], context.drawn.at(-1)]
  if (first && context.drawn.length > 1 && near(first)) return { point: first, word: 'close here', along: null }
  const isFree = !context.held && !context.only
  if (isFree) {
    const nearest = (spots: { point: Vec2; word: string }[]) =>
      spots.filter((s) => near(s.point)).sort((s, t) => gapOf(s.point, raw) - gapOf(t.point, raw))[0]
    const spot =
      nearest([...spotsOf(context.edges), ...(context.marks ?? [])]) ??
      nearest(crossingsNear(context.edges, raw, reach))
    if (spot) return { ...spot, along: null }
    const foot = last ? nearest(feetFrom(context.edges, last)) : undefined
    if (foot && last) return { ...foot, along: [last, foot.point] }
  }
  if (last) {
    const caught = alongLine(raw, context, last, first, near)
    if (caught) return caught
  }
  if (isFree) {
    const on = context.edges
      .flatMap((e) => {
        const foot = footOn(e, raw)
        return foot && near(foot) ? [{ foot, e }] : []
      })
      .sort((s, t) => gapOf(s.foot, raw) - gapOf(t.foot, raw))[0]
    if (on)
      return on.e.kind === 'side'
        ? {
            point: alongStride(on.e.a, on.e.b, on.foot, context.stride),
            word: on.e.word ?? (on.e.named && on.e.of ? `on ${on.e.named} of ${on.e.of}` : 'on side'),
            along: [on.e.a, on.e.b],
          }
        : { point: clean(on.foot), word: 'on arc', along: null }
    const inLine = linedUp(raw, context, reach)
    if (inLine) return inLine
  }
  // Strides count from the last corner, along each axis: what is drawn has whole ones, wherever it began.
  const [x0, y0] = last ?? [0, 0]
  const byStride = (from: number, to: number) => from + Math.round((to - from) / context.stride) * context.stride
  return { point: clean([byStride(x0, raw[0]), byStride(y0, raw[1])]), word: null, along: null }
}

/** m: the length of the side, or the radius of the arc, that lies nearest to a point; null where there is none. */
export function sizeNear(raw: Vec2, edges: CatchEdge[]): number | null {
  let best: { off: number; size: number } | null = null
  for (const e of edges) {
    const foot = e.kind === 'side' && e.word ? null : footOn(e, raw)
    if (!foot) continue
    const off = gapOf(foot, raw)
    if (!best || off < best.off) best = { off, size: e.kind === 'side' ? gapOf(e.a, e.b) : e.arc.r }
  }
  return best?.size ?? null
}

/** Ends, middles and centres. */
function spotsOf(edges: CatchEdge[]): { point: Vec2; word: string }[] {
  return edges.flatMap((e) => {
    if (e.kind === 'side' && e.word) return []
    if (e.kind === 'side')
      return [
        { point: e.a, word: 'end' },
        { point: e.b, word: 'end' },
        { point: [(e.a[0] + e.b[0]) / 2, (e.a[1] + e.b[1]) / 2] as Vec2, word: 'middle' },
      ]
    const { arc } = e
    const at = (t: number): Vec2 =>
      clean([arc.x + arc.r * Math.cos(arc.from + arc.sweep * t), arc.y + arc.r * Math.sin(arc.from + arc.sweep * t)])
    const whole = Math.abs(arc.sweep) > 6.28
    return [
      { point: clean([arc.x, arc.y]), word: 'centre' },
      ...(whole
        ? []
        : [
            { point: at(0), word: 'end' },
            { point: at(1), word: 'end' },
            { point: at(0.5), word: 'middle' },
          ]),
    ]
  })
}

/** Where two edges that both pass near the pointer cross. */
function crossingsNear(edges: CatchEdge[], raw: Vec2, reach: number): { point: Vec2; word: string }[] {
  const close = edges
    .filter((e) => {
      const foot = footOn(e, raw)
      return foot && gapOf(foot, raw) < reach * 2
    })
    .slice(0, 12)
  return close.flatMap((e, i) =>
    close.slice(0, i).flatMap((f) => meetings(e, f).map((point) => ({ point: clean(point), word: 'crossing' }))),
  )
}

/** Feet of perpendiculars from a point on sides, and the points where lines from it touch arcs. */
function feetFrom(edges: CatchEdge[], from: Vec2): { point: Vec2; word: string }[] {
  return edges.flatMap((e): { point: Vec2; word: string }[] => {
    if (e.kind === 'side') {
      const foot = footOn(e, from)
      return foot && gapOf(foot, from) > 1e-3 ? [{ point: clean(foot), word: 'square to' }] : []
    }
    const { arc } = e
    const away = Math.hypot(from[0] - arc.x, from[1] - arc.y)
    if (away <= arc.r + 1e-6) return []
    const [middle, half] = [Math.atan2(from[1] - arc.y, from[0] - arc.x), Math.acos(arc.r / away)]
    return [-half, half, Math.PI].flatMap((turn, k): { point: Vec2; word: string }[] => {
      const a = k === 2 ? middle : middle + turn
      const point = clean([arc.x + arc.r * Math.cos(a), arc.y + arc.r * Math.sin(a)])
      return onSweep(arc, point) ? [{ point, word: k === 2 ? 'square to' : 'tangent to' }] : []
    })
  })
}

/** On a line through the last corner that is worth catching; where it crosses an edge near the pointer, there. */
function alongLine(
  raw: Vec2,
  context: CatchContext,
  last: Vec2,
  first: Vec2 | undefined,
  near: (p: Vec2) => boolean,
): Caught | null {
  const caught = (context.only ? [context.only] : linesFrom(context.drawn, context.axes))
    .map((l) => ({ ...l, foot: projected(last, l.direction, raw) }))
    .filter((l) => context.held || context.only || near(l.foot))
    .sort((s, t) => gapOf(s.foot, raw) - gapOf(t.foot, raw))[0]
  if (!caught) return null
  const far = 1e5
  const ray: CatchEdge = {
    kind: 'side',
    a: [last[0] - caught.direction[0] * far, last[1] - caught.direction[1] * far],
    b: [last[0] + caught.direction[0] * far, last[1] + caught.direction[1] * far],
  }
  const met = context.edges
    .flatMap((e) => meetings(ray, e))
    .filter((p) => near(p) && gapOf(p, last) > 1e-3)
    .sort((p, q) => gapOf(p, raw) - gapOf(q, raw))[0]
  const reachTo =
    Math.round(
      ((caught.foot[0] - last[0]) * caught.direction[0] + (caught.foot[1] - last[1]) * caught.direction[1]) /
        context.stride,
    ) * context.stride
  const aligned = first && context.drawn.length > 1 ? alignedWith(first, last, caught.direction, near) : null
  const equal = asLongAsBefore(context.drawn, caught.direction, raw, near)
  const point: Vec2 = met ??
    aligned ??
    equal ?? [last[0] + caught.direction[0] * reachTo, last[1] + caught.direction[1] * reachTo]
  return {
    point: clean(point),
    word: met
      ? `${caught.word}, crossing`
      : aligned
        ? `${caught.word}, in line with the first corner`
        : equal
          ? `${caught.word}, as long as the side before`
          : caught.word,
    along: [last, point],
    way: { direction: caught.direction, word: caught.word },
  }
}

/** As far from the last corner as that is from the one before it. */
function asLongAsBefore(drawn: Vec2[], direction: Vec2, raw: Vec2, near: (p: Vec2) => boolean): Vec2 | null {
  const [before, last] = [drawn.at(-2), drawn.at(-1)]
  if (!before || !last) return null
  const ahead = (raw[0] - last[0]) * direction[0] + (raw[1] - last[1]) * direction[1] < 0 ? -1 : 1
  const point = onLine(last, direction, gapOf(before, last) * ahead)
  return near(point) ? point : null
}

/** In line with corners of what is there, along one axis or both. */
function linedUp(raw: Vec2, { edges, drawn, stride }: CatchContext, reach: number): Caught | null {
  const last = drawn.at(-1) ?? ([0, 0] as Vec2)
  const nearest = (axis: 0 | 1) => {
    let best: { point: Vec2; of: string | undefined; off: number } | null = null
    for (const e of edges) {
      if (e.kind !== 'side' || e.word) continue
      const off = Math.abs(e.a[axis] - raw[axis])
      if (off <= reach / 2 && (!best || off < best.off)) best = { point: e.a, of: e.of, off }
    }
    return best
  }
  const [x, y] = [nearest(0), nearest(1)]
  const one = x ?? y
  if (!one) return null
  const own = (axis: 0 | 1) => last[axis] + Math.round((raw[axis] - last[axis]) / stride) * stride
  const point = clean([x ? x.point[0] : own(0), y ? y.point[1] : own(1)])
  const corner = (c: typeof one) => (c.of ? `a corner of ${c.of}` : 'a corner')
  return {
    point,
    word: `in line with ${corner(one)}${x && y ? `, and with ${corner(y)}` : ''}`,
    along: [one.point, point],
  }
}

/** Directions worth catching from the last corner: the axes, and square to or along the last side. */
function linesFrom(drawn: Vec2[], [right, up]: readonly [string, string] = ['east', 'north']): Direction[] {
  const lines: Direction[] = [
    { direction: [1, 0], word: right === 'along' ? 'level' : `along ${right}` },
    { direction: [0, 1], word: up === 'up' ? 'straight up' : `along ${up}` },
  ]
  const [before, last] = [drawn.at(-2), drawn.at(-1)]
  if (!before || !last) return lines
  const length = gapOf(before, last) || 1
  const d: Vec2 = [(last[0] - before[0]) / length, (last[1] - before[1]) / length]
  if (Math.abs(d[0]) < 1e-6 || Math.abs(d[1]) < 1e-6) return lines
  return [{ direction: [-d[1], d[0]], word: 'square to' }, { direction: d, word: 'straight on' }, ...lines]
}

function alignedWith(first: Vec2, last: Vec2, direction: Vec2, near: (p: Vec2) => boolean): Vec2 | null {
  for (const axis of [0, 1] as const) {
    const other = direction[axis]
    if (Math.abs(other) < 1e-6) continue
    const t = (first[axis] - last[axis]) / other
    const p: Vec2 = [last[0] + direction[0] * t, last[1] + direction[1] * t]
    if (Math.abs(t) > 1e-6 && near(p)) return p
  }
  return null
}

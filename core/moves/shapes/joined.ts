import * as v from 'valibot'
import { loopArea, TOLERANCE, type Vec2 } from '../../solid'
import { IdSchema, NumSchema, refuse, tidy, type Num, type Numbers } from '../../values'
import { atLeastAMillimetre } from '../sizes'
import type { CornerAt, ShapeKind } from './kind'

/** One of the rectangles: where its south-west corner lies in the mass's frame, and its sizes, m. */
export interface JoinedPart {
  id: string
  x: Num
  y: Num
  width: Num
  depth: Num
}

export interface Joined {
  kind: 'joined'
  parts: JoinedPart[]
}

interface Box {
  id: string
  x0: number
  y0: number
  x1: number
  y1: number
}

/**
 * Rectangles that overlap or touch, as one outline; what they enclose is a court. Each side is named by the rectangle that it is of, and where
 * it looks: a-south, and a-south-2 for the next stretch of the same side.
 */
export const joined: ShapeKind<Joined> = {
  kind: 'joined',
  schema: v.strictObject({
    kind: v.literal('joined'),
    parts: v.pipe(
      v.array(v.strictObject({ id: IdSchema, x: NumSchema, y: NumSchema, width: NumSchema, depth: NumSchema })),
      v.minLength(1, 'At least one rectangle.'),
      v.maxLength(60, 'At most 60 rectangles are joined in one outline.'),
    ),
  }),
  numbers: (s) =>
    s.parts.flatMap((p): [Num, 'length'][] => [
      [p.x, 'length'],
      [p.y, 'length'],
      [p.width, 'length'],
      [p.depth, 'length'],
    ]),
  corners: (s, numbers) => outer(loopsOf(s, numbers)),
  inner: (s, numbers) => {
    const loops = loopsOf(s, numbers)
    const out = outer(loops)
    return loops.filter((l) => l !== out).map((corners, i) => ({ id: `court${i ? i + 1 : ''}`, corners }))
  },
  check: (s, name, numbers) => {
    s.parts.forEach((p, i) => {
      atLeastAMillimetre(numbers.length(p.width), `The width of rectangle ${i + 1} of ${name}`)
      atLeastAMillimetre(numbers.length(p.depth), `The depth of rectangle ${i + 1} of ${name}`)
    })
    if (new Set(s.parts.map((p) => p.id)).size !== s.parts.length)
      refuse('id-taken', `Two rectangles of ${name} have the same id.`, 'Give each its own id.')
    const loops = loopsOf(s, numbers)
    if (loops.filter((l) => areaOf(l) > 0).length > 1)
      refuse('outline', `The rectangles of ${name} do not hang together.`, 'Move them so that they touch or overlap.')
    const corners = loops.flat().map((c) => `${c.at[0]},${c.at[1]}`)
    if (new Set(corners).size !== corners.length)
      refuse('outline', `Two rectangles of ${name} meet in a corner only.`, 'Let them overlap, or move them apart.')
  },
}

const areaOf = (loop: CornerAt[]) => loopArea(loop.map((c) => c.at))
const outer = (loops: CornerAt[][]): CornerAt[] =>
  loops.reduce((a, b) => (areaOf(b) > areaOf(a) ? b : a), loops[0] ?? [])

/** The closed lines round all rectangles: outer ones counter-clockwise, those round what they enclose clockwise. */
function loopsOf({ parts }: Joined, numbers: Numbers): CornerAt[][] {
  const boxes = parts.map(({ id, x, y, width, depth }): Box => {
    const [x0, y0] = [numbers.length(x), numbers.length(y)]
    return { id, x0, y0, x1: tidy(x0 + numbers.length(width)), y1: tidy(y0 + numbers.length(depth)) }
  })
  const [xs, ys] = [lines(boxes.flatMap((b) => [b.x0, b.x1])), lines(boxes.flatMap((b) => [b.y0, b.y1]))]
  const near = (a: number, b: number) => Math.abs(a - b) < TOLERANCE.touch
  const isIn = (i: number, k: number) => {
    if (i < 0 || k < 0 || i + 1 >= xs.length || k + 1 >= ys.length) return false
    const [x, y] = [((xs[i] as number) + (xs[i + 1] as number)) / 2, ((ys[k] as number) + (ys[k + 1] as number)) / 2]
    return boxes.some((b) => x > b.x0 && x < b.x1 && y > b.y0 && y < b.y1)
  }
  /** by where it begins: steps along the sides of cells that only one side of is covered, with the body at their left */
  const steps = new Map<string, { to: [number, number]; name: string }[]>()
  const step = (from: [number, number], to: [number, number], side: 'south' | 'east' | 'north' | 'west') => {
    const level = side === 'south' || side === 'north'
    const at = level ? (ys[from[1]] as number) : (xs[from[0]] as number)
    const middle = level
      ? ((xs[from[0]] as number) + (xs[to[0]] as number)) / 2
      : ((ys[from[1]] as number) + (ys[to[1]] as number)) / 2
    const own = boxes.find((b) => {
      const line = { south: b.y0, north: b.y1, east: b.x1, west: b.x0 }[side]
      const [low, high] = level ? [b.x0, b.x1] : [b.y0, b.y1]
      return near(line, at) && middle > low && middle < high
    })
    const list = steps.get(from.join())
    const entry = { to, name: `${own?.id ?? 'side'}-${side}` }
    if (list) list.push(entry)
    else steps.set(from.join(), [entry])
  }
  for (let i = 0; i + 1 < xs.length; i++)
    for (let k = 0; k + 1 < ys.length; k++) {
      if (!isIn(i, k)) continue
      if (!isIn(i, k - 1)) step([i, k], [i + 1, k], 'south')
      if (!isIn(i + 1, k)) step([i + 1, k], [i + 1, k + 1], 'east')
      if (!isIn(i, k + 1)) step([i + 1, k + 1], [i, k + 1], 'north')
      if (!isIn(i - 1, k)) step([i, k + 1], [i, k], 'west')
    }
  const used = new Map<string, number>()
  const named = (name: string): string => {
    const n = (used.get(name) ?? 0) + 1
    used.set(name, n)
    return n === 1 ? name : `${name}-${n}`
  }
  const loops: CornerAt[][] = []
  for (const start of steps.keys())
    while (steps.get(start)?.length) {
      const loop: { at: [number, number]; name: string }[] = []
      for (let at = start; ;) {
        const next = steps.get(at)?.shift()
        if (!next) break
        loop.push({ at: at.split(',').map(Number) as [number, number], name: next.name })
        at = next.to.join()
        if (at === start) break
      }
      // Where it goes straight on along one line there is no corner; of several rectangles along it the first one names the side.
      const n = loop.length
      const isTurn = (i: number) => {
        const [a, p, b] = [loop[(i + n - 1) % n], loop[i], loop[(i + 1) % n]]
        return ([0, 1] as const).every((k) => !(a?.at[k] === p?.at[k] && p?.at[k] === b?.at[k]))
      }
      const turns = loop.flatMap((p, i) => {
        if (!isTurn(i)) return []
        const run = [p.name]
        for (let k = i + 1; !isTurn(k % n); k++) run.push(loop[k % n]?.name ?? '')
        const order = (name: string) => boxes.findIndex((b) => name.startsWith(`${b.id}-`))
        return [{ at: p.at, name: run.reduce((a, b) => (order(b) < order(a) ? b : a)) }]
      })
      loops.push(
        turns.map(({ at: [i, k], name }) => ({
          id: named(name),
          at: [xs[i] as number, ys[k] as number] as Vec2,
          bulge: 0,
        })),
      )
    }
  return loops
}

/** The values in order, those that touch as one. */
const lines = (values: number[]): number[] =>
  values.sort((a, b) => a - b).filter((x, i, all) => i === 0 || x - (all[i - 1] as number) > TOLERANCE.touch)

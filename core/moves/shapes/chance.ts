import * as v from 'valibot'
import { TOLERANCE, type Vec2 } from '../../solid'
import { NumSchema, refuse, tidy, type Num } from '../../values'
import { atLeastAMillimetre } from '../sizes'
import type { ShapeKind } from './kind'

export interface Chance {
  kind: 'chance'
  width: Num
  depth: Num
  /** a whole number: the same gives the same footprint again */
  seed: Num
}

/**
 * A footprint of right angles drawn by chance from a number: a run of rooms that steps in and out within a width and a depth. Sides are
 * named e1, e2 ... from the south-west, counter-clockwise.
 */
export const chance: ShapeKind<Chance> = {
  kind: 'chance',
  schema: v.strictObject({ kind: v.literal('chance'), width: NumSchema, depth: NumSchema, seed: NumSchema }),
  numbers: (s) => [
    [s.width, 'length'],
    [s.depth, 'length'],
    [s.seed, 'number'],
  ],
  corners: (s, numbers) => {
    const [w, d] = [numbers.length(s.width), numbers.length(s.depth)]
    const next = drawn(Math.round(numbers.value(s.seed, 'number')))
    const between = (low: number, high: number) => low + next() * (high - low)
    const bays = 3 + Math.floor(next() * 4)
    const wide = Array.from({ length: bays }, () => between(0.6, 1.6))
    const all = wide.reduce((a, b) => a + b, 0)
    // Each bay reaches over the middle, so that all hang together.
    const reach = wide.map((): [number, number] => [between(0, 0.38), between(0.62, 1)])
    // Somewhere it reaches all the way.
    ;(reach[Math.floor(next() * bays)] as [number, number])[0] = 0
    ;(reach[Math.floor(next() * bays)] as [number, number])[1] = 1
    apart(reach, (2 * TOLERANCE.touch) / Math.max(d, TOLERANCE.least))
    const xs = wide.reduce<number[]>((out, part) => [...out, (out.at(-1) as number) + (part / all) * w], [0])
    const along = (end: 0 | 1): Vec2[] =>
      reach.flatMap((r, i): Vec2[] => [
        [xs[i] as number, r[end] * d],
        [xs[i + 1] as number, r[end] * d],
      ])
    return [...along(0), ...along(1).reverse()].map(([x, y], i) => ({
      id: `e${i + 1}`,
      at: [tidy(x), tidy(y)],
      bulge: 0,
    }))
  },
  check: (s, name, numbers) => {
    atLeastAMillimetre(numbers.length(s.width), `The width of ${name}`)
    atLeastAMillimetre(numbers.length(s.depth), `The depth of ${name}`)
    const seed = numbers.value(s.seed, 'number')
    if (!Number.isInteger(seed) || Math.abs(seed) > 1e9)
      refuse('size', `The number that ${name} is drawn from is ${seed}.`, 'Type a whole number.')
  },
}

/** Puts bays that would reach equally far apart by a little: two corners would lie at one place. What reaches all the way stays. */
function apart(reach: [number, number][], least: number): void {
  for (const end of [0, 1] as const)
    for (let i = 1; i < reach.length; i++) {
      const [a, b] = [reach[i - 1], reach[i]] as [[number, number], [number, number]]
      if (Math.abs(a[end] - b[end]) >= least) continue
      const moved = b[end] === end ? a : b
      moved[end] += end === 0 ? STEP : -STEP
    }
}
/** of the depth */
const STEP = 0.05

/** Numbers from 0 to 1, the same again from the same seed (a linear congruence of 32 bits). */
function drawn(seed: number): () => number {
  let state = (Math.imul(seed, 2654435761) ^ 0x5bd1e995) >>> 0
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32
  }
}

import * as v from 'valibot'
import { TOLERANCE } from '../solid'
import {
  IdSchema,
  LevelHeightSchema,
  NumSchema,
  refuse,
  tidy,
  type AtLevel,
  type Num,
  type Quantity,
  type StandingNumbers,
} from '../values'
import { heightAtLevel } from './at-level'

/** What of a form a move acts on: between two heights or levels (`to` null without a level: up to the top), or on chosen storeys. */
export const SpanSchema = v.variant('of', [
  v.strictObject({
    of: v.literal('heights'),
    from: NumSchema,
    fromLevel: v.nullable(LevelHeightSchema),
    to: v.nullable(NumSchema),
    toLevel: v.nullable(LevelHeightSchema),
  }),
  v.strictObject({
    of: v.literal('storeys'),
    /** the levels that they stand on */
    levels: v.pipe(
      v.array(IdSchema),
      v.minLength(1, 'Choose at least one storey.'),
      v.maxLength(500, 'At most 500 storeys are chosen.'),
    ),
  }),
])
export type Span = v.InferOutput<typeof SpanSchema>

/** Heights of a form that a move acts on, m above the mass's base, from the lowest up and apart from one another. */
export type Ranges = [from: number, to: number][]

export const spanNumbers = (span: Span | undefined): [Num, Quantity][] =>
  span?.of === 'heights'
    ? [span.from, span.to, span.fromLevel?.above, span.toLevel?.above].flatMap((num): [Num, Quantity][] =>
        num === null || num === undefined ? [] : [[num, 'length']],
      )
    : []

export const spanTies = (span: Span | undefined): AtLevel[] =>
  span?.of === 'heights'
    ? [span.fromLevel, span.toLevel].flatMap((l) => l ?? [])
    : (span?.levels ?? []).map((level) => ({ level, above: 0 }))

/** The span with its ties to levels replaced; storeys that become one count once. */
export function spanRetied(span: Span, tie: (at: AtLevel) => AtLevel): Span {
  if (span.of === 'heights')
    return { ...span, fromLevel: span.fromLevel && tie(span.fromLevel), toLevel: span.toLevel && tie(span.toLevel) }
  return { ...span, levels: [...new Set(span.levels.map((level) => tie({ level, above: 0 }).level))] }
}

/** What a span hangs on, as text. */
export const spanText = (span: Span | undefined, numbers: StandingNumbers): string =>
  span ? JSON.stringify(rangesOf(span, numbers)) : ''

const WHERE = 'A move acts from'

/** The heights that a span means, m above the mass's base; the last may end at Infinity, its top. Errors: 'unknown-id'. */
export function rangesOf(span: Span, numbers: StandingNumbers): Ranges {
  if (span.of === 'heights') {
    const from = span.fromLevel ? heightAtLevel(span.fromLevel, numbers, WHERE) : numbers.length(span.from)
    const to = span.toLevel
      ? heightAtLevel(span.toLevel, numbers, WHERE)
      : span.to === null
        ? Infinity
        : numbers.length(span.to)
    return [[from, to]]
  }
  const all = [...numbers.heights.values()].map((h) => tidy(h - numbers.base)).sort((a, b) => a - b)
  const chosen = span.levels
    .map((level) => heightAtLevel({ level, above: 0 }, numbers, WHERE))
    .sort((a, b) => a - b)
    .map((from): [number, number] => [from, all.find((z) => z > from + TOLERANCE.height) ?? Infinity])
  return chosen.reduce<Ranges>((out, [from, to]) => {
    const last = out.at(-1)
    if (last && from <= last[1] + TOLERANCE.height) last[1] = Math.max(last[1], to)
    else out.push([from, to])
    return out
  }, [])
}

/** What of the ranges lies within a form from z0 to z1 (m). Errors: 'geometry' where nothing does. */
export function within(ranges: Ranges, [z0, z1]: readonly [number, number], name: string): Ranges {
  const inside = ranges
    .map(([from, to]): [number, number] => [Math.max(z0, from), Math.min(z1, to)])
    .filter(([from, to]) => to - from > TOLERANCE.least)
  return inside.length
    ? inside
    : refuse(
        'geometry',
        `The heights that are chosen lie outside of "${name}", which stands from ${tidy(z0)} to ${tidy(z1)} m.`,
        'Choose heights or storeys that it stands on.',
      )
}

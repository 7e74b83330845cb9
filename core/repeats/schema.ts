import * as v from 'valibot'
import { checkFields, entriesOf, MoveSchema, times, type Fielded, type Fields } from '../moves'
import {
  FiniteSchema,
  IdSchema,
  NameSchema,
  NumSchema,
  refuse,
  TOLERANCE,
  type Num,
  type Numbers,
  type StandingNumbers,
} from '../values'
import type { Place, PlanAt, Step } from './ways/kind'
import { wayKind, WAYS, type Way } from './ways/list'

/** Which one of a repeat, by its key: it stays what it is when others come or go. */
const KeySchema = v.pipe(v.string(), v.regex(/^[0-9a-zA-Z-]{1,120}$/, 'A key is made of letters, digits and dashes.'))

/** A way to repeat in plan. */
export const WaySchema = v.variant(
  'way',
  WAYS.map((k) => v.strictObject({ way: v.literal(k.way), ...entriesOf(k.fields as Fields<never>) })) as never,
) as unknown as v.GenericSchema<unknown, Way>

/** Up the storeys: on those above the original's own, each as high as its storey, or as it was drawn. */
const UpSchema = v.strictObject({
  /** how many storeys in all; null: as many as there are */
  storeys: v.nullable(NumSchema),
  high: v.picklist(['storey', 'drawn']),
  /** by how many places each storey begins later than the one below */
  shift: NumSchema,
})
export type Up = v.InferOutput<typeof UpSchema>

/** What one of a repeat has of its own, by its key; by `last`, whichever is the last of a storey. */
const OwnSchema = v.strictObject({
  use: v.nullable(IdSchema),
  /** m that it is raised */
  high: v.optional(v.pipe(FiniteSchema, v.minValue(TOLERANCE.least, 'A height is at least a millimetre.'))),
  /** moves behind those of the original */
  moves: v.optional(v.pipe(v.array(v.lazy(() => MoveSchema)), v.maxLength(100))),
})
export type OwnOfRepeat = v.InferOutput<typeof OwnSchema>

/**
 * Masses that stand there many times: where, by a way; on which storeys; every how many-th of them. They are computed, never stored, and
 * linked to what they repeat; exceptions are kept by key.
 */
export const RepeatSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: v.pipe(FiniteSchema),
  of: v.pipe(v.array(IdSchema), v.minLength(1, 'A repeat is of at least one mass.'), v.maxLength(200)),
  way: WaySchema,
  up: v.nullable(UpSchema),
  /** every how many-th place is taken, from the original */
  every: NumSchema,
  /** which of the places, besides */
  which: v.optional(v.picklist(['all', 'chessboard', 'inner', 'ends']), 'all'),
  /** every other one is mirrored through its own middle */
  mirrored: v.optional(v.boolean(), false),
  out: v.array(KeySchema),
  own: v.record(KeySchema, OwnSchema),
})
export type Repeat = v.InferOutput<typeof RepeatSchema>

/** What all repeats ask for, besides their way. */
export const REPEAT_FIELDS: Fields<Repeat> = {
  every: times('every how many-th', { from: 1, to: 500 }),
  which: {
    is: 'choice',
    label: 'and of these',
    options: [
      { value: 'all', label: 'all' },
      { value: 'chessboard', label: 'like a chessboard' },
      { value: 'inner', label: 'all but the two ends' },
      { value: 'ends', label: 'the two ends only' },
    ],
  },
}
export const UP_FIELDS: Fields<Up> = {
  storeys: times('storeys in all', { otherwise: 'as many as there are', from: 1, to: 500 }),
  high: {
    is: 'choice',
    label: 'each as high as',
    options: [
      { value: 'drawn', label: 'it was drawn' },
      { value: 'storey', label: 'its storey' },
    ],
  },
  shift: times('each storey later by', { hint: 'Places by which it begins later than the storey below.' }),
}

/** The numbers of a repeat are refused where they make no sense. Errors: 'size', those of formulas. */
export function checkRepeat(repeat: Repeat, numbers: StandingNumbers): void {
  const what = `"${repeat.name}"`
  checkFields(wayKind(repeat.way).fields as Fields<never>, repeat.way as unknown as Fielded, what, numbers)
  checkFields(REPEAT_FIELDS as Fields<never>, repeat as unknown as Fielded, what, numbers)
  if (repeat.up) checkFields(UP_FIELDS as Fields<never>, repeat.up as unknown as Fielded, what, numbers)
  for (const num of countsOf(repeat))
    if (!Number.isInteger(numbers.value(num, 'number')))
      refuse('size', `A count of ${what} is ${numbers.value(num, 'number')}.`, 'Type a whole number.')
}

/** The numbers of a repeat that count. */
function countsOf({ way, up, every }: Repeat): Num[] {
  const own =
    way.way === 'grid' ? [way.columns, way.rows] : way.way === 'once' || way.way === 'points' ? [] : [way.count]
  return [...own, every, ...(up ? [up.shift, ...(up.storeys === null ? [] : [up.storeys])] : [])]
}

/** All places of a way, the original's first. Errors: those of formulas. */
export const onesOfWay = (way: Way, numbers: Numbers, planAt: PlanAt): Place[] =>
  wayKind(way).places(way, numbers, planAt)

/** The remainder of a over b, never below zero. */
const over = (a: number, b: number): number => ((a % b) + b) % b

/** One of a repeat: where in plan, and how many storeys up. */
export interface One {
  key: string
  step: Step
  /** mirrored through its own middle */ mirrored: boolean
  /** the last of those on its storey */ last: boolean
  storey: number
}

/**
 * All that a repeat makes of one storey's original, without that: keys are those of the way, and with storeys the level's behind it.
 * `storeys`: the ids of the levels from the original's own up.
 */
export function onesOf(repeat: Repeat, storeys: readonly string[], numbers: Numbers, planAt: PlanAt): One[] {
  const kind = wayKind(repeat.way)
  const places = kind.places(repeat.way, numbers, planAt)
  const every = Math.max(1, Math.round(numbers.value(repeat.every, 'number')))
  const { up } = repeat
  const many = up ? (up.storeys === null ? storeys.length : Math.round(numbers.value(up.storeys, 'number'))) : 1
  const levels = up ? storeys.slice(0, many) : storeys.slice(0, 1)
  const shift = up ? Math.round(numbers.value(up.shift, 'number')) : 0
  const isOriginalAt = (nth: number, storey: number) => storey === 0 && nth === 0
  const isOneOf = (key: string, nth: number, storey: number) =>
    over(nth - shift * storey, every) === 0 && isTaken(repeat.which, key, nth, places.length, storey)
  return levels.flatMap((level, storey) => {
    const ones = places
      .filter(({ key, nth }) => isOriginalAt(nth, storey) || isOneOf(key, nth, storey))
      // Every second one of those that stand there, so that a repeat of every second place has mirrored ones too.
      .flatMap(({ key, nth, step }, i): One[] => {
        if (isOriginalAt(nth, storey)) return []
        const mirrored = repeat.mirrored && (i + storey) % 2 === 1
        return [{ key: up ? `${key}-${level}` : key, step, storey, mirrored, last: false }]
      })
    return ones.map((one, i) => ({ ...one, last: i === ones.length - 1 }))
  })
}

/** Whether a place is one of those that are chosen. */
function isTaken(which: Repeat['which'], key: string, nth: number, many: number, storey: number): boolean {
  if (which === 'all') return true
  const isEnd = nth === 0 || nth === many - 1
  if (which !== 'chessboard') return isEnd === (which === 'ends')
  const [column, row] = key.split('-').map(Number)
  const place = row !== undefined && Number.isInteger(column) && Number.isInteger(row) ? (column ?? 0) + row : nth
  return (place + storey) % 2 === 0
}

/** What a repeat has to say of itself: a ring that every so many-th cannot close; storeys that are not there. */
export function remarksOn(
  repeat: Repeat,
  storeys: readonly string[],
  numbers: Numbers,
  planAt: PlanAt,
): { say: string; remedy: string }[] {
  const ring = wayKind(repeat.way).ring?.(repeat.way, numbers, planAt) ?? null
  const every = Math.round(numbers.value(repeat.every, 'number'))
  const said: { say: string; remedy: string }[] = []
  if (ring !== null && every > 1 && ring % every !== 0) {
    const can = Array.from({ length: ring }, (_, i) => i + 1).filter((n) => n > 1 && n < ring && ring % n === 0)
    said.push({
      say: `Every ${nth(every)} of the ${ring} of "${repeat.name}" cannot close: the last stands beside the first.`,
      remedy: can.length
        ? `Every ${can.map(nth).join(', or every ')} closes; or take another number in all.`
        : `${ring} cannot be parted: take another number in all, or every one.`,
    })
  }
  const { up } = repeat
  const many = up && up.storeys !== null ? Math.round(numbers.value(up.storeys, 'number')) : 0
  if (many > storeys.length)
    said.push({
      say: `"${repeat.name}" goes up ${many} storeys, and there are ${storeys.length} from its own on.`,
      remedy: 'Add levels, or let it go up fewer.',
    })
  return said
}

const nth = (n: number): string => (n === 2 ? 'second' : n === 3 ? 'third' : `${n}th`)

import * as v from 'valibot'
import { entriesOf, MoveSchema, numbersIn, withTies, type Fielded, type Fields } from '../moves'
import {
  FiniteSchema,
  IdSchema,
  LevelHeightSchema,
  NameSchema,
  PlaceSchema,
  type AtLevel,
  type Id,
  type Num,
  type Quantity,
} from '../values'
import { stepKind, STEPS, type Step } from './steps/list'

/** Which of a rule's bodies, by its key: it stays what it is when others come or go. */
const KeySchema = v.pipe(
  v.string(),
  v.regex(/^[0-9a-zA-Z.-]{1,120}$/, 'A key is made of letters, digits, dots and dashes.'),
)

const StepSchema = v.variant(
  'step',
  STEPS.map((k) =>
    v.strictObject({
      id: IdSchema,
      step: v.literal(k.step),
      on: v.boolean(),
      of: v.nullable(IdSchema),
      others: v.boolean(),
      ...entriesOf(k.fields as Fields<never>),
      ...('entries' in k ? (k.entries as Record<string, v.GenericSchema<unknown, unknown>>) : {}),
      ...(k.step === 'side' ? { found: v.nullable(FiniteSchema) } : {}),
    }),
  ) as never,
) as unknown as v.GenericSchema<unknown, Step>

/** What one of a rule's bodies has of its own: what a person gave it, instead of what the rule does. */
const OwnSchema = v.strictObject({
  name: v.optional(NameSchema),
  use: v.optional(IdSchema),
  material: v.optional(v.nullable(IdSchema)),
  faces: v.optional(v.record(v.string(), IdSchema)),
  /** m that it is lifted */
  up: v.optional(FiniteSchema),
  /** moves behind those of the rule */
  moves: v.optional(v.pipe(v.array(v.lazy(() => MoveSchema)), v.maxLength(100))),
})
export type Own = v.InferOutput<typeof OwnSchema>

/** A body that was frozen: its mass, and what the rule had given it then. */
const FrozenSchema = v.strictObject({
  mass: IdSchema,
  name: NameSchema,
  use: IdSchema,
  material: v.nullable(IdSchema),
  faces: v.record(v.string(), IdSchema),
  moves: v.array(IdSchema),
})

/**
 * A form that is said once and grows from numbers: a list of steps, each reading from those above it. Its bodies are computed, never
 * stored, until it is frozen; what is given to one of them is kept by key.
 */
export const RuleSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: FiniteSchema,
  use: IdSchema,
  base: LevelHeightSchema,
  place: PlaceSchema,
  steps: v.pipe(v.array(StepSchema), v.maxLength(200, 'A rule has at most 200 steps.')),
  /** how many bodies it may make */
  most: v.pipe(FiniteSchema, v.integer(), v.minValue(1), v.maxValue(20000, 'A rule makes at most 20,000 bodies.')),
  out: v.array(KeySchema),
  own: v.record(KeySchema, OwnSchema),
  /** null while it grows; else what it grew, by key, as masses of their own */
  frozen: v.nullable(v.record(KeySchema, FrozenSchema)),
})
export type Rule = v.InferOutput<typeof RuleSchema>

/** The numbers of a step, in a fixed order. */
export const stepNumbers = (step: Step): [Num, Quantity][] => {
  const kind = stepKind(step)
  return kind.numbers?.(step) ?? numbersIn(kind.fields as Fields<never>, step as unknown as Fielded)
}

/** What of a rule changes where ties to levels are replaced: its base, and the moves that are tied; null where nothing does. */
export function ruleRetied(rule: Rule, tie: (at: AtLevel) => AtLevel): Partial<Pick<Rule, 'base' | 'steps'>> | null {
  const base = tie(rule.base)
  const steps = rule.steps.map((s): Step => {
    if (s.step !== 'move') return s
    const [move] = withTies([s.move], tie)
    return move && JSON.stringify(move) !== JSON.stringify(s.move) ? { ...s, move } : s
  })
  const set = {
    ...(base !== rule.base ? { base } : {}),
    ...(steps.some((s, i) => s !== rule.steps[i]) ? { steps } : {}),
  }
  return Object.keys(set).length ? set : null
}

/** All numbers of a rule but those of its frame. */
export const ruleNumbers = (rule: Rule): [Num, Quantity][] => rule.steps.flatMap(stepNumbers)

/** The numbers by name that a rule's steps give, for the formulas below them. */
export const givenIn = (rule: Pick<Rule, 'steps'>): { id: Id; name: string; quantity: Quantity }[] =>
  rule.steps.flatMap((s) => {
    const gives = stepKind(s).gives?.(s)
    return gives ? [{ id: s.id, ...gives }] : []
  })

import * as v from 'valibot'
import { IdSchema, type Num, type Quantity } from '../values'
import {
  checkFields,
  entriesOf,
  heightsIn,
  massesIn,
  numbersIn,
  retiedIn,
  tiesIn,
  type Fielded,
  type Fields,
} from './fields'
import type { MoveBase, MoveKind } from './kind'
import { rangesOf, spanNumbers, spanRetied, SpanSchema, spanText, spanTies } from './span'

type Derived = 'schema' | 'numbers' | 'inner' | 'ties' | 'retied' | 'reads' | 'check'

/** A kind of move that is said by its fields: its schema, numbers and ties to levels follow from them, and from its span. */
export function moveKind<M extends MoveBase>(
  said: Omit<MoveKind<M>, Derived> & {
    check?: MoveKind<M>['check']
    /** what it has besides its fields: schemas by key, and its numbers */
    more?: { entries: Record<string, v.GenericSchema<unknown, unknown>>; numbers(move: M): [Num, Quantity][] }
  },
): MoveKind<M> {
  const fields = said.fields as Fields<never>
  const of = (move: M) => move as unknown as Fielded
  return {
    ...said,
    schema: () =>
      v.strictObject({
        id: IdSchema,
        on: v.boolean(),
        move: v.literal(said.move),
        ...entriesOf(fields),
        ...said.more?.entries,
        ...(said.spans ? { span: v.optional(SpanSchema) } : {}),
      }) as unknown as v.GenericSchema<unknown, M>,
    numbers: (m) => [...numbersIn(fields, of(m)), ...(said.more?.numbers(m) ?? []), ...spanNumbers(m.span)],
    inner: () => null,
    ties: (m) => [...tiesIn(fields, of(m)), ...spanTies(m.span)],
    retied: (m, tie) => ({
      ...(retiedIn(fields, of(m), tie) as unknown as M),
      ...(m.span ? { span: spanRetied(m.span, tie) } : {}),
    }),
    reads: (m) => massesIn(fields, of(m)),
    dependsOn: (m, numbers) =>
      `${heightsIn(fields, of(m), numbers)}${spanText(m.span, numbers)}${said.dependsOn?.(m, numbers) ?? ''}`,
    check: (m, context) => {
      checkFields(fields, of(m), `${said.called.replace(/^an? /, 'the ')} of "${context.name}"`, context.numbers)
      if (m.span) rangesOf(m.span, context.numbers)
      said.check?.(m, context)
    },
  }
}

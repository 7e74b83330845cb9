import type { Span } from '@geotome/core/moves'
import { ChoiceField } from '../../common/fields'
import { StoreyChecks } from '../StoreyChecks'
import { useLevelsAbove } from './choices'
import { FieldList } from './FieldList'

const BETWEEN = {
  from: { is: 'height', label: 'from', level: 'fromLevel' },
  to: { is: 'height', label: 'up to', level: 'toLevel', otherwise: 'its top' },
} as const

/** What of the form a move acts on: all of it, what lies between two heights, or chosen storeys. */
export function SpanFields({
  span,
  set,
  attempt,
}: {
  span: Span | undefined
  set: (span: Span | undefined) => boolean
  attempt: (span: Span | undefined | null) => void
}) {
  const storeys = useLevelsAbove()
  const first = storeys[0]
  return (
    <>
      <ChoiceField
        label="acts on"
        value={span?.of ?? 'all'}
        options={[
          { value: 'all' as const, label: 'all of it' },
          { value: 'heights' as const, label: 'between heights' },
          ...(first ? [{ value: 'storeys' as const, label: 'chosen storeys' }] : []),
        ]}
        onChange={(of) =>
          set(
            of === 'all'
              ? undefined
              : of === 'heights'
                ? { of, from: 0, fromLevel: null, to: 3, toLevel: null }
                : { of, levels: first ? [first.id] : [] },
          )
        }
      />
      {span?.of === 'heights' && (
        <FieldList
          fields={BETWEEN}
          thing={span}
          recipe={[]}
          set={(to) => set({ ...span, ...to })}
          attempt={(to) => attempt(to && { ...span, ...to })}
        />
      )}
      {span?.of === 'storeys' && (
        <StoreyChecks
          label="storeys that it acts on"
          storeys={storeys}
          isIn={(id) => span.levels.includes(id)}
          isFixed={(id) => span.levels.length === 1 && span.levels.includes(id)}
          onToggle={(id) =>
            set({
              ...span,
              levels: span.levels.includes(id) ? span.levels.filter((l) => l !== id) : [...span.levels, id],
            })
          }
        />
      )}
    </>
  )
}

import type { Span } from '@geotome/core/moves'
import { showNumber } from '@geotome/core/project'
import { useProject } from '../../app/hooks'
import { ChoiceField } from '../../common/fields'
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
  const { project } = useProject()
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
        <ul
          aria-label="storeys that it acts on"
          className="mb-1.5 max-h-36 overflow-auto rounded-md border border-line bg-field px-2.5 py-1"
        >
          {[...storeys].reverse().map((l) => {
            const isIn = span.levels.includes(l.id)
            return (
              <li key={l.id}>
                <label className="flex cursor-pointer items-center justify-between py-[3px]">
                  <span>
                    {l.name} <span className="text-ink2">{showNumber(l.height, 'length', project)}</span>
                  </span>
                  <input
                    type="checkbox"
                    className="checkbox checkbox-xs"
                    checked={isIn}
                    disabled={isIn && span.levels.length === 1}
                    onChange={() =>
                      set({ ...span, levels: isIn ? span.levels.filter((id) => id !== l.id) : [...span.levels, l.id] })
                    }
                  />
                </label>
              </li>
            )
          })}
        </ul>
      )}
    </>
  )
}

import { inOrder, MEASURES, numbersOf, showQuantity, type MeasureKind } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { Figure, Section } from '../common/fields'
import { PointFields } from './PointFields'
import type { PanelOf } from './tasks/kind'
import { isComplete, measuredOf, type Measuring } from './tasks/measure'

const KINDS = Object.keys(MEASURES) as MeasureKind[]

/** Lengths, heights, angles, radii and areas on a picture; each is kept under a name that every field takes. */
export function MeasurePanel({ picture: p, state, hint, send }: PanelOf<Measuring>) {
  const { project, scheme } = useProject()
  const { points, kind, fromCentre } = state
  const change = (set: Partial<Measuring>) => send({ kind: 'change', set })
  const numbers = numbersOf(project, null)
  const {
    quantity,
    points: [, most],
  } = MEASURES[kind]
  const kept = inOrder(project.measures).filter((m) => m.picture === p.id)
  const value = measuredOf(state, { project, scheme, picture: p, mint: () => '' })
  return (
    <>
      <div className="mb-2 flex flex-wrap gap-1" role="group" aria-label="What is measured">
        {KINDS.map((k) => (
          <button
            key={k}
            className="btn btn-xs rounded-full font-normal px-2"
            aria-pressed={k === kind}
            onClick={() => change({ kind: k })}
          >
            {k}
          </button>
        ))}
      </div>
      <p className="mb-2 text-[12px] text-ink2" role="status" data-hint>
        {hint}
      </p>
      {kind === 'radius' && (
        <div className="mb-2 flex gap-1" role="group" aria-label="The circle by">
          {(
            [
              ['three points', false],
              ['centre and rim', true],
            ] as const
          ).map(([label, v]) => (
            <button
              key={label}
              className="btn btn-xs rounded-full font-normal flex-1 px-1"
              aria-pressed={fromCentre === v}
              onClick={() => change({ fromCentre: v })}
            >
              {label}
            </button>
          ))}
        </div>
      )}
      {value !== null && (
        <p className="mb-2 text-[22px] font-bold" data-live>
          {showQuantity(value, quantity, project)}
        </p>
      )}
      {kind !== 'area' && !(kind === 'radius' && fromCentre) && (
        <PointFields points={points} count={most} onChange={(all) => change({ points: all })} />
      )}
      {isComplete(state) && value !== null && (
        <button className="btn btn-sm mb-3 w-full" onClick={() => send({ kind: 'accept' })}>
          Keep it
        </button>
      )}
      <Section title="Measured on it">
        {kept.length === 0 && <p className="text-ink2">Nothing yet.</p>}
        {kept.map((m) => (
          <Figure key={m.id} label={m.name}>
            <span data-measure={m.name}>
              {showQuantity(
                numbers.value({ formula: `{${m.id}}` }, MEASURES[m.kind].quantity),
                MEASURES[m.kind].quantity,
                project,
              )}
            </span>
          </Figure>
        ))}
      </Section>
    </>
  )
}

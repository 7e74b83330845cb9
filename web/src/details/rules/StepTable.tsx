import { planArea } from '@geotome/core/solid'
import { numbersOf, showNumber, showQuantity } from '@geotome/core/project'
import { givenIn, inRule, planNow, type Cell, type Rule, type Step, type Traced } from '@geotome/core/rules'
import { useProject } from '../../app/hooks'
import { useAppDispatch, useAppSelector } from '../../app/store'
import { lookedAt } from '../../app/view-slice'
import { LinkButton } from '../../common/LinkButton'

/** Rows that are shown at most. */
const ROWS = 200

/** What a step made, as a table: each with what it has; the one under the pointer is lit up on the stage. */
export function StepTable({
  rule,
  step,
  traced,
  change,
}: {
  rule: Rule
  step: Step
  traced: Traced
  change: (set: object) => boolean
}) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const key = useAppSelector((s) => s.view.looking?.key ?? null)
  const numbers = numbersOf(project, scheme)
  const names = givenIn(rule).filter((g) => traced.cells.some((c) => c.given[g.id] !== undefined))
  const areas = traced.cells.map((c) => planArea(planNow(c, numbers)))
  const chooses = step.step === 'choose'
  const named = step.step === 'side'
  const chosen = traced.cells.filter((c) => c.chosen.includes(step.id)).length
  const found = traced.cells.filter((c) => c.sides[step.id] !== undefined).length
  const light = (at: string | null) => dispatch(lookedAt({ rule: rule.id, step: step.id, key: at }))
  return (
    <div className="mt-1.5 mb-1" onPointerLeave={() => light(null)}>
      <p className="mb-0.5 text-[11px] text-ink2">
        {traced.cells.length} in all,{' '}
        {showQuantity(
          areas.reduce((a, b) => a + b, 0),
          'area',
          project,
        )}{' '}
        in plan
        {chooses && `, ${chosen} chosen`}
        {named && `, ${found} found`}
      </p>
      {step.step === 'side' && step.found !== found && (
        <p className="mb-0.5 text-[11px] text-ink2">
          <LinkButton onClick={() => change({ found })}>Take {found} as looked at</LinkButton>, and be told when it is
          another number.
        </p>
      )}
      <div className="max-h-56 overflow-auto">
        <table
          className="w-full text-right text-[11px] tabular-nums [&_td]:pl-1.5 [&_td]:whitespace-nowrap [&_th]:pl-1.5 [&_td:first-child]:pl-0 [&_th:first-child]:pl-0"
          aria-label="what the step makes"
        >
          <thead className="sticky top-0 bg-field text-ink2">
            <tr>
              <th className="text-left font-normal">which</th>
              <th className="font-normal">east, north</th>
              <th className="font-normal">area</th>
              {names.map((g) => (
                <th key={g.id} className="font-normal">
                  {g.name}
                </th>
              ))}
              {(chooses || named) && <th className="font-normal">{chooses ? 'chosen' : 'side'}</th>}
            </tr>
          </thead>
          <tbody>
            {traced.cells.slice(0, ROWS).map((c, i) => (
              <tr
                key={c.key}
                tabIndex={0}
                aria-selected={key === c.key}
                className={`cursor-default outline-none ${key === c.key ? 'bg-paper font-semibold' : ''}`}
                onPointerEnter={() => light(c.key)}
                onFocus={() => light(c.key)}
              >
                <td className="text-left">{c.label ?? c.key}</td>
                <td>{placeOf(c, project)}</td>
                <td>{showNumber(areas[i] ?? 0, 'area', project)}</td>
                {names.map((g) => (
                  <td key={g.id}>
                    {c.given[g.id] === undefined ? '' : showQuantity(c.given[g.id] ?? 0, g.quantity, project)}
                  </td>
                ))}
                {chooses && <td>{c.chosen.includes(step.id) ? 'yes' : ''}</td>}
                {named && <td>{c.sides[step.id] ?? 'none'}</td>}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {traced.cells.length > ROWS && <p className="text-[11px] text-ink2">and {traced.cells.length - ROWS} more</p>}
    </div>
  )
}

const placeOf = (c: Cell, project: Parameters<typeof showNumber>[2]): string =>
  inRule(c, [0, 0])
    .map((v) => showNumber(Math.round(v * 100) / 100, 'length', project).replace(/\.?0+$/, ''))
    .join(', ')

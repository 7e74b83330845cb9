import { useState } from 'react'
import { Plus } from 'lucide-react'
import { newStep, withStepBehind } from '@geotome/core/form'
import { beginningOf, kindOfMove, MOVES, moveTitle, type Field, type Move, type MoveKind } from '@geotome/core/moves'
import { inOrder, numbersOf } from '@geotome/core/project'
import { outlineMove, STEPS, type Rule, type RuleRun, type Step } from '@geotome/core/rules'
import { useProject } from '../../app/hooks'
import { makeEdit } from '../../app/session'
import { useAppDispatch, useAppSelector } from '../../app/store'
import { lookedAt } from '../../app/view-slice'
import { worldNow } from '../../tools/at-work'
import { mint } from '../moves/kind'

const GROUPS = [
  ['plan', 'in plan'],
  ['shape', 'shape'],
  ['roof', 'roof'],
] as const

/** What can be put behind the last step, or behind the one that is looked at. */
export function AddStep({ rule, run }: { rule: Rule; run: RuleRun }) {
  const [open, setOpen] = useState(false)
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const looking = useAppSelector((s) => s.view.looking)
  const at = looking?.rule === rule.id ? rule.steps.findIndex((s) => s.id === looking.step) : -1
  const behind = at < 0 ? rule.steps.length - 1 : at
  // The side that was named last is the one that is meant.
  const side = rule.steps.slice(0, behind + 1).findLast((s) => s.step === 'side')?.id ?? null
  const mass = inOrder(scheme.masses)[0]?.id ?? null
  const add = (step: Step) => {
    const last = rule.steps[behind]?.id ?? null
    if (makeEdit(`step for ${rule.name}`, () => withStepBehind(worldNow()?.scheme ?? scheme, rule.id, step, last))) {
      setOpen(false)
      dispatch(lookedAt({ rule: rule.id, step: step.id, key: null }))
    }
  }
  const first = run.trace.at(-1)?.cells[0]
  const moves = (group: string): { title: string; move: Move }[] => {
    const recipe: Move[] = first ? [outlineMove(first), ...first.moves] : []
    const begins = beginningOf(recipe, numbersOf(project, scheme))
    return (MOVES as unknown as MoveKind<Move>[])
      .filter((k) => k.group === group && k.move !== 'strips')
      .flatMap((k) => {
        const fields = k.starts?.(begins)
        if (!fields) return []
        const move = { id: 'm', move: k.move, on: true, ...fields } as unknown as Move
        return [{ title: moveTitle(move), move }]
      })
  }
  return (
    <div className="mt-1">
      <button className="btn btn-sm h-7 w-full text-[12px]" aria-expanded={open} onClick={() => setOpen(!open)}>
        <Plus size={13} /> A step behind step {behind + 1}
      </button>
      {open && (
        <div className="mt-1 rounded-md border border-line p-1.5" role="group" aria-label="kinds of step">
          {STEPS.filter((k) => k.step !== 'move' && (mass || !needsMass(k.fields))).map((k) => (
            <button
              key={k.step}
              className="flex w-full cursor-pointer gap-2 rounded px-1.5 py-0.5 text-left text-[12px] hover:bg-field"
              onClick={() =>
                add(newStep(k.step, mint, k.step === 'strips' ? { side } : needsMass(k.fields) ? { mass } : {}))
              }
            >
              <b className="w-14 shrink-0 font-semibold">{k.called}</b>
              <span className="text-ink2">{k.about}</span>
            </button>
          ))}
          {GROUPS.map(([group, label]) => {
            const some = moves(group)
            return (
              some.length > 0 && (
                <p key={group} className="mt-1 flex gap-1.5 px-1.5">
                  <span className="w-14 shrink-0 pt-0.5 text-[11px] text-ink2">{label}</span>
                  <span className="flex flex-wrap gap-1">
                    {some.map(({ title, move }) => (
                      <button
                        key={move.move}
                        className="btn btn-xs h-5 px-1.5 text-[11px] font-normal"
                        title={kindOfMove(move).called}
                        onClick={() => add(newStep('move', mint, { move }))}
                      >
                        {title}
                      </button>
                    ))}
                  </span>
                </p>
              )
            )
          })}
        </div>
      )}
    </div>
  )
}

/** Whether a step cannot be without a mass. */
const needsMass = ({ mass }: { mass?: Field }): boolean => mass?.is === 'mass' && mass.otherwise === undefined

import { ChevronDown, ChevronUp, Eye, EyeOff, Power, X } from 'lucide-react'
import { batch, type SingleEdit } from '@geotome/core/edits'
import { withStep, withoutStep, changeRule } from '@geotome/core/form'
import type { Fielded, Fields } from '@geotome/core/moves'
import { planNow, stepKind, type Rule, type RuleRun, type Step } from '@geotome/core/rules'
import { inOrder, numbersOf } from '@geotome/core/project'
import { wayKind, WAYS, type Way } from '@geotome/core/repeats'
import { useProject } from '../../app/hooks'
import { makeEdit, tryEdit } from '../../app/session'
import { useAppDispatch, useAppSelector } from '../../app/store'
import { lookedAt } from '../../app/view-slice'
import { ChoiceField } from '../../common/fields'
import { worldNow } from '../../tools/at-work'
import { AnyShape } from '../OutlineFields'
import { FieldList } from '../moves/FieldList'
import { InlineChoice } from './inline-choices'
import { MoveStep } from './MoveStep'
import { Sentence } from './Sentence'
import { StepTable } from './StepTable'

interface Props {
  rule: Rule
  step: Step
  nth: number
  run: RuleRun
}

/** A step of a rule: its number, its sentence, and what it made, once it is looked at. */
export function StepRow({ rule, step, nth, run }: Props) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const looking = useAppSelector((s) => s.view.looking)
  const kind = stepKind(step)
  const now = () => worldNow()?.scheme ?? scheme
  const change = (set: object, also: SingleEdit[] = []) =>
    makeEdit(`step ${nth + 1} of ${rule.name}`, () => batch([...also, withStep(now(), rule.id, step.id, set)]))
  const attempt = (set: object | null) => tryEdit(set && (() => withStep(now(), rule.id, step.id, set)))
  const isLooked = looking?.rule === rule.id && looking.step === step.id
  const traced = run.trace.find((t) => t.step === step.id)
  const choosers = rule.steps
    .slice(0, nth)
    .flatMap((s, i) => (s.step === 'choose' ? [{ id: s.id, label: `step ${i + 1}` }] : []))
  const says = typeof kind.says === 'function' ? kind.says(step) : kind.says
  const first = run.trace.find((_, i) => run.trace[i + 1]?.step === step.id)?.cells[0] ?? traced?.cells[0]
  const sides = first
    ? (planNow(first, numbersOf(project, scheme))[0] ?? []).map(({ id }) => ({ value: id, label: id }))
    : []
  const move = (by: -1 | 1) => {
    const steps = [...(now().rules[rule.id]?.steps ?? [])]
    const [taken] = steps.splice(nth, 1)
    if (taken) steps.splice(nth + by, 0, taken)
    makeEdit(`order of ${rule.name}`, () => changeRule(now(), rule.id, { steps }))
  }
  return (
    <li
      className={`group relative -mx-2 rounded px-2 py-1 ${isLooked ? 'bg-field' : ''} ${step.on ? '' : 'opacity-50'}`}
      aria-label={`step ${nth + 1}`}
    >
      <div className="flex gap-1.5">
        <button
          className={`w-4 shrink-0 cursor-pointer self-start text-left text-[11px] leading-6 tabular-nums ${run.failed?.step === step.id ? 'text-error' : 'text-ink2'} hover:text-ink`}
          aria-pressed={isLooked}
          aria-label={`Look at step ${nth + 1}`}
          title="Look at what it makes"
          onClick={() => dispatch(lookedAt(isLooked ? null : { rule: rule.id, step: step.id, key: null }))}
        >
          {isLooked ? <EyeOff size={13} className="mt-1.5" /> : <span className="group-hover:hidden">{nth + 1}</span>}
          {!isLooked && <Eye size={13} className="mt-1.5 hidden group-hover:block" />}
        </button>
        <div className="min-w-0 flex-1 text-[13px]">
          {step.step === 'move' ? (
            <MoveStep rule={rule} step={step} first={first} sides={sides} change={change} attempt={attempt} />
          ) : (
            <Sentence
              says={says}
              fields={kind.fields as Fields<never>}
              thing={step as unknown as Fielded}
              sides={sides}
              set={change}
              attempt={attempt}
            />
          )}
          {(choosers.length > 0 || step.of !== null) && !kind.begins && (
            <span className="leading-6">
              {', for '}
              <InlineChoice
                label="acts on"
                value={step.of === null ? '' : `${step.others ? '!' : ''}${step.of}`}
                options={[
                  { value: '', label: 'all' },
                  ...choosers.flatMap((c) => [
                    { value: c.id, label: `those of ${c.label}` },
                    { value: `!${c.id}`, label: `all but those of ${c.label}` },
                  ]),
                ]}
                onChange={(value) => change({ of: value.replace('!', '') || null, others: value.startsWith('!') })}
              />
            </span>
          )}
          {step.step === 'plan' && isLooked && (
            <div className="mt-1">
              <AnyShape
                shape={step.shape}
                set={(_, shape) => change({ shape })}
                tried={(shape) => attempt(shape && { shape })}
              />
            </div>
          )}
          {step.step === 'repeat' && (
            <div className="mt-1">
              <ChoiceField
                label="way"
                value={step.way.way}
                options={WAYS.filter(
                  (w) => w.way !== 'once' && (!w.reads || Object.keys(scheme.masses).length > 0),
                ).map((w) => ({ value: w.way, label: w.called }))}
                onChange={(way) =>
                  change({
                    way: {
                      way,
                      ...wayKind({ way }).starts({
                        middle: [0, 0],
                        wide: 10,
                        deep: 10,
                        others: inOrder(scheme.masses).map((m) => m.id),
                      }),
                    } as unknown as Way,
                  })
                }
              />
              <FieldList
                fields={wayKind(step.way).fields as Fields<never>}
                thing={step.way as unknown as Fielded}
                recipe={[]}
                set={(to) => change({ way: { ...step.way, ...to } })}
                attempt={(to) => attempt(to && { way: { ...step.way, ...to } })}
              />
            </div>
          )}
        </div>
        <span className="absolute top-0.5 right-0 flex rounded bg-panel px-0.5 opacity-0 shadow-sm group-hover:opacity-100 has-[:focus-visible]:opacity-100">
          <Small label={`Put step ${nth + 1} earlier`} off={nth === 0} onClick={() => move(-1)}>
            <ChevronUp size={12} />
          </Small>
          <Small label={`Put step ${nth + 1} later`} off={nth === rule.steps.length - 1} onClick={() => move(1)}>
            <ChevronDown size={12} />
          </Small>
          <Small label={`Switch step ${nth + 1} ${step.on ? 'off' : 'on'}`} onClick={() => change({ on: !step.on })}>
            <Power size={12} />
          </Small>
          <Small
            label={`Take step ${nth + 1} out`}
            onClick={() => makeEdit(`step ${nth + 1} out of ${rule.name}`, () => withoutStep(now(), rule.id, step.id))}
          >
            <X size={12} />
          </Small>
        </span>
      </div>
      {isLooked && traced && <StepTable rule={rule} step={step} traced={traced} change={change} />}
    </li>
  )
}

function Small({
  label,
  off = false,
  onClick,
  children,
}: {
  label: string
  off?: boolean
  onClick: () => void
  children: React.ReactNode
}) {
  return (
    <button
      className="h-4 w-4 cursor-pointer text-ink2 hover:text-ink disabled:opacity-30"
      aria-label={label}
      title={label}
      disabled={off}
      onClick={onClick}
    >
      {children}
    </button>
  )
}

import { Trash2 } from 'lucide-react'
import { changeRule, freezeRule, growAgain, grown, leaveOutOfRule, ownOfRule, ruleCount } from '@geotome/core/form'
import { levelHeights } from '@geotome/core/levels'
import type { Move } from '@geotome/core/moves'
import { inOrder, refsIn, ruleRun, type Dial } from '@geotome/core/project'
import { cellRecipe, ruleNumbers, type Rule } from '@geotome/core/rules'
import { useProject, useUses } from '../../app/hooks'
import { makeEdit, tryEdit } from '../../app/session'
import { useAppDispatch, useAppSelector } from '../../app/store'
import { picked, sheetOpened } from '../../app/view-slice'
import { ChoiceField, Figure, NameField, Section } from '../../common/fields'
import { LinkButton } from '../../common/LinkButton'
import { NumField, RuleScope } from '../../common/NumField'
import { worldNow } from '../../tools/at-work'
import { DialRow } from '../DialRow'
import { OwnMoves } from '../OwnMoves'
import { AddStep } from './AddStep'
import { StepRow } from './StepRow'
import { inUnits } from '../../common/tell'

/** A rule: its steps as sentences, the dials that they name, what it has to say; and the one of its bodies that is picked, by its key. */
export function RuleDetails({ rule, one }: { rule: Rule; one: string | null }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const uses = useUses()
  const sheet = useAppSelector((s) => s.view.sheet)
  const run = ruleRun(project, scheme, rule)
  const set = (label: string, fields: Partial<Omit<Rule, 'id'>>) =>
    makeEdit(`${label} of ${rule.name}`, () => changeRule(worldNow()?.scheme ?? scheme, rule.id, fields))
  const attempt = (fields: Partial<Omit<Rule, 'id'>> | null) =>
    tryEdit(fields && (() => changeRule(worldNow()?.scheme ?? scheme, rule.id, fields)))
  const dials = dialsOf(rule, scheme.dials)
  const count = ruleCount(project, scheme, rule)
  return (
    <RuleScope.Provider value={rule.id}>
      <p className="eyebrow mb-2">Rule</p>
      <NameField label="name" value={rule.name} onAccept={(name) => set('name', { name })} />
      <Figure label={rule.frozen ? 'frozen' : 'grows'}>
        {rule.frozen ? Object.keys(rule.frozen).length : count} {count === 1 ? 'body' : 'bodies'}
      </Figure>
      {[...run.remarks, ...(run.failed ? [run.failed] : [])].map((r) => (
        <p key={`${r.step ?? ''}${r.say}`} role="status" className="mt-1 text-[12px] text-warn">
          {inUnits(`${r.say} ${r.remedy}`)}
        </p>
      ))}
      {dials.length > 0 && (
        <div className="mt-3">
          <Section
            title="Dials"
            aside={
              <LinkButton onClick={() => dispatch(sheetOpened(sheet === 'trials' ? null : 'trials'))}>
                Trials
              </LinkButton>
            }
          >
            {dials.map((d) => (
              <DialRow key={d.id} dial={d} />
            ))}
          </Section>
        </div>
      )}
      <Section title="Steps">
        <ol aria-label="steps">
          {rule.steps.map((step, i) => (
            <StepRow key={step.id} rule={rule} step={step} nth={i} run={run} />
          ))}
        </ol>
        <AddStep rule={rule} run={run} />
        <p className="mt-1.5 text-[11px] text-ink2">
          Any number may be a formula. Type <b>width = 42</b> in its place to make a dial of it.
        </p>
      </Section>
      {one !== null && <PickedOne rule={rule} one={one} uses={uses} />}
      <Exceptions rule={rule} />
      <Section title="Stands">
        <ChoiceField
          label="on"
          value={rule.base.level}
          options={[...levelHeights(project, scheme)].reverse().map((l) => ({ value: l.id, label: l.name }))}
          onChange={(level) => set('level', { base: { ...rule.base, level } })}
        />
        <ChoiceField
          label="use"
          value={rule.use}
          options={uses.map((u) => ({ value: u.id, label: u.name }))}
          onChange={(use) => set('use', { use })}
        />
        {(['x', 'y', 'turn'] as const).map((key) => (
          <NumField
            key={key}
            label={{ x: 'east', y: 'north', turn: 'turned by' }[key]}
            quantity={key === 'turn' ? 'angle' : 'length'}
            hint={key === 'turn' ? 'Counter-clockwise.' : undefined}
            value={rule.place[key]}
            onAccept={(num) => set('place', { place: { ...rule.place, [key]: num } })}
            onTry={(num) => attempt(num === null ? null : { place: { ...rule.place, [key]: num } })}
          />
        ))}
        <NumField
          label="may make"
          quantity="number"
          value={rule.most}
          hint="Bodies that it makes at most; 20,000 are the most of all."
          onAccept={(_, most) => set('limit', { most })}
        />
      </Section>
      {rule.frozen ? (
        <button
          className="btn btn-sm mb-1.5 w-full"
          onClick={() =>
            makeEdit(`let ${rule.name} grow again`, () => growAgain(worldNow()?.scheme ?? scheme, rule.id))
          }
        >
          Grow again: {Object.keys(rule.frozen).length} masses are the rule&apos;s once more
        </button>
      ) : (
        <button
          className="btn btn-sm mb-1.5 w-full"
          disabled={count === 0}
          onClick={() => {
            const now = worldNow()
            if (now)
              makeEdit(`freeze ${rule.name}`, () => freezeRule(now.scheme, grown(now.project, now.scheme), rule.id))
          }}
        >
          Freeze: {count} drawn {count === 1 ? 'mass' : 'masses'}
        </button>
      )}
      <button
        className="btn btn-sm w-full text-error"
        onClick={() =>
          makeEdit(`remove ${rule.name}`, { edit: 'rule.remove', scheme: scheme.id, id: rule.id }) &&
          dispatch(picked({ kind: 'nothing' }))
        }
      >
        <Trash2 size={14} /> Remove the rule{rule.frozen ? '' : `, ${count} ${count === 1 ? 'body' : 'bodies'}`}
      </button>
    </RuleScope.Provider>
  )
}

/** The dials that a rule's numbers name, and those that these name, in their order. */
export function dialsOf(rule: Rule, dials: Record<string, Dial>): Dial[] {
  const found = new Set<string>()
  const follow = (num: Dial['value']) => {
    for (const id of refsIn(num)) {
      const dial = dials[id]
      if (!dial || found.has(id)) continue
      found.add(id)
      follow(dial.value)
    }
  }
  for (const [num] of ruleNumbers(rule)) follow(num)
  for (const num of [rule.base.above, rule.place.x, rule.place.y, rule.place.turn]) follow(num)
  return inOrder(dials).filter((d) => found.has(d.id))
}

function PickedOne({ rule, one, uses }: { rule: Rule; one: string; uses: { id: string; name: string }[] }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const own = rule.own[one]
  const cell = ruleRun(project, scheme, rule).cells.find((c) => c.key === one)
  const withMoves = (moves: Move[]) => {
    const set = { moves: moves.length ? moves : undefined } as Parameters<typeof ownOfRule>[3]
    return ownOfRule(worldNow()?.scheme ?? scheme, rule.id, one, set)
  }
  const give = (label: string, fields: Parameters<typeof ownOfRule>[3]) =>
    makeEdit(`${label} of one of ${rule.name}`, () => ownOfRule(worldNow()?.scheme ?? scheme, rule.id, one, fields))
  return (
    <Section title={`The picked one, ${one}`}>
      <NameField label="name" value={own?.name ?? `${rule.name} ${one}`} onAccept={(name) => give('name', { name })} />
      <ChoiceField
        label="use"
        value={own?.use ?? ''}
        options={[{ value: '', label: 'as the rule says' }, ...uses.map((u) => ({ value: u.id, label: u.name }))]}
        onChange={(use) => give('use', { use: use || undefined } as Parameters<typeof ownOfRule>[3])}
      />
      <ChoiceField
        label="drawn in"
        value={own?.material ?? ''}
        options={[
          { value: '', label: 'as the rule says' },
          ...inOrder(project.materials).map((m) => ({ value: m.id, label: m.name })),
        ]}
        onChange={(id) => give('material', { material: id || undefined } as Parameters<typeof ownOfRule>[3])}
      />
      <NumField
        label="lifted by"
        value={own?.up ?? 0}
        onAccept={(_, up) => give('height', { up: up || undefined } as Parameters<typeof ownOfRule>[3])}
      />
      {cell && (
        <OwnMoves
          recipe={cellRecipe(cell, undefined)}
          own={own?.moves ?? []}
          set={(moves) => makeEdit(`moves of one of ${rule.name}`, () => withMoves(moves()))}
          attempt={(moves) => tryEdit(moves && (() => withMoves(moves())))}
        />
      )}
      <button
        className="btn btn-sm h-7 w-full px-2 text-[12px]"
        onClick={() =>
          makeEdit(`leave one out of ${rule.name}`, () =>
            leaveOutOfRule(worldNow()?.scheme ?? scheme, rule.id, one, true),
          ) && dispatch(picked({ kind: 'rule', ids: [rule.id], one: null }))
        }
      >
        Leave it out
      </button>
    </Section>
  )
}

/** What single bodies have of their own, and those that are left out: each is taken back by itself. */
function Exceptions({ rule }: { rule: Rule }) {
  const { scheme } = useProject()
  const now = () => worldNow()?.scheme ?? scheme
  const owns = Object.entries(rule.own)
  if (rule.out.length + owns.length === 0) return null
  return (
    <Section title="Exceptions">
      <ul>
        {rule.out.map((key) => (
          <li key={key} className="flex justify-between py-0.5">
            <span>{key}, left out</span>
            <LinkButton onClick={() => makeEdit('take one back', () => leaveOutOfRule(now(), rule.id, key, false))}>
              Take back
            </LinkButton>
          </li>
        ))}
        {owns.map(([key, own]) => (
          <li key={key} className="flex justify-between py-0.5">
            <span>
              {key}, its own{' '}
              {Object.keys(own)
                .map((k) => OWN_WORDS[k] ?? k)
                .join(', ')}
            </span>
            <LinkButton
              onClick={() => {
                const { [key]: _, ...rest } = now().rules[rule.id]?.own ?? {}
                makeEdit('take an exception back', () => changeRule(now(), rule.id, { own: rest }))
              }}
            >
              Take back
            </LinkButton>
          </li>
        ))}
      </ul>
    </Section>
  )
}

const OWN_WORDS: Record<string, string> = { up: 'height', faces: 'faces’ materials' }

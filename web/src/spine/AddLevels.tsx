import { valibotResolver } from '@hookform/resolvers/valibot'
import type { ChangeEvent } from 'react'
import { useForm } from 'react-hook-form'
import * as v from 'valibot'
import { applyEdit, type Edit } from '@geotome/core/edits'
import {
  addLevel,
  addRuns,
  insertLevel,
  levelHeights,
  NAME_HABITS,
  nextName,
  readRuns,
  standingOn,
} from '@geotome/core/levels'
import { editNumber, readTyped, EXAMPLES, Refusal, showNumber, tidy } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { useAppDispatch } from '../app/store'
import { levelShown } from '../app/view-slice'
import { Dialog } from '../common/Dialog'
import { Consequence } from './Consequence'
import { inUnits, tellFault } from '../common/tell'

const mint = () => crypto.randomUUID()
const OWN = 'own'

const text = v.pipe(v.string(), v.trim())
const FormSchema = v.object({
  on: v.string(),
  name: text,
  by: text,
  kind: v.picklist(['storey', 'mark']),
  count: text,
  own: text,
  first: text,
  renumber: v.boolean(),
  carry: v.picklist(['carried', 'held']),
  habit: v.string(),
})
type Form = v.InferOutput<typeof FormSchema>

/**
 * One level, or several storeys at one go, on top of a chosen level; what comes of it is shown before it is made. `height` is where a new
 * level is wanted, m.
 */
export function AddLevels({
  how,
  above,
  height = null,
  onClose,
}: {
  how: 'one' | 'many'
  above: string | null
  height?: number | null
  onClose: () => void
}) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const levels = levelHeights(project, scheme)
  const storeys = levels.filter((l) => l.kind === 'storey')
  const under = height === null ? null : (levels.filter((l) => l.height <= height + 1e-9).at(-1) ?? levels[0])
  const { register, handleSubmit, watch, setValue } = useForm({
    resolver: valibotResolver(FormSchema),
    defaultValues: {
      on: under?.id ?? (how === 'one' && above ? above : ((storeys.at(-1) ?? levels.at(-1))?.id ?? '')),
      name: how === 'one' ? `Level ${levels.length}` : 'Storey {n}',
      by:
        height !== null && under
          ? editNumber(tidy(height - under.height), 'length', project)
          : { m: '3.15', mm: '3150', ft: '10\' 4"' }[project.unit],
      kind: height === null ? ('storey' as const) : ('mark' as const),
      count: '20',
      own: '',
      first: String(storeys.length),
      renumber: false,
      carry: 'carried' as const,
      habit: 'Storey {n}',
    } as Form,
  })
  const form = watch()
  const { on, name, by, kind, count, own, first, renumber, carry, habit } = form
  const stands = standingOn(scheme, on).length > 0
  const next = storeys.find((l) => l.height > (levels.find((x) => x.id === on)?.height ?? 0) + 1e-9)

  const numOf = (text: string) => readTyped(text, 'length', project, scheme).num
  const make = (): Edit => {
    if (how === 'one')
      return stands && kind === 'storey'
        ? insertLevel(project, scheme, mint, { on, above: numOf(by), kind, name }, carry, renumber)
        : addLevel(scheme, mint, { name, kind, on, above: numOf(by) })
    const runs = [
      ...(own.trim() ? readRuns(own, numOf) : []),
      ...(count.trim() === '' || Number(count) === 0 ? [] : [{ count: Number(count), each: numOf(by) }]),
    ]
    return addRuns(project, scheme, mint, { on, runs, pattern: name, first: Math.trunc(Number(first)) || 0 }, carry)
  }
  const planned = (() => {
    try {
      const edit = make()
      const p = applyEdit(project, edit).project
      const s = p.schemes[scheme.id]
      return { edit, after: s ? levelHeights(p, s) : [] }
    } catch (e) {
      if (e instanceof Refusal) return { fault: inUnits(e.message) }
      throw e
    }
  })()
  const fresh = planned.after ? planned.after.filter((l) => !scheme.levels[l.id]) : []

  const accept = handleSubmit(() => {
    if ('fault' in planned) {
      tellFault(planned.fault ?? '')
      return
    }
    if (!makeEdit(how === 'one' ? `add ${name}` : `add ${fresh.length} storeys`, planned.edit)) return
    if (how === 'one' && fresh[0]) dispatch(levelShown(fresh[0].id))
    onClose()
  })
  return (
    <Dialog
      title={how === 'one' ? 'Add a level' : 'Add several storeys'}
      onClose={onClose}
      onAccept={() => void accept()}
      accept={how === 'one' ? 'Add level' : `Add ${fresh.length || count} storeys`}
    >
      <Row label="stands on">
        <select aria-label="stands on" className={FIELD.replaceAll('input', 'select')} {...register('on')}>
          {[...levels].reverse().map((l) => (
            <option key={l.id} value={l.id}>
              {l.name}
            </option>
          ))}
        </select>
      </Row>
      {how === 'many' && (
        <Row label="first, heights of their own">
          <input
            aria-label="first heights"
            placeholder={`none, or ${EXAMPLES[project.unit].heights}`}
            className={FIELD}
            {...register('own')}
          />
        </Row>
      )}
      {how === 'many' && (
        <Row label="then how many">
          <input aria-label="how many" autoFocus className={FIELD} inputMode="numeric" {...register('count')} />
        </Row>
      )}
      <Row label={how === 'one' ? `above it by (${project.unit})` : `each (${project.unit})`}>
        <input
          aria-label={how === 'one' ? 'above it by' : 'each'}
          autoFocus={how === 'one'}
          className={FIELD}
          {...register('by')}
          onFocus={(e) => e.currentTarget.select()}
        />
      </Row>
      {how === 'many' && (
        <Row label="named">
          <select
            aria-label="named"
            className={FIELD.replaceAll('input', 'select')}
            {...register('habit', {
              onChange: (e: ChangeEvent<HTMLSelectElement>) => {
                if (e.target.value !== OWN) setValue('name', e.target.value)
              },
            })}
          >
            {NAME_HABITS.map((h) => (
              <option key={h.pattern} value={h.pattern}>
                {h.label}
              </option>
            ))}
            <option value={OWN}>a pattern of my own</option>
          </select>
        </Row>
      )}
      {(how === 'one' || habit === OWN) && (
        <Row label={how === 'one' ? 'name' : '{n} {nn} {1st} {first} count'}>
          <input aria-label="name" className={FIELD} {...register('name')} />
        </Row>
      )}
      {how === 'one' && (
        <Row label="kind">
          <select aria-label="kind" className={FIELD.replaceAll('input', 'select')} {...register('kind')}>
            <option value="storey">storey: carries a floor</option>
            <option value="mark">mark: a height only</option>
          </select>
        </Row>
      )}
      {how === 'many' && (
        <Row label="counted from">
          <input aria-label="counted from" className={FIELD} inputMode="numeric" {...register('first')} />
        </Row>
      )}
      {stands && kind === 'storey' && (
        <Row label="levels that stand there">
          <select
            aria-label="levels that stand there"
            className={FIELD.replaceAll('input', 'select')}
            {...register('carry')}
          >
            <option value="carried">are carried up</option>
            <option value="held">keep their heights</option>
          </select>
        </Row>
      )}
      {how === 'one' && stands && kind === 'storey' && next && nextName(next.name) && (
        <label className="mb-2 flex cursor-pointer items-center justify-between text-ink2">
          renumber those above: {next.name} becomes {nextName(next.name)}
          <input type="checkbox" className="checkbox checkbox-xs" {...register('renumber')} />
        </label>
      )}
      {'fault' in planned ? (
        <p role="status" className="mt-2 text-[12px] text-error">
          {planned.fault}
        </p>
      ) : (
        <div
          role="status"
          className="mt-2 rounded-md border border-line bg-field px-2.5 py-2 text-[12px] text-ink2"
          data-planned
        >
          {fresh.length > 0 && (
            <p>
              <b className="text-ink">
                {fresh.length === 1 ? fresh[0]?.name : `${fresh[0]?.name} to ${fresh.at(-1)?.name}`}
              </b>{' '}
              {fresh.length === 1
                ? `at ${showNumber(fresh[0]?.height ?? 0, 'length', project)}`
                : `from ${showNumber(fresh[0]?.height ?? 0, 'length', project)} to ${showNumber(fresh.at(-1)?.height ?? 0, 'length', project)}`}
            </p>
          )}
          <Consequence edit={planned.edit} brief />
        </div>
      )}
      <p className="mt-2 text-[12px] text-ink2">
        {how === 'one'
          ? 'Below zero the level hangs under the one chosen.'
          : 'Below zero they hang under it, and are counted down from -1.'}
      </p>
    </Dialog>
  )
}

const FIELD = 'input input-sm w-44 text-right font-semibold'
const Row = ({ label, children }: { label: string; children: React.ReactNode }) => (
  <div className="mb-2 flex items-center justify-between gap-4">
    <span className="text-ink2">{label}</span>
    {children}
  </div>
)

import { proxy } from 'comlink'
import { useEffect, useMemo, useRef, useState } from 'react'
import type { Edit } from '@geotome/core/edits'
import {
  briefKey,
  editNumber,
  quantityOf,
  readTyped,
  EXAMPLES,
  Refusal,
  showQuantity,
  type BriefOf,
  type Project,
  type Scheme,
} from '@geotome/core/project'
import { moversOf, type Met, type Mover } from '@geotome/core/study'
import { useProject, useUses, useViewState } from '../app/hooks'
import { selectPresent } from '../app/project-slice'
import { makeEdit, tryEdit } from '../app/session'
import { useAppSelector } from '../app/store'
import { workerReady } from '../app/study-loop'
import { studyWorker } from '../worker/client'
import type { Wanted } from '../worker/areas-protocol'
import { BOUNDS, briefKinds } from './brief-kinds'
import { takeSought } from './sought'
import { inUnits, tellFault } from '../common/tell'

interface Asked {
  of: BriefOf
  bound: Wanted['bound']
  value: string
  mover: string
  from: string
  to: string
}

/** A figure, and what may move for it: the value at which it comes out is sought, shown on the stage, and applied on demand. */
export function TargetSheet() {
  // What moves, moves from what is made, also while the stage shows what was found.
  const shown = useProject()
  const { project, scheme } = useAppSelector(selectPresent) ?? shown
  const { picked } = useViewState('picked')
  const uses = useUses()
  const movers = useMemo(() => ordered(project, scheme, picked), [project, scheme, picked])
  const kinds = useMemo(() => briefKinds(project, uses), [project, uses])
  const first = (of: BriefOf | undefined, bound: Wanted['bound'], value: string): Asked => ({
    of: of ?? (kinds[0]?.of as BriefOf),
    bound,
    value,
    ...moverAsked(movers[0], project),
  })
  const [asked, setAsked] = useState<Asked[]>(() => {
    const line = takeSought()
    if (!line) return [first(undefined, 'about', '')]
    const quantity = quantityOf(line.of)
    const value = typeof line.target === 'number' ? editNumber(line.target, quantity, project) : line.target.formula
    return [first(line.of, line.bound, value)]
  })
  const [done, setDone] = useState<number | null>(null)
  const [found, setFound] = useState<{ met: Met[]; edit: Edit | null } | null>(null)
  const run = useRef(0)
  const leave = () => {
    run.current++
    setDone(null)
    setFound(null)
    tryEdit(null)
  }
  useEffect(
    () => () => {
      run.current++
      tryEdit(null)
    },
    [],
  )
  const set = (i: number, next: Partial<Asked>) => {
    leave()
    setAsked(asked.map((a, k) => (k === i ? { ...a, ...next } : a)))
  }
  const seek = async () => {
    leave()
    const mine = ++run.current
    try {
      const wanted = asked.map((a): Wanted => {
        const mover = movers.find((m) => m.key === a.mover)
        const quantity = mover?.quantity ?? 'number'
        return {
          of: a.of,
          bound: a.bound,
          value: readTyped(a.value, quantityOf(a.of), project, scheme).value,
          mover: a.mover,
          from: readTyped(a.from, quantity, project, scheme).value,
          to: readTyped(a.to, quantity, project, scheme).value,
        }
      })
      setDone(0)
      await workerReady()
      const result = await studyWorker.meet(
        scheme.id,
        wanted,
        proxy((share: number) => {
          if (mine !== run.current) return false
          setDone(share)
          return true
        }),
      )
      if (mine !== run.current || !result) return
      setFound(result)
      const { edit } = result
      if (edit) tryEdit(() => edit)
    } catch (e) {
      if (mine !== run.current) return
      if (!(e instanceof Refusal)) throw e
      tellFault(e.message)
    } finally {
      if (mine === run.current) setDone(null)
    }
  }
  const apply = () => {
    const edit = found?.edit
    if (!edit) return
    tryEdit(null)
    if (makeEdit(`meet a target by ${found.met.map((m) => m.label).join(', ')}`, edit)) setFound(null)
  }
  if (movers.length === 0)
    return <p className="px-3 pb-4 text-ink2">Nothing can move yet: draw a mass at the Form desk, or add a dial.</p>
  return (
    <div className="min-h-0 flex-1 overflow-auto px-3 pb-3 text-[12.5px]" data-target>
      {asked.map((a, i) => (
        <Wish
          key={i}
          asked={a}
          nth={i}
          kinds={kinds}
          movers={movers}
          set={(next) => set(i, next)}
          off={
            i > 0
              ? () => {
                  leave()
                  setAsked(asked.slice(0, 1))
                }
              : null
          }
        />
      ))}
      <div className="flex items-center gap-2 pt-1">
        {done === null ? (
          <button
            className="btn btn-sm btn-primary h-7 text-[12px]"
            disabled={asked.some((a) => !a.value.trim())}
            onClick={() => void seek()}
          >
            Seek
          </button>
        ) : (
          <button className="btn btn-sm h-7 text-[12px]" onClick={leave}>
            Stop, {Math.round(done * 100)} %
          </button>
        )}
        {asked.length < 2 && movers.length > 1 && (
          <button
            className="btn btn-sm h-7 text-[12px]"
            onClick={() => {
              leave()
              const next = movers.find((m) => m.key !== asked[0]?.mover)
              setAsked([...asked, { ...first(kinds[1]?.of, 'about', ''), ...moverAsked(next, project) }])
            }}
          >
            and a second figure
          </button>
        )}
      </div>
      {found && (
        <div className="mt-3 max-w-2xl rounded-md border border-line bg-field px-3 py-2" role="status" data-found>
          {found.met.map((m) => (
            <p key={m.label} className={`pb-1 ${m.reached ? 'font-medium' : 'text-warn'}`}>
              {inUnits(m.say)}
            </p>
          ))}
          <div className="flex items-center gap-2 pt-1">
            {found.edit ? (
              <>
                <button className="btn btn-sm btn-primary h-7 text-[12px]" onClick={apply}>
                  {found.met.every((m) => m.reached) ? 'Apply' : 'Apply what comes nearest'}
                </button>
                <button className="btn btn-sm h-7 text-[12px]" onClick={leave}>
                  Leave it
                </button>
                <span className="text-ink2">The stage shows it so; nothing is changed yet.</span>
              </>
            ) : (
              <span className="text-ink2">
                {found.met.every((m) => m.reached)
                  ? 'It is so already; nothing is to be changed.'
                  : 'What is there comes nearest; nothing is changed.'}
              </span>
            )}
          </div>
        </div>
      )}
    </div>
  )
}

/** The movers, those of what is picked first. */
function ordered(project: Project, scheme: Scheme, picked: { kind: string; ids?: string[] }): Mover[] {
  const all = moversOf(project, scheme)
  const ids = picked.ids ?? []
  const mine = all.filter((m) => ids.some((id) => m.key.includes(id)))
  return [...mine, ...all.filter((m) => !mine.includes(m))]
}

const moverAsked = (mover: Mover | undefined, project: Project): Pick<Asked, 'mover' | 'from' | 'to'> => ({
  mover: mover?.key ?? '',
  from: mover ? editNumber(mover.from, mover.quantity, project) : '',
  to: mover ? editNumber(mover.to, mover.quantity, project) : '',
})

function Wish({
  asked,
  nth,
  kinds,
  movers,
  set,
  off,
}: {
  asked: Asked
  nth: number
  kinds: ReturnType<typeof briefKinds>
  movers: Mover[]
  set: (next: Partial<Asked>) => void
  off: (() => void) | null
}) {
  const { project } = useProject()
  const name = nth ? 'second figure' : 'first figure'
  const mover = movers.find((m) => m.key === asked.mover)
  const select = 'select select-sm h-7 w-auto max-w-80 cursor-pointer rounded py-0 font-semibold'
  const field = 'input input-sm h-7 w-16 px-1.5 text-right'
  return (
    <div className="flex flex-wrap items-center gap-x-2 gap-y-1.5 pb-2" role="group" aria-label={name}>
      <select
        aria-label={`${name}: which`}
        className={select}
        value={briefKey(asked.of)}
        onChange={(e) => {
          const kind = kinds.find((k) => k.key === e.target.value)
          if (kind) set({ of: kind.of })
        }}
      >
        {kinds.map((k) => (
          <option key={k.key} value={k.key}>
            {k.label}
          </option>
        ))}
      </select>
      <select
        aria-label={`${name}: bound`}
        className={select}
        value={asked.bound}
        onChange={(e) => set({ bound: e.target.value as Asked['bound'] })}
      >
        {BOUNDS.map((b) => (
          <option key={b.value} value={b.value}>
            {b.label}
          </option>
        ))}
      </select>
      <input
        aria-label={`${name}: value`}
        className={`${field} w-24`}
        placeholder={EXAMPLES[project.unit].area}
        value={asked.value}
        onChange={(e) => set({ value: e.target.value })}
      />
      <span className="text-ink2">by moving</span>
      <select
        aria-label={`${name}: what moves`}
        className={select}
        value={asked.mover}
        onChange={(e) =>
          set(
            moverAsked(
              movers.find((m) => m.key === e.target.value),
              project,
            ),
          )
        }
      >
        {movers.map((m) => (
          <option key={m.key} value={m.key}>
            {m.label}
          </option>
        ))}
      </select>
      {mover && (
        <span className="text-ink2">
          now {mover.whole ? Math.round(mover.now) : showQuantity(mover.now, mover.quantity, project)}
        </span>
      )}
      {(['from', 'to'] as const).map((end) => (
        <label key={end} className="flex items-center gap-1">
          <span className="text-ink2">{end}</span>
          <input
            aria-label={`${name}: ${end}`}
            className={field}
            value={asked[end]}
            onChange={(e) => set({ [end]: e.target.value })}
          />
        </label>
      ))}
      {off && (
        <button className="btn btn-ghost btn-xs h-7" onClick={off}>
          leave it out
        </button>
      )}
    </div>
  )
}

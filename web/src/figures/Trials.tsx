import { lazy, Suspense, useState } from 'react'
import { batch, type SingleEdit } from '@geotome/core/edits'
import { editNumber, inOrder, readTyped, Refusal, type Dial, type Project, type Scheme } from '@geotome/core/project'
import { dialValue, setDial, trialGrid } from '@geotome/core/study'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { DialSets } from './DialSets'
import { FIGURES, type FigureKey } from './trial-figures'
import { Grid, Rows } from './TrialTables'
import { useTrials } from './use-trials'
import { tellFault } from '../common/tell'

const Chart = lazy(() => import('./TrialsChart'))

interface Asked {
  dial: string
  from: string
  to: string
  count: string
}

/** One dial, or two, at many values: the figures of each, and one action to take one. Below, sets of dials that are kept by name. */
export function Trials() {
  const { project, scheme } = useProject()
  const dials = inOrder(scheme.dials)
  const [asked, setAsked] = useState<Asked[]>(() => (dials[0] ? [asks(dials[0], project, scheme)] : []))
  const [figure, setFigure] = useState<FigureKey>('area')
  const { trials, done, run, stop } = useTrials()
  const known = asked.filter((a) => scheme.dials[a.dial])
  const tried = trials?.dials.flatMap((id) => scheme.dials[id] ?? []) ?? []
  if (dials.length === 0)
    return (
      <p className="px-3 pb-4 text-ink2">
        There are no dials in this scheme. Pick a rule, or add a dial to the project at the right.
      </p>
    )
  const begin = () => {
    try {
      const grid = known.map((a) => {
        const dial = scheme.dials[a.dial] as Dial
        const read = (text: string) => readTyped(text, dial.quantity, project, scheme).value
        return { dial: dial.id, from: read(a.from), to: read(a.to), count: Number(a.count) }
      })
      void run(
        scheme.id,
        grid.map((g) => g.dial),
        trialGrid(grid),
      )
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
      tellFault(e.message)
    }
  }
  const take = (values: number[]) =>
    makeEdit(`take a trial of ${tried.map((d) => d.name).join(', ')}`, () =>
      batch(tried.map((d, i): SingleEdit => setDial(scheme, d.id, values[i] ?? 0))),
    )
  return (
    <div className="flex min-h-0 flex-col overflow-auto px-3 pb-3">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-1.5 pb-2 text-[12.5px]">
        {asked.map((a, i) => (
          <DialAsked
            key={i}
            asked={a}
            dials={dials}
            name={i === 0 ? 'first dial' : 'second dial'}
            set={(next) => setAsked(asked.map((o, k) => (k === i ? next : o)))}
            off={i > 0 ? () => setAsked(asked.slice(0, 1)) : null}
          />
        ))}
        {asked.length < 2 && dials.length > 1 && (
          <button
            className="btn btn-sm h-7 text-[12px]"
            onClick={() => {
              const other = dials.find((d) => d.id !== asked[0]?.dial)
              if (other) setAsked([...asked, asks(other, project, scheme, 5)])
            }}
          >
            and a second dial
          </button>
        )}
        {done === null ? (
          <button className="btn btn-sm btn-primary h-7 text-[12px]" onClick={begin}>
            Try {known.reduce((all, a) => all * (Number(a.count) || 0), 1)}
          </button>
        ) : (
          <button className="btn btn-sm h-7 text-[12px]" onClick={stop}>
            Stop, {Math.round(done * 100)} %
          </button>
        )}
        <label className="ml-auto flex items-center gap-1.5">
          <span className="text-ink2">by</span>
          <select
            aria-label="figure"
            className="select select-sm h-7 w-auto cursor-pointer rounded py-0 font-semibold"
            value={figure}
            onChange={(e) => setFigure(e.target.value as FigureKey)}
          >
            {FIGURES.map((f) => (
              <option key={f.key} value={f.key}>
                {f.label}
              </option>
            ))}
          </select>
        </label>
      </div>
      {trials && tried.length === trials.dials.length && (
        <div className="flex min-h-0 gap-4">
          <div className="min-w-0 flex-1 overflow-auto">
            {tried.length === 2 ? (
              <Grid trials={trials.all} dials={tried} figure={figure} take={take} />
            ) : (
              <Rows trials={trials.all} dials={tried} take={take} />
            )}
          </div>
          <div className="h-[190px] w-[38%] shrink-0">
            <Suspense fallback={null}>
              <Chart
                trials={trials.all}
                dials={tried}
                figure={figure}
                label={FIGURES.find((f) => f.key === figure)?.label ?? ''}
              />
            </Suspense>
          </div>
        </div>
      )}
      <DialSets dials={dials} />
    </div>
  )
}

/** What is asked of a dial to begin with: its range, else half of its value to twice. */
function asks(dial: Dial, project: Project, scheme: Scheme, count = 9): Asked {
  const now = dialValue(project, scheme, dial)
  const text = (value: number) => editNumber(value, dial.quantity, project)
  return { dial: dial.id, from: text(dial.least ?? now / 2), to: text(dial.most ?? now * 2), count: String(count) }
}

function DialAsked({
  asked,
  dials,
  name,
  set,
  off,
}: {
  asked: Asked
  dials: Dial[]
  name: string
  set: (asked: Asked) => void
  off: (() => void) | null
}) {
  const { project, scheme } = useProject()
  return (
    <span className="flex items-end gap-1.5" role="group" aria-label={name}>
      <select
        aria-label={`${name}: which`}
        className="select select-sm h-7 w-auto cursor-pointer rounded py-0 font-semibold"
        value={asked.dial}
        onChange={(e) => {
          const dial = scheme.dials[e.target.value]
          if (dial) set(asks(dial, project, scheme, Number(asked.count) || 9))
        }}
      >
        {dials.map((d) => (
          <option key={d.id} value={d.id}>
            {d.name}
          </option>
        ))}
      </select>
      {(
        [
          ['from', 'from', 'w-16'],
          ['to', 'to', 'w-16'],
          ['count', 'values', 'w-10'],
        ] as const
      ).map(([key, word, wide]) => (
        <label key={key} className="flex items-center gap-1">
          <span className="text-ink2">{word}</span>
          <input
            aria-label={`${name}: ${word}`}
            className={`input input-sm h-7 ${wide} px-1.5 text-right`}
            value={asked[key]}
            onChange={(e) => set({ ...asked, [key]: e.target.value })}
          />
        </label>
      ))}
      {off && (
        <button className="btn btn-ghost btn-xs h-7" onClick={off}>
          leave it out
        </button>
      )}
    </span>
  )
}

import { memo, useState, type RefObject } from 'react'
import { applyEdit } from '@geotome/core/edits'
import {
  addByLine,
  floorName,
  levelExamples,
  levelHeights,
  oneFloors,
  readLevelLine,
  type LevelHeight,
} from '@geotome/core/levels'
import { Refusal, sayInUnits, showNumber } from '@geotome/core/project'
import { useOf, useUnit, useViewState } from '../app/hooks'
import { makeEdit } from '../app/session'
import { useAppDispatch } from '../app/store'
import { confirmed } from '../common/confirm'
import { levelShown, picked as pickedNow } from '../app/view-slice'
import { Consequence } from './Consequence'
import { tellFault } from '../common/tell'

const mint = () => crypto.randomUUID()

/** What it means that a new storey lies at the height of another one; null where none does. */
function sameHeight(levels: LevelHeight[], fresh: LevelHeight[]): string | null {
  const floor = oneFloors(levels).find((f) => f.also.length && fresh.some((l) => l === f.level || f.also.includes(l)))
  return floor ? `${floorName(floor)} lie at one height: they are one floor, counted once.` : null
}

/** Levels by one line: a height and a name. Where they will stand, and what goes along, is shown while it is typed; Enter makes them. */
export const LevelEntry = memo(function LevelEntry({ field }: { field: RefObject<HTMLInputElement | null> }) {
  const dispatch = useAppDispatch()
  const { picked } = useViewState('picked')
  const [text, setText] = useState('')
  const [isUp, setIsUp] = useState(false)
  const say = levelExamples(useUnit())
  const chosen = picked.kind === 'level' && picked.ids.length === 1 ? (picked.ids[0] ?? null) : null
  const where = useOf(({ scheme }) => (chosen && scheme.levels[chosen]?.name) ?? null)
  const on = where === null ? null : chosen
  // Only what is being typed hangs on all of the project.
  const of = useOf((now) => (text.trim() === '' ? null : now))
  const planned = of && plan(of)

  function plan({ project, scheme }: NonNullable<typeof of>) {
    try {
      const { edit, on: under } = addByLine(project, scheme, mint, readLevelLine(text, project, scheme), on)
      const after = applyEdit(project, edit).project
      const s = after.schemes[scheme.id]
      const fresh = s ? levelHeights(after, s).filter((l) => !scheme.levels[l.id]) : []
      const same = sameHeight(s ? levelHeights(after, s) : [], fresh)
      return { edit, fresh, under, same }
    } catch (e) {
      if (e instanceof Refusal) return { fault: sayInUnits(e.message, project) }
      throw e
    }
  }
  const accept = async () => {
    if (!planned) return
    if ('fault' in planned) {
      tellFault(planned.fault ?? '')
      return
    }
    const { edit, fresh, same } = planned
    const [first] = fresh
    if (same && !(await confirmed({ title: 'Two storeys at one height?', say: [same], accept: 'Add it all the same' })))
      return
    if (!first || !makeEdit(`add ${fresh.length === 1 ? first.name : `${fresh.length} levels`}`, edit)) return
    const top = (first.height < 0 ? first : fresh.at(-1)) ?? first
    dispatch(levelShown(top.id))
    // What comes next goes on from here.
    if (on) dispatch(pickedNow({ kind: 'level', ids: [top.id] }))
    setText('')
  }

  return (
    <div className="relative border-t border-line p-2">
      {isUp && planned && (
        <div
          role="status"
          data-planned
          className="absolute right-2 bottom-full left-2 z-20 mb-1 rounded-md border border-line bg-panel px-2.5 py-2 text-[12px] text-ink2 shadow-sm"
        >
          {!of ? null : 'fault' in planned ? (
            <span className="text-error">{planned.fault}</span>
          ) : (
            <>
              {planned.fresh.map((l) => (
                <p key={l.id} className="flex justify-between gap-3">
                  <b className="truncate text-ink">{l.name}</b>
                  <span className="tabular-nums">{showNumber(l.height, 'length', of.project)}</span>
                </p>
              ))}
              <p>
                {planned.edit.edit === 'level.add' && planned.edit.thing.tie.kind === 'fixed'
                  ? 'from the datum'
                  : `on ${of.scheme.levels[planned.under]?.name ?? ''}`}
              </p>
              <Consequence edit={planned.edit} brief />
              {planned.same && <p className="text-warn">{planned.same}</p>}
            </>
          )}
        </div>
      )}
      <div className="flex h-8 items-center rounded-md border border-line bg-field focus-within:outline-2 focus-within:outline-cut">
        <input
          ref={field}
          aria-label="add a level"
          title={`${say.one}: so much above. ${say.under}: under. @${say.datum} Ridge: from the datum. ${say.many}: three. mark ${say.datum}: a height only.`}
          placeholder={`${say.one}, or ${say.many}`}
          className="h-full min-w-0 flex-1 bg-transparent px-2 text-[12px] outline-none!"
          value={text}
          maxLength={200}
          onChange={(e) => setText(e.target.value)}
          onFocus={() => setIsUp(true)}
          onBlur={() => setIsUp(false)}
          onKeyDown={(e) => {
            if (e.key === 'Enter') {
              e.preventDefault()
              void accept()
            }
            if (e.key === 'Escape') {
              e.stopPropagation()
              if (text) setText('')
              else e.currentTarget.blur()
            }
          }}
        />
        {where !== null && (
          <button
            type="button"
            className="mr-1 max-w-24 shrink-0 cursor-pointer truncate rounded px-1.5 text-[11px] text-ink2 hover:bg-panel"
            title={`Above ${where}, which is picked; click to put it on top of all`}
            onMouseDown={(e) => e.preventDefault()}
            onClick={() => dispatch(pickedNow({ kind: 'nothing' }))}
          >
            on {where}
          </button>
        )}
      </div>
    </div>
  )
})

import { ChevronDown, ChevronUp, Plus } from 'lucide-react'
import { memo, useState } from 'react'
import { levelHeights, storeysOf } from '@geotome/core/levels'
import { showNumber } from '@geotome/core/project'
import { useOf, useProject, useViewState } from '../app/hooks'
import { useAppDispatch } from '../app/store'
import { behindChosen, levelShown, picked } from '../app/view-slice'
import { AddLevels } from '../spine/AddLevels'

/** The level that a plan shows: the next one up and down, a new one above it, its details, and another level's plan faintly behind. */
export function PlanBar({ narrow }: { narrow: boolean }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const { level: id } = useViewState('level')
  const [adding, setAdding] = useState(false)
  const levels = storeysOf(levelHeights(project, scheme))
  const i = levels.findIndex((l) => l.id === id)
  const level = levels[i]
  if (!level) return null
  const go = (by: number) => {
    const next = levels[i + by]
    if (next) {
      dispatch(levelShown(next.id))
      dispatch(picked({ kind: 'level', ids: [next.id] }))
    }
  }
  const icon = 'grid size-6 cursor-pointer place-items-center rounded hover:bg-field disabled:opacity-35'
  return (
    <div
      className={`absolute right-3 left-3 z-10 flex items-center gap-1 text-[11px] whitespace-nowrap text-ink2 ${narrow ? 'bottom-1.5' : 'bottom-(--foot)'}`}
      role="group"
      aria-label="Level of the plan"
      onPointerDown={(e) => e.stopPropagation()}
    >
      <button className={icon} aria-label="Level below" disabled={i <= 0} onClick={() => go(-1)}>
        {DOWN}
      </button>
      <button className={icon} aria-label="Level above" disabled={i >= levels.length - 1} onClick={() => go(1)}>
        {UP}
      </button>
      <button
        className="cursor-pointer rounded px-0.5 italic hover:bg-field"
        title="Its details"
        onClick={() => dispatch(picked({ kind: 'level', ids: [level.id] }))}
      >
        plan at {level.name} {level.height > 0 ? '+' : ''}
        {showNumber(level.height, 'length', project)}
      </button>
      <button className={icon} aria-label="New level above" onClick={() => setAdding(true)}>
        {NEW}
      </button>
      {!narrow && <Behind level={level.id} />}
      {adding && <AddLevels how="one" above={level.id} onClose={() => setAdding(false)} />}
    </div>
  )
}

/** The level whose plan lies faintly behind: drawn anew only when levels come, go or change places. */
const Behind = memo(function Behind({ level }: { level: string }) {
  const dispatch = useAppDispatch()
  const { behind } = useViewState('behind')
  const ids = useOf(({ project, scheme }) => storeysOf(levelHeights(project, scheme)).map((l) => l.id))
  const names = useOf(({ scheme }) => ids.map((id) => scheme.levels[id]?.name))
  return (
    <select
      aria-label="level behind"
      title="Another level's plan, faintly"
      className="max-w-28 min-w-0 flex-1 cursor-pointer rounded bg-transparent"
      value={behind ?? ''}
      onChange={(e) => dispatch(behindChosen(e.target.value || null))}
    >
      <option value="" className="bg-panel">
        behind: none
      </option>
      {ids
        .map((id, i) => ({ id, name: names[i] }))
        .reverse()
        .filter(({ id }) => id !== level)
        .map(({ id, name }) => (
          <option key={id} value={id} className="bg-panel">
            behind: {name}
          </option>
        ))}
    </select>
  )
})

// One object each, so that they are not drawn again with every height.
const DOWN = <ChevronDown size={13} />
const UP = <ChevronUp size={13} />
const NEW = <Plus size={12} />

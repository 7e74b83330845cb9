import { memo } from 'react'
import { useOf, useViewState } from '../app/hooks'
import { useAppDispatch, useAppSelector } from '../app/store'
import { panesChosen, picksChosen, setBeside, viewsToggled, type Panes } from '../app/view-slice'
import { PICKS } from '../verbs/seeing'

const CHOICES: { id: Panes; label: string }[] = [
  { id: '3d', label: '3D' },
  { id: 'plan', label: 'Plan' },
  { id: 'both', label: 'Side by side' },
  { id: 'elevation', label: 'Elevation' },
  { id: 'section', label: 'Section' },
  { id: 'four', label: 'Four' },
]

/** Over the stage: which panes there are, what they show, and what a click picks. */
export const ViewButtons = memo(function ViewButtons({ picks, fit }: { picks: boolean; fit: () => void }) {
  const dispatch = useAppDispatch()
  const { panes, beside, viewsOpen, kept } = useViewState('panes', 'beside', 'viewsOpen', 'kept')
  const keptName = useOf(({ scheme }) => (kept ? scheme.views[kept]?.name : undefined))
  const several = useOf(({ project }) => Object.values(project.schemes).filter((s) => !s.aside).length > 1)
  return (
    <div className="absolute left-3 top-3 flex gap-1.5" role="group" aria-label="Views">
      {CHOICES.map((c) => (
        <button
          key={c.id}
          className="btn btn-xs rounded-full font-normal"
          aria-pressed={!beside && panes === c.id}
          onClick={() => dispatch(panesChosen(c.id))}
        >
          {c.label}
        </button>
      ))}
      {several && (
        <button
          className="btn btn-xs rounded-full font-normal"
          aria-pressed={beside !== null}
          title="The schemes beside one another, in step"
          onClick={() => dispatch(setBeside(beside === null ? '3d' : beside === '3d' ? 'plan' : null))}
        >
          {beside === 'plan' ? 'Schemes, in plan' : 'Schemes'}
        </button>
      )}
      <button className="btn btn-xs rounded-full font-normal" onClick={fit} title="Show everything (F)" data-fit>
        Show all
      </button>
      <button
        className="btn btn-xs rounded-full font-normal max-w-44 truncate"
        aria-pressed={viewsOpen}
        title="Kept views, and what is shown (V)"
        onClick={() => dispatch(viewsToggled(!viewsOpen))}
      >
        Views{keptName ? `: ${keptName}` : ''}
      </button>
      {picks && <Picks />}
    </div>
  )
})

/** What a click picks. */
function Picks() {
  const dispatch = useAppDispatch()
  const picks = useAppSelector((s) => s.view.picks)
  return (
    <label
      className="ml-1 flex items-center gap-1 text-[12px] text-ink2"
      title="What a click picks (E goes to the next); Alt-click picks a face"
    >
      picks
      <select
        className="cursor-pointer rounded-full border border-line bg-panel px-2 py-0.5 text-ink"
        value={picks}
        onChange={(e) => dispatch(picksChosen(e.target.value as typeof picks))}
      >
        {PICKS.map((p) => (
          <option key={p.picks} value={p.picks}>
            {p.label}
          </option>
        ))}
      </select>
    </label>
  )
}

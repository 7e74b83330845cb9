import { uprightFrame, type Upright } from '@geotome/core/slice'
import { tidy } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { useProject, useViewState } from '../app/hooks'
import { useAppDispatch } from '../app/store'
import { elevationFrom, sectionAt } from '../app/view-slice'
import { NumField } from '../common/NumField'
import { sectionGrip } from '../tools/handles/section'
import { useHold } from '../tools/hold'
import { toPane, type View } from './camera'

/** The sides that one looks from; project north is up in plan. */
const SIDES = [
  { azimuth: -90, label: 'south' },
  { azimuth: 0, label: 'east' },
  { azimuth: 90, label: 'north' },
  { azimuth: 180, label: 'west' },
]

/** Which way an elevation looks from, or where a section cuts. */
export function UprightBar({ pane, middle, narrow }: { pane: 'elevation' | 'section'; middle: Vec2; narrow: boolean }) {
  const dispatch = useAppDispatch()
  const { elevation, section } = useViewState('elevation', 'section')
  const azimuth = pane === 'elevation' ? elevation : (section?.azimuth ?? -90)
  const choose = (a: number) => {
    if (pane === 'elevation') dispatch(elevationFrom(a))
    else dispatch(sectionAt(through(a, middle)))
  }
  return (
    <div
      className={`absolute left-3 z-10 flex items-end gap-1 whitespace-nowrap ${narrow ? 'bottom-1.5' : 'bottom-(--foot)'}`}
      role="group"
      aria-label={pane === 'elevation' ? 'Elevation from' : 'Section seen from'}
      onPointerDown={(e) => e.stopPropagation()}
    >
      <span className="pb-1 text-[11px] italic text-ink2">{narrow && pane === 'section' ? '' : `${pane} from`}</span>
      {SIDES.map((s) => (
        <button
          key={s.label}
          className="btn btn-xs rounded-full font-normal h-5 px-2 text-[11px]"
          aria-pressed={Math.abs(azimuth - s.azimuth) < 0.5}
          onClick={() => choose(s.azimuth)}
        >
          {s.label}
        </button>
      ))}
      {pane === 'section' && section && (
        <div className={`-mb-1.5 ${narrow ? 'w-24' : 'w-32'}`}>
          <NumField
            label="at"
            compact
            value={-section.toward}
            onAccept={(_, v) => {
              dispatch(sectionAt({ ...section, toward: tidy(-v) }))
            }}
          />
        </div>
      )}
    </div>
  )
}

/** The plane through a point, looked at from a side. */
export const through = (azimuth: number, [x, y]: Vec2): Upright => {
  const { toward } = uprightFrame(azimuth)
  return { azimuth, toward: tidy(Math.round((toward[0] * x + toward[1] * y) * 10) / 10) }
}

/** The section's line in plan, with arrows the way it looks; dragged to and fro by the stride. */
export function SectionLine({ view, size, origin, reach }: { view: View; size: Vec2; origin: Vec2; reach: number }) {
  const dispatch = useAppDispatch()
  const { project } = useProject()
  const { section, panes } = useViewState('section', 'panes')
  const { hold, moves } = useHold<'section'>()
  if (!section || (panes !== 'section' && panes !== 'four')) return null
  const { right, toward } = uprightFrame(section.azimuth)
  const middle: Vec2 = [view.target[0], view.target[1]]
  const by =
    section.toward - (toward[0] * origin[0] + toward[1] * origin[1]) - (toward[0] * middle[0] + toward[1] * middle[1])
  const at = (u: number, d: number) =>
    toPane(view, size, [
      middle[0] + right[0] * u + toward[0] * (by + d),
      middle[1] + right[1] * u + toward[1] * (by + d),
      0,
    ])
  const [a, b] = [at(-reach, 0), at(reach, 0)]
  const arrow = (u: number) => {
    const p = at(u, 0)
    const q = at(u, -14 / view.scale)
    return `M${p[0]} ${p[1]}L${q[0]} ${q[1]}`
  }
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden>
      <g stroke="var(--cut)" strokeWidth={1.4} fill="none">
        <path d={`M${a[0]} ${a[1]}L${b[0]} ${b[1]}`} strokeDasharray="16 4 3 4" />
        <path d={arrow(-reach) + arrow(reach)} strokeWidth={2} />
      </g>
      <path
        d={`M${a[0]} ${a[1]}L${b[0]} ${b[1]}`}
        stroke="transparent"
        strokeWidth={12}
        className="pointer-events-auto cursor-move"
        data-section-line
        onPointerDown={(e) => {
          e.stopPropagation()
          hold(
            e,
            'section',
            sectionGrip(section, [e.clientX, e.clientY], view.scale, project.stride.length, (to) =>
              dispatch(sectionAt(to)),
            ),
          )
        }}
        {...moves}
      />
    </svg>
  )
}

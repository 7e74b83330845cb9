import { Plus, Rows3, Table2 } from 'lucide-react'
import {
  memo,
  useCallback,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent as PE,
  type RefObject,
} from 'react'
import { levelHeights, oneFloors, type LevelHeight } from '@geotome/core/levels'
import { areaSign, showNumber } from '@geotome/core/project'
import { useProject, useShownAs, useStudy, useUses } from '../app/hooks'
import { store, useAppDispatch, useAppSelector } from '../app/store'
import { levelShown, picked, sheetOpened, storeysChosen } from '../app/view-slice'
import { worldNow } from '../tools/at-work'
import { levelGrip } from '../tools/handles/level'
import type { HeldAt } from '../tools/hand'
import { useHold, useSaid } from '../tools/hold'
import { AddLevels } from './AddLevels'
import { deleteLevels } from './delete-level'
import { AXIS, FloorBar, LevelLine, WIDTH } from './Bars'
import { LevelEntry } from './LevelEntry'
import { LevelLabel, type SpineHand } from './LevelLabel'
import { useGoAlong } from './go-along'
import { spineScale, spreadLabels } from './layout'
import { UsePatterns } from '../common/use-marks'

/** The spine: all levels to scale, each floor a bar of its uses. Drag a level, click a floor, type a name or a height in place. */
export function Spine() {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const study = useStudy()
  const uses = useUses()
  const shownAs = useShownAs()
  const shown = useAppSelector((s) => s.view.level)
  const pickedLevels = useAppSelector((s) => (s.view.picked.kind === 'level' ? s.view.picked.ids : EMPTY))
  const chosenStoreys = useAppSelector((s) => s.view.storeys)
  const box = useRef<HTMLDivElement>(null)
  const entry = useRef<HTMLInputElement>(null)
  const [length, setLength] = useState(600)
  const { held: drag, said, hold, moves } = useHold<string>('apart')
  const [adding, setAdding] = useState(false)
  const more = useCallback(() => setAdding(true), [])
  const frozen = useRef<ReturnType<typeof spineScale> | null>(null)

  useEffect(() => {
    const element = box.current
    if (!element) return
    const observer = new ResizeObserver(() => setLength(element.clientHeight))
    observer.observe(element)
    return () => observer.disconnect()
  }, [])

  const levels = levelHeights(project, scheme)
  const top = Math.max(0, ...(study?.masses ?? []).map((m) => m.top))
  // While a level is dragged the scale stands still under the pointer.
  const scale = frozen.current && drag ? frozen.current : spineScale(levels, top, length)
  const labels = spreadLabels(
    levels.map((l) => ({ id: l.id, y: scale.y(l.height) })),
    15,
    14,
    length - 6,
    new Set(shown ? [shown] : []),
  )
  const floors = new Map((study?.floors ?? []).map((f) => [f.level, f]))
  const most = Math.max(1, ...[...floors.values()].map((f) => f.area))
  // Room for the figure behind the longest bar.
  const perArea = (WIDTH - AXIS - Math.max(50, 16 + 6.8 * showNumber(most, 'area', shownAs, 0).length)) / most
  const at = (z: number) => inPixels(scale.y(z))
  /** px: how high the bar of a storey is, to the next one or to the top */
  const bars = oneFloors(levels)
  const nextUp = new Map(bars.map((f, i) => [f.level.id, bars[i + 1]?.level.height]))
  const highOf = ({ id, height }: LevelHeight) => {
    const next = nextUp.get(id) ?? Math.max(height + 2, Math.min(top, height + 4))
    return Math.max(2, inPixels((next - height) / scale.perPixel - 3))
  }
  useGoAlong(box, levels, scale, drag?.key ?? null)
  const marks = levels.filter((l) => l.kind === 'mark').map((l) => at(l.height))

  const show = (id: string, more = false) => {
    const { picked: now, storeys: own } = store.getState().view
    // With masses picked, Shift chooses the storeys that what is done with them acts on.
    if (more && now.kind === 'mass' && scheme.levels[id]?.kind === 'storey') {
      dispatch(storeysChosen(own.includes(id) ? own.filter((s) => s !== id) : [...own, id]))
      return
    }
    dispatch(levelShown(id))
    dispatch(
      picked({
        kind: 'level',
        ids: more ? (pickedLevels.includes(id) ? pickedLevels.filter((p) => p !== id) : [...pickedLevels, id]) : [id],
      }),
    )
  }
  const down = (id: string, e: PE) => {
    const world = worldNow()
    if (e.button !== 0 || !world) return
    frozen.current = scale
    const done = [() => dispatch(levelShown(id)), () => dispatch(picked({ kind: 'level', ids: [id] }))]
    const then = { click: (up: HeldAt) => show(id, up.shift), done }
    hold(e, id, levelGrip(id, [e.clientX, e.clientY], scale.perPixel, world, then))
  }
  const key = (id: string, e: KeyboardEvent) => {
    if ((e.target as HTMLElement).tagName === 'INPUT') return
    const i = levels.findIndex((l) => l.id === id)
    const next = e.key === 'ArrowUp' ? levels[i + 1] : e.key === 'ArrowDown' ? levels[i - 1] : null
    if (next) {
      e.preventDefault()
      show(next.id)
      document.querySelector<HTMLElement>(`[data-level="${next.id}"]`)?.focus()
    }
    if (e.key === 'Delete') {
      e.preventDefault()
      void deleteLevels(pickedLevels.includes(id) ? pickedLevels : [id])
    }
    if (e.key === ' ') {
      e.preventDefault()
      show(id, e.shiftKey)
    }
  }

  // The labels are given one object for ever, so that one which stays as it is is not drawn again.
  const latest = useRef<SpineHand | null>(null)
  useLayoutEffect(() => {
    const { onPointerMove: move, onPointerUp: up, onPointerCancel: cancel } = moves
    latest.current = { down, key, show: (id) => show(id), move, up, cancel }
  })
  const [hand] = useState<SpineHand>(() => ({
    down: (id, e) => latest.current?.down(id, e),
    key: (id, e) => latest.current?.key(id, e),
    show: (id) => latest.current?.show(id),
    move: (e) => latest.current?.move(e),
    up: (e) => latest.current?.up(e),
    cancel: (e) => latest.current?.cancel(e),
  }))

  return (
    <aside className="flex w-[248px] shrink-0 flex-col border-r border-line bg-panel" aria-label="Spine">
      <div className="flex h-10 items-center justify-between px-3.5">
        <h2 className="eyebrow">Spine</h2>
        <span className="text-[12px] text-ink2">{areaSign(project)} by level</span>
      </div>
      <div ref={box} className="relative min-h-0 flex-1 overflow-hidden">
        <svg
          width={WIDTH}
          height={length}
          // What is said of the level in hand stands over all labels.
          className={`absolute inset-0 ${drag ? 'z-10' : ''}`}
          aria-hidden
          {...moves}
        >
          <UsePatterns uses={uses} />
          <line
            x1={AXIS}
            x2={AXIS}
            y1={scale.y(Math.max(top, levels.at(-1)?.height ?? 0)) - 4}
            y2={scale.y(Math.min(0, levels[0]?.height ?? 0)) + 4}
            stroke="var(--ink3)"
            strokeWidth={1.6}
          />
          {levels.map((l) => {
            const y = at(l.height)
            // Of storeys at one height one has the bar: they are one floor.
            const hasBar = nextUp.has(l.id)
            const high = hasBar ? highOf(l) : 0
            return (
              <g key={l.id} data-row={l.id} transform={`translate(0 ${y})`}>
                {hasBar && (
                  <FloorBar
                    id={l.id}
                    area={floors.get(l.id)?.area ?? null}
                    by={floors.get(l.id)?.uses ?? NOTHING}
                    uses={uses}
                    perArea={perArea}
                    high={high}
                    on={l.id === shown}
                    marked={marks.some((mark) => Math.abs(mark - (y - high / 2)) < 14)}
                    shownAs={shownAs}
                    hand={hand}
                  />
                )}
                <LevelLine id={l.id} kind={l.kind} on={l.id === shown} hand={hand} />
              </g>
            )
          })}
          {drag && (
            <g
              data-row={drag.key}
              transform={`translate(0 ${scale.y(levels.find((l) => l.id === drag.key)?.height ?? 0)})`}
            >
              <DragSays said={said} />
            </g>
          )}
        </svg>
        <ul aria-label="Levels, from the top" className="contents">
          {[...levels].reverse().map((l) => {
            const y = labels.get(l.id)
            return y === undefined ? null : (
              <LevelLabel
                key={l.id}
                id={l.id}
                name={l.name}
                kind={l.kind}
                height={l.height}
                y={inPixels(y)}
                on={l.id === shown}
                chosen={pickedLevels.includes(l.id) || chosenStoreys.includes(l.id)}
                area={floors.get(l.id)?.area ?? null}
                shownAs={shownAs}
                hand={hand}
              />
            )
          })}
        </ul>
      </div>
      <LevelEntry field={entry} />
      <Foot entry={entry} more={more} />
      {adding && <AddLevels how="many" above={shown} onClose={() => setAdding(false)} />}
    </aside>
  )
}

/** What is said of the level that is dragged. */
function DragSays({ said }: { said: ReturnType<typeof useHold>['said'] }) {
  const [height = '', above = '', along = ''] = useSaid(said)
  return (
    <>
      <rect
        x={AXIS + 2}
        y={along ? -48 : -34}
        width={121}
        height={along ? 46 : above ? 32 : 18}
        rx={4}
        fill="var(--panel)"
        stroke="var(--ink3)"
      />
      <text x={AXIS + 7} y={along ? -35 : -21} fontSize={12} fontWeight={700} fill="var(--ink)">
        {height}
      </text>
      <text x={AXIS + 7} y={along ? -22 : -8} fontSize={9} fill="var(--ink2)">
        {above}
      </text>
      <text x={AXIS + 7} y={-8} fontSize={9} fill="var(--ink2)">
        {along}
      </text>
    </>
  )
}

/** Adding levels, and all of them in a table. */
const Foot = memo(function Foot({ entry, more }: { entry: RefObject<HTMLInputElement | null>; more: () => void }) {
  const dispatch = useAppDispatch()
  const sheet = useAppSelector((s) => s.view.sheet)
  return (
    <div className="flex gap-1.5 px-2 pb-2 whitespace-nowrap">
      <button className="btn btn-sm h-7 flex-1 gap-1 px-1 text-[12px]" onClick={() => entry.current?.focus()}>
        <Plus size={13} /> Add level
      </button>
      <button className="btn btn-sm h-7 flex-1 gap-1 px-1 text-[12px]" onClick={more}>
        <Rows3 size={13} /> Add several
      </button>
      <button
        className="btn btn-sm h-7 px-2 text-[12px]"
        aria-label="Table of levels"
        title="All levels in a table (T)"
        onClick={() => dispatch(sheetOpened(sheet === 'levels' ? null : 'levels'))}
      >
        <Table2 size={13} />
      </button>
    </div>
  )
})

const EMPTY: string[] = []
const NOTHING: Record<string, number> = {}
/** px, to a hundredth: what only moves has the same size to the last digit */
const inPixels = (y: number) => Math.round(y * 100) / 100

import {
  useCallback,
  useLayoutEffect,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent as PE,
  type ReactNode,
} from 'react'
import { inside, type Vec2, type Vec3, gapOf } from '@geotome/core/solid'
import { store, useAppDispatch } from '../app/store'
import { hovered, picked } from '../app/view-slice'
import { runner, useRunning, worldNow } from '../tools/at-work'
import { placeGrip } from '../tools/handles/place'
import { useHold, type Grip, type HeldAt } from '../tools/hold'
import { atHeight, facing, orbited, panned, zoomed } from './camera'
import { cornerAt, pickAll } from './picking'
import { isUpright, setView, useView, viewOf, type PaneName } from './views'

interface Props {
  name: PaneName
  label: string
  register: (name: PaneName, box: HTMLDivElement | null) => void
  /** height of the plane that is drawn on, m */
  ground: number
  /** what is cut away above, m */
  cut: number | null
  buried: boolean
  /** whether picked masses can be dragged */
  movable: boolean
  onPointer: (pane: PaneName, at: Vec2) => void
  children: (size: Vec2) => ReactNode
}

/** One view of the stage: drags turn and move it, the wheel zooms, clicks pick or draw. */
export function Pane({ name, label, register, ground, cut, buried, movable, onPointer, children }: Props) {
  const dispatch = useAppDispatch()
  const box = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState<Vec2>([0, 0])
  const view = useView(name)
  const { hold, moves } = useHold<PaneName>()
  const last = useRef<Vec2>([0, 0])
  const tool = useRunning((r) => r?.tool ?? null)
  const atWork = tool && (tool.panes === 'all' || !isUpright(name)) ? tool : null
  const lastClick = useRef<{ at: Vec2; index: number } | null>(null)
  const [behind, setBehind] = useState<{ at: Vec2; ids: string[] } | null>(null)

  useLayoutEffect(() => {
    const element = box.current
    if (!element) return
    register(name, element)
    const measure = () => setSize([element.clientWidth, element.clientHeight])
    // At once, so that no pointer is heard by a pane that does not know its size.
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(element)
    const wheel = (e: WheelEvent) => {
      e.preventDefault()
      const r = element.getBoundingClientRect()
      setView(
        name,
        zoomed(
          viewOf(name),
          [r.width, r.height],
          [e.clientX - r.left, e.clientY - r.top],
          Math.exp(-e.deltaY * 0.0016),
        ),
      )
    }
    element.addEventListener('wheel', wheel, { passive: false })
    return () => {
      observer.disconnect()
      element.removeEventListener('wheel', wheel)
      register(name, null)
    }
  }, [name, register])

  const at = useCallback((e: PE): Vec2 => {
    const r = box.current?.getBoundingClientRect()
    return [e.clientX - (r?.left ?? 0), e.clientY - (r?.top ?? 0)]
  }, [])
  const under = (p: Vec2): string[] => {
    const study = store.getState().view.study
    const hits = pickAll(view, size, p, { from: buried || name !== '3d' ? -1e9 : -0.01, to: cut ?? 1e9 }).map(
      (h) => h.id,
    )
    if (cut === null || !study || isUpright(name)) return hits
    const plane = atHeight(view, size, p, ground)
    const plates = study.floors.find((f) => f.level === store.getState().view.level)?.plates ?? []
    const onPlate = plates
      .filter((pl) => pl.region.reduce((odd, l) => odd !== inside(l, plane), false))
      .map((pl) => pl.mass)
    return [
      ...new Set([...onPlate.filter((id) => name === 'plan' || hits.length === 0 || !hits.includes(id)), ...hits]),
    ]
  }

  const down = (e: PE) => {
    if (e.button === 2 || e.button === 1) e.preventDefault()
    setBehind(null)
    const p = at(e)
    last.current = p
    const { picked: now } = store.getState().view
    const chosen = now.kind === 'mass' ? now.ids : []
    const on = movable && !atWork && e.button === 0 && !e.shiftKey ? under(p)[0] : undefined
    const world = worldNow()
    const click = e.button === 0 ? (up: HeldAt) => press(p, up.shift) : undefined
    const corner: Vec2 = [e.clientX - p[0], e.clientY - p[1]]
    hold(
      e,
      name,
      on !== undefined && chosen.includes(on) && world
        ? placeGrip(chosen, [e.clientX, e.clientY], { view, size, corner, ground }, world, click)
        : viewGrip(e.button === 0 && !e.shiftKey && name === '3d' ? 'turned' : 'moved', corner, click),
    )
  }
  /** The view itself, held. */
  const viewGrip = (how: 'turned' | 'moved', corner: Vec2, click: Grip['click']): Grip => ({
    label: 'look',
    slack: 4,
    ...(click ? { click } : {}),
    answer: ({ at: [x, y] }) => {
      const p: Vec2 = [x - corner[0], y - corner[1]]
      const [dx, dy] = [p[0] - last.current[0], p[1] - last.current[1]]
      last.current = p
      return { say: [], look: () => setView(name, (how === 'turned' ? orbited : panned)(viewOf(name), dx, dy)) }
    },
  })

  const moveOn = (e: PE) => {
    const p = at(e)
    onPointer(name, p)
    if (atWork)
      runner.answer({
        kind: 'move',
        at: {
          raw: fromOrigin(atHeight(view, size, p, ground)),
          spot: atWork.aims === 'space' ? spotAt(p) : null,
          pixel: 1 / view.scale,
          held: e.shiftKey,
          pane: name,
          up: -p[1] / view.scale,
        },
      })
    else if (e.buttons === 0) dispatch(hovered(under(p)[0] ?? null))
    moves.onPointerMove(e)
  }

  /** The point of the model under a pixel: a corner near it, else where the pane's plane or the form is hit. */
  const spotAt = (p: Vec2): { point: Vec3; isCorner: boolean } => {
    const corner = cornerAt(view, size, p, 10)
    const onForm = () => {
      const hit = pickAll(view, size, p, { from: -1e9, to: 1e9 })[0]?.point
      return hit ? ([hit.x, hit.y, hit.z] as Vec3) : ([...atHeight(view, size, p, 0), 0] as Vec3)
    }
    const point =
      corner ??
      (name === 'plan'
        ? ([...atHeight(view, size, p, ground), ground] as Vec3)
        : isUpright(name)
          ? facing(view, size, p)
          : onForm())
    const [x, y] = fromOrigin([point[0], point[1]])
    return { point: [x, y, point[2]], isCorner: corner !== null }
  }

  const press = (p: Vec2, more: boolean) => {
    if (atWork) runner.answer({ kind: 'press' })
    else pick(p, more)
  }

  /** Repeated clicks on one spot go to the next thing behind; what lies there is listed. */
  const pick = (p: Vec2, more: boolean) => {
    const ids = under(p)
    const again = lastClick.current && gapOf(lastClick.current.at, p) < 5
    const index = again && ids.length ? ((lastClick.current?.index ?? 0) + 1) % ids.length : 0
    lastClick.current = { at: p, index }
    const id = ids[index]
    setBehind(again && ids.length > 1 ? { at: p, ids } : null)
    choose(id, more)
  }

  const choose = (id: string | undefined, more: boolean) => {
    const { study, picked: old } = store.getState().view
    if (!id) {
      dispatch(picked({ kind: 'nothing' }))
      return
    }
    const kind = study?.parts.some((part) => part.id === id) ? 'part' : 'mass'
    const ids =
      more && old.kind === kind ? (old.ids.includes(id) ? old.ids.filter((o) => o !== id) : [...old.ids, id]) : [id]
    dispatch(picked(ids.length ? { kind, ids } : { kind: 'nothing' }))
  }

  /** The view by keyboard: arrows turn it (with Shift, and in plan: move it), plus and minus zoom. */
  const keys = (e: KeyboardEvent) => {
    if (e.target !== e.currentTarget || e.ctrlKey || e.metaKey || e.altKey) return
    const step = (
      { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] } as Record<string, Vec2>
    )[e.key]
    const zoom = ({ '+': 1.2, '=': 1.2, '-': 1 / 1.2 } as Record<string, number>)[e.key]
    if (!step && !zoom) return
    e.preventDefault()
    if (zoom) setView(name, zoomed(viewOf(name), size, [size[0] / 2, size[1] / 2], zoom))
    else if (step)
      setView(
        name,
        name === '3d' && !e.shiftKey
          ? orbited(viewOf(name), step[0] * 20, step[1] * 20)
          : panned(viewOf(name), -step[0] * 40, -step[1] * 40),
      )
  }

  const nameOf = (id: string) => {
    const s = store.getState().view.study
    return s?.masses.find((m) => m.id === id)?.name ?? s?.parts.find((q) => q.id === id)?.name ?? ''
  }
  return (
    <div
      ref={box}
      data-pane={name}
      data-view={JSON.stringify({ ...view, size })}
      className={`relative min-w-0 flex-1 touch-none overflow-hidden ${atWork ? 'cursor-crosshair' : ''}`}
      role="application"
      tabIndex={0}
      aria-roledescription="view"
      aria-label={label}
      onKeyDown={keys}
      onPointerDown={down}
      onPointerMove={moveOn}
      onPointerUp={moves.onPointerUp}
      onPointerCancel={moves.onPointerCancel}
      onPointerLeave={() => dispatch(hovered(null))}
      onContextMenu={(e) => e.preventDefault()}
    >
      {size[0] > 0 && children(size)}
      {behind && (
        <ul
          className="absolute z-20 rounded-md border border-line bg-panel py-1 text-[12px] shadow-sm"
          style={{ left: behind.at[0] + 10, top: behind.at[1] + 10 }}
          onPointerDown={(e) => e.stopPropagation()}
          onPointerUp={(e) => e.stopPropagation()}
        >
          {behind.ids.map((id) => (
            <li key={id}>
              <button
                className="w-full cursor-pointer px-3 py-1 text-left hover:bg-field"
                onClick={() => {
                  choose(id, false)
                  setBehind(null)
                }}
              >
                {nameOf(id)}
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}

const fromOrigin = (p: Vec2): Vec2 => {
  const o = store.getState().view.study?.origin ?? [0, 0]
  return [p[0] + o[0], p[1] + o[1]]
}

import {
  useCallback,
  useLayoutEffect,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent as PE,
  type ReactNode,
} from 'react'
import type { Frame, Vec2, Vec3 } from '@geotome/core/solid'
import { store, useAppDispatch } from '../app/store'
import { hovered, spotHovered } from '../app/view-slice'
import { runner, useRunning, worldNow } from '../tools/at-work'
import { massesMoved, placeGrip, repeatMoved, ruleMoved } from '../tools/handles/place'
import type { Grip, HeldAt } from '../tools/hand'
import { useHold } from '../tools/hold'
import { atHeight, facing, inPlane, metresAlong, orbited, panned, sees, zoomed } from './camera'
import { levelPlane } from '../tools/planes'
import { cornerAt, pickAll } from './picking'
import { spotKind, spotsUnder, thingsUnder, usePicking } from './use-picking'
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
  /** whether faces, edges and corners can be picked */
  spots: boolean
  onPointer: (pane: PaneName, at: Vec2) => void
  children: (size: Vec2) => ReactNode
}

/** One view of the stage: drags turn and move it, the wheel zooms, clicks pick or draw. */
export function Pane({ name, label, register, ground, cut, buried, movable, spots, onPointer, children }: Props) {
  const dispatch = useAppDispatch()
  const box = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState<Vec2>([0, 0])
  const view = useView(name)
  const { hold, moves } = useHold<PaneName>()
  const last = useRef<Vec2>([0, 0])
  const tool = useRunning((r) => r?.tool ?? null)
  const plane = tool && (runner.running()?.plane ?? null)
  const atWork = tool && plane && (tool.aims === 'space' || sees(view, plane)) ? tool : null

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
  const pickedIn = { name, view, size, ground, cut, buried, spots }
  const { behind, pick, choose, forget, nameOf, keyOf } = usePicking(pickedIn)
  const under = (p: Vec2) => thingsUnder(pickedIn, p)

  const down = (e: PE) => {
    if (e.button === 2 || e.button === 1) e.preventDefault()
    forget()
    const p = at(e)
    last.current = p
    const { picked: now, study } = store.getState().view
    const chosen = now.kind === 'mass' ? now.ids : []
    const isSpots = spotKind(pickedIn, e.altKey) !== null
    const on = movable && !atWork && e.button === 0 && !e.shiftKey && !isSpots ? under(p)[0] : undefined
    const world = worldNow()
    const click = e.button === 0 ? (up: HeldAt) => press(p, up) : undefined
    const corner: Vec2 = [e.clientX - p[0], e.clientY - p[1]]
    const grown = on === undefined ? null : (study?.masses.find((m) => m.id === on)?.grown ?? null)
    const from = grown && grown.by === now.kind && now.ids.includes(grown.id) ? grown : null
    const moved = from
      ? from.by === 'rule'
        ? ruleMoved(from.id)
        : repeatMoved(from.id, from.key)
      : on !== undefined && chosen.includes(on)
        ? massesMoved(chosen)
        : null
    hold(
      e,
      name,
      moved && world
        ? placeGrip(moved, [e.clientX, e.clientY], { view, size, corner, ground }, world, click)
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
          raw: inPlane(view, size, p, fromOriginOf(runner.running()?.plane ?? levelPlane(ground))),
          spot: atWork.aims === 'space' ? spotAt(p) : null,
          pixel: 1 / view.scale,
          held: e.shiftKey,
          pane: name,
          up: -p[1] / view.scale,
          out: metresAlong(view, runner.running()?.plane.w ?? [0, 0, 1], p),
        },
      })
    else if (e.buttons === 0) {
      const kind = spotKind(pickedIn, e.altKey)
      dispatch(spotHovered(kind ? (spotsUnder(pickedIn, p, kind)[0] ?? null) : null))
      dispatch(hovered(kind ? null : (under(p)[0] ?? null)))
    }
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

  const press = (p: Vec2, up: HeldAt) => {
    if (atWork) runner.answer({ kind: 'press' })
    else pick(p, up.shift, up.alt)
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
      onPointerLeave={() => {
        dispatch(hovered(null))
        dispatch(spotHovered(null))
      }}
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
          {behind.targets.map((t) => (
            <li key={keyOf(t)}>
              <button
                className="w-full cursor-pointer px-3 py-1 text-left hover:bg-field"
                onClick={() => choose(t, false)}
              >
                {nameOf(t)}
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}

/** A frame in the world, from the view's origin. */
const fromOriginOf = (frame: Frame): Frame => {
  const [ox, oy] = store.getState().view.study?.origin ?? [0, 0]
  return { ...frame, origin: [frame.origin[0] - ox, frame.origin[1] - oy, frame.origin[2]] }
}

const fromOrigin = (p: Vec2): Vec2 => {
  const o = store.getState().view.study?.origin ?? [0, 0]
  return [p[0] + o[0], p[1] + o[1]]
}

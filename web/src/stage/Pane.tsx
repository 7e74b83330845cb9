import {
  useCallback,
  useLayoutEffect,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent as PE,
  type ReactNode,
} from 'react'
import { moveMasses } from '@geotome/core/form'
import { tidy } from '@geotome/core/project'
import { inside, type Vec2 } from '@geotome/core/solid'
import { selectPresent } from '../app/project-slice'
import { makeEdit, tryEdit } from '../app/session'
import { onEscape } from '../common/on-escape'
import { store, useAppDispatch } from '../app/store'
import { hovered, picked } from '../app/view-slice'
import type { PointerAt } from '../form/draw-state'
import { atHeight, orbited, panned, zoomed, type View } from './camera'
import { pickAll } from './picking'
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
  draw: { move: (at: PointerAt) => void; accept: () => void; rising: boolean } | null
  movable: boolean
  /** points are picked to be measured */
  measure: { move: (view: View, size: Vec2, at: Vec2, pane: PaneName, ground: number) => void; pick: () => void } | null
  onPointer: (pane: PaneName, at: Vec2) => void
  children: (size: Vec2) => ReactNode
}

/** One view of the stage: drags turn and move it, the wheel zooms, clicks pick or draw. */
export function Pane({
  name,
  label,
  register,
  ground,
  cut,
  buried,
  draw,
  movable,
  measure,
  onPointer,
  children,
}: Props) {
  const dispatch = useAppDispatch()
  const box = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState<Vec2>([0, 0])
  const view = useView(name)
  const press = useRef<{
    at: Vec2
    last: Vec2
    moved: boolean
    how: 'view' | 'pan' | 'mass'
    ids: string[]
    edit: (() => void) | null
    letGo?: () => void
  } | null>(null)
  const closedAt = useRef<number | null>(null)
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
    box.current?.setPointerCapture(e.pointerId)
    const p = at(e)
    const state = store.getState().view
    const on = under(p)
    const chosen = state.picked.kind === 'mass' ? state.picked.ids : []
    const grab = movable && !draw && e.button === 0 && !e.shiftKey && on[0] !== undefined && chosen.includes(on[0])
    press.current = {
      at: p,
      last: p,
      moved: false,
      how: grab ? 'mass' : e.button === 0 && !e.shiftKey && name === '3d' ? 'view' : 'pan',
      ids: chosen,
      edit: null,
    }
    if (draw && e.button === 0) press.current.how = name === '3d' ? 'view' : 'pan'
    if (press.current.how === 'mass')
      press.current.letGo = onEscape(() => {
        press.current = null
        tryEdit(null)
      })
  }

  const moveOn = (e: PE) => {
    const p = at(e)
    onPointer(name, p)
    if (measure) measure.move(view, size, p, name, ground)
    if (draw) {
      if (draw.rising) closedAt.current ??= p[1]
      else closedAt.current = null
      const world = atHeight(view, size, p, ground)
      draw.move({
        raw: fromOrigin(world),
        pixel: 1 / view.scale,
        held: e.shiftKey,
        rise: closedAt.current === null ? 0 : (closedAt.current - p[1]) / view.scale,
      })
    }
    const now = press.current
    if (!now) {
      if (!draw) dispatch(hovered(under(p)[0] ?? null))
      return
    }
    const [dx, dy] = [p[0] - now.last[0], p[1] - now.last[1]]
    if (!now.moved && Math.hypot(p[0] - now.at[0], p[1] - now.at[1]) < 4) return
    now.moved = true
    now.last = p
    if (now.how === 'view') setView(name, orbited(viewOf(name), dx, dy))
    if (now.how === 'pan') setView(name, panned(viewOf(name), dx, dy))
    if (now.how === 'mass') dragMasses(now, p)
  }

  const dragMasses = (now: NonNullable<typeof press.current>, p: Vec2) => {
    const present = selectPresent(store.getState())
    if (!present || !now.ids.every((id) => present.scheme.masses[id])) return
    const { project, scheme } = present
    const [a, b] = [atHeight(view, size, now.at, ground), atHeight(view, size, p, ground)]
    const stride = project.stride.length
    const by: Vec2 = [
      tidy(Math.round((b[0] - a[0]) / stride) * stride),
      tidy(Math.round((b[1] - a[1]) / stride) * stride),
    ]
    if (nowhere(by)) return
    const edit = () => moveMasses(project, scheme, now.ids, by)
    tryEdit(edit)
    now.edit = () => makeEdit('move', edit)
  }

  const up = (e: PE) => {
    const now = press.current
    press.current = null
    now?.letGo?.()
    if (!now || e.button !== 0) return
    if (now.moved) {
      now.edit?.()
      return
    }
    if (draw) {
      draw.accept()
      return
    }
    if (measure) {
      measure.pick()
      return
    }
    pick(now.at, e.shiftKey || e.ctrlKey)
  }

  /** Repeated clicks on one spot go to the next thing behind; what lies there is listed. */
  const pick = (p: Vec2, more: boolean) => {
    const ids = under(p)
    const again = lastClick.current && Math.hypot(lastClick.current.at[0] - p[0], lastClick.current.at[1] - p[1]) < 5
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
      className={`relative min-w-0 flex-1 touch-none overflow-hidden ${draw || measure ? 'cursor-crosshair' : ''}`}
      role="application"
      tabIndex={0}
      aria-roledescription="view"
      aria-label={label}
      onKeyDown={keys}
      onPointerDown={down}
      onPointerMove={moveOn}
      onPointerUp={up}
      onPointerCancel={() => {
        press.current?.letGo?.()
        press.current = null
        tryEdit(null)
      }}
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

const nowhere = (by: Vec2) => by[0] === 0 && by[1] === 0
const fromOrigin = (p: Vec2): Vec2 => {
  const o = store.getState().view.study?.origin ?? [0, 0]
  return [p[0] + o[0], p[1] + o[1]]
}

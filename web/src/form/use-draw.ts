import { useCallback, useMemo, useRef, useState } from 'react'
import { toast } from 'sonner'
import { neighbourEdit, siteEdit } from '../ground/ground-edits'
import { addHole, newMass, type DrawnShape } from '@geotome/core/form'
import { levelHeights } from '@geotome/core/levels'
import { outlineFault } from '@geotome/core/moves'
import { inOrder, readTyped, Refusal, type Num, type Project, type Scheme } from '@geotome/core/project'
import { bulgeAlong, bulgeThrough, type Vec2 } from '@geotome/core/solid'
import { makeEdit, tryEdit } from '../app/session'
import { useAppDispatch } from '../app/store'
import { picked, toolTaken } from '../app/view-slice'
import { catchPoint, type CatchEdge } from './catching'
import {
  SIDE_KINDS,
  type DrawKind,
  type DrawPurpose,
  type DrawState,
  type PointerAt,
  type SideKind,
  START,
  CLEAR,
  endDirection,
  secondIs,
  round,
} from './draw-state'

/**
 * Drawing a mass, or a hole in one: an outline by clicks and typed lengths in any mix, then the mass's height by moving or typing, caught
 * at levels. Enter accepts, Escape goes one step back. World coordinates in m.
 */
export function useDraw(
  kind: DrawKind,
  holeIn: string | null,
  project: Project,
  scheme: Scheme,
  level: string,
  edges: CatchEdge[],
  purpose: DrawPurpose = 'mass',
  wing: string | null = null,
) {
  const dispatch = useAppDispatch()
  const [state, show] = useState<DrawState>({ ...START, kind })
  // Events may come faster than the page is drawn: each goes on from what the one before it made.
  const latest = useRef(state)
  const setState = useCallback((next: DrawState) => {
    latest.current = next
    show(next)
  }, [])
  const mints = useRef<string[]>([])

  const number = useCallback(
    (text: string, quantity: 'length' | 'angle' = 'length'): number | null => {
      if (!text.trim()) return null
      try {
        return readTyped(text, quantity, project, scheme).value
      } catch (e) {
        if (e instanceof Refusal) return null
        throw e
      }
    },
    [project, scheme],
  )

  /** The point that the next click or Enter sets: what is typed wins over the pointer. */
  const nextPoint = useCallback(
    (s: DrawState): Vec2 | null => {
      const last = s.points.at(-1)
      const at = s.cursor?.point ?? null
      const [first, second] = [number(s.typed[0]), number(s.typed[1], secondIs(s))]
      if (!last) {
        const [x, y] = [first ?? at?.[0], second ?? at?.[1]]
        return x === undefined || y === undefined ? null : [x, y]
      }
      if (s.kind === 'circle') {
        const r = first ?? (at ? Math.hypot(at[0] - last[0], at[1] - last[1]) : null)
        return r ? [round(last[0] + r), last[1]] : null
      }
      if (s.kind === 'rectangle') {
        const [dx, dy] = at ? [at[0] - last[0], at[1] - last[1]] : [1, 1]
        const width = first ?? Math.abs(dx)
        const depth = second ?? Math.abs(dy)
        return width && depth ? [last[0] + width * (dx < 0 ? -1 : 1), last[1] + depth * (dy < 0 ? -1 : 1)] : null
      }
      const length = first ?? (at ? Math.hypot(at[0] - last[0], at[1] - last[1]) : null)
      const angle = second !== null ? (second * Math.PI) / 180 : at ? Math.atan2(at[1] - last[1], at[0] - last[0]) : 0
      if (first === null && second === null) return at
      return length ? [round(last[0] + length * Math.cos(angle)), round(last[1] + length * Math.sin(angle))] : null
    },
    [number],
  )

  /** The bulge of the side that leads to a point. */
  const bulgeTo = useCallback(
    (s: DrawState, to: Vec2): number => {
      const last = s.points.at(-1)
      if (!last || s.kind !== 'polygon' || s.side === 'straight') return 0
      const rise = number(s.typed[2])
      const chord = Math.hypot(to[0] - last[0], to[1] - last[1])
      if (rise !== null && chord > 0) return round((2 * rise) / chord)
      if (s.side === 'arc') return s.through ? round(bulgeThrough(last, s.through, to)) : 0
      const direction = endDirection(s)
      return direction ? round(bulgeAlong(last, direction, to)) : 0
    },
    [number],
  )

  const drawn = useCallback((s: DrawState): DrawnShape => {
    const [a, b] = [s.points[0] ?? [0, 0], s.points[1] ?? [1, 1]] as [Vec2, Vec2]
    if (s.kind === 'rectangle') return { kind: 'rectangle', from: a, to: b }
    if (s.kind === 'circle') return { kind: 'circle', centre: a, radius: round(Math.hypot(b[0] - a[0], b[1] - a[1])) }
    return { kind: 'polygon', points: s.points, bulges: s.points.map((_, i) => s.bulges[i] ?? 0) }
  }, [])

  const massOf = useCallback(
    (s: DrawState, height: Num) => {
      let n = 0
      const mint = () => ((mints.current[n] ??= crypto.randomUUID()), mints.current[n++] as string)
      const names = new Set(
        Object.values(scheme.masses)
          .filter((m) => !mints.current.includes(m.id))
          .map((m) => m.name),
      )
      let count = names.size + 1
      while (names.has(`Mass ${count}`)) count++
      return newMass(scheme, mint, {
        name: `Mass ${count}`,
        use: inOrder(project.uses)[0]?.id ?? '',
        level,
        height,
        upTo: s.upTo && !s.typed[0].trim() ? { level: s.upTo.id, above: 0 } : null,
        shape: drawn(s),
      })
    },
    [scheme, project, level, drawn],
  )

  const preview = useCallback(
    (s: DrawState) => {
      if (s.stage !== 'height') return
      const height = number(s.typed[0]) ?? s.height
      tryEdit(() =>
        purpose === 'neighbour'
          ? neighbourEdit(project, s.points, height, (mints.current[0] ??= crypto.randomUUID()))
          : { edit: 'mass.add', scheme: scheme.id, thing: massOf(s, height) },
      )
    },
    [massOf, number, project, purpose, scheme.id],
  )

  const change = useCallback(
    (next: DrawState) => {
      setState(next)
      preview(next)
    },
    [preview, setState],
  )

  const move = useCallback(
    (at: PointerAt) => {
      const state = latest.current
      const stride = project.stride.length
      if (state.stage === 'height') {
        const levels = levelHeights(project, scheme)
        const base = levels.find((l) => l.id === level)?.height ?? 0
        const raw = START.height + at.rise
        const caught = levels
          .filter((l) => l.height > base + 1e-3 && Math.abs(l.height - base - raw) < 6 * at.pixel)
          .sort((p, q) => Math.abs(p.height - base - raw) - Math.abs(q.height - base - raw))[0]
        change({
          ...state,
          height: caught ? round(caught.height - base) : Math.max(stride, Math.round(raw / stride) * stride),
          upTo: caught ? { id: caught.id, name: caught.name } : null,
        })
      } else
        setState({
          ...state,
          cursor: catchPoint(at.raw, { edges, drawn: state.points, pixel: at.pixel, stride, held: at.held }),
        })
    },
    [change, edges, level, project, scheme, setState],
  )

  const close = useCallback(
    (s: DrawState) => {
      const fault = s.kind === 'polygon' ? outlineFault(s.points, null, s.bulges.some((b) => b !== 0) ? 2 : 3) : null
      if (fault) {
        toast.error(`The outline ${fault.what}. ${fault.remedy}`)
        return
      }
      if (purpose === 'site') {
        if (makeEdit('draw the site', () => siteEdit(project, s.points))) dispatch(toolTaken(null))
        return
      }
      if (purpose === 'wing' && wing) {
        if (
          makeEdit(`outline of ${scheme.wings[wing]?.name ?? 'the wing'}`, {
            edit: 'wing.change',
            scheme: scheme.id,
            id: wing,
            set: { outline: s.points },
          })
        )
          dispatch(toolTaken(null))
        return
      }
      if (holeIn) {
        if (
          makeEdit(`hole in ${scheme.masses[holeIn]?.name ?? 'the mass'}`, () =>
            addHole(project, scheme, holeIn, drawn(s)),
          )
        )
          dispatch(toolTaken(null))
        return
      }
      mints.current = []
      change({ ...s, stage: 'height', typed: CLEAR, cursor: null, through: null })
    },
    [change, dispatch, drawn, holeIn, project, purpose, scheme, wing],
  )

  const finish = useCallback(
    (s: DrawState) => {
      const typed = s.typed[0].trim()
      let height: Num = s.height
      if (typed) {
        try {
          height = readTyped(typed, 'length', project, scheme).num
        } catch (e) {
          if (e instanceof Refusal) {
            toast.error(e.message)
            return
          }
          throw e
        }
      }
      if (purpose === 'neighbour') {
        if (
          makeEdit('draw a neighbour', () =>
            neighbourEdit(project, s.points, height, (mints.current[0] ??= crypto.randomUUID())),
          )
        )
          dispatch(toolTaken(null))
        return
      }
      const mass = massOf(s, height)
      if (makeEdit(`draw ${mass.name}`, { edit: 'mass.add', scheme: scheme.id, thing: mass })) {
        dispatch(toolTaken(null))
        dispatch(picked({ kind: 'mass', ids: [mass.id] }))
      }
    },
    [dispatch, massOf, project, purpose, scheme],
  )

  /** Sets the next point, or accepts the height. */
  const accept = useCallback(
    (byEnter: boolean) => {
      const s = latest.current
      if (s.stage === 'height') {
        finish(s)
        return
      }
      try {
        s.typed.forEach((text, i) => {
          if (text.trim()) readTyped(text, i === 1 ? secondIs(s) : 'length', project, scheme)
        })
      } catch (e) {
        if (e instanceof Refusal) {
          toast.error(e.message)
          return
        }
        throw e
      }
      const closing =
        s.kind === 'polygon' &&
        s.points.length >= 2 &&
        !s.typed[0] &&
        !s.typed[1] &&
        (byEnter ? s.points.length >= 3 || s.bulges.some((b) => b !== 0) : s.cursor?.word === 'close here')
      const point = closing ? (s.points[0] ?? null) : nextPoint(s)
      if (!point) return
      // An arc through three points takes the point in between first.
      if (
        s.kind === 'polygon' &&
        s.side === 'arc' &&
        !s.through &&
        s.points.length &&
        !s.typed[2] &&
        !(closing && byEnter)
      ) {
        setState({ ...s, through: point, typed: CLEAR })
        return
      }
      const last = s.points.at(-1)
      if (!closing && last && Math.hypot(point[0] - last[0], point[1] - last[1]) < 1e-3) return
      const bulges = last ? [...s.bulges.slice(0, s.points.length - 1), bulgeTo(s, point)] : []
      if (closing) {
        if (s.points.length < 3 && bulges.every((b) => b === 0)) return
        close({ ...s, bulges })
        return
      }
      const next: DrawState = { ...s, points: [...s.points, point], bulges, through: null, typed: CLEAR }
      if (s.kind !== 'polygon' && next.points.length === 2) {
        const [a, b] = next.points as [Vec2, Vec2]
        if (s.kind === 'rectangle' && (Math.abs(a[0] - b[0]) < 1e-3 || Math.abs(a[1] - b[1]) < 1e-3)) return
        close(next)
      } else change(next)
    },
    [bulgeTo, change, close, finish, nextPoint, project, scheme, setState],
  )

  const back = useCallback(() => {
    const s = latest.current
    if (s.typed.some(Boolean)) {
      change({ ...s, typed: CLEAR })
      return
    }
    if (s.stage === 'height') {
      tryEdit(null)
      setState({ ...s, stage: 'outline', points: s.kind === 'polygon' ? s.points : s.points.slice(0, 1) })
      return
    }
    if (s.through) {
      setState({ ...s, through: null })
      return
    }
    if (s.points.length)
      setState({ ...s, points: s.points.slice(0, -1), bulges: s.bulges.slice(0, Math.max(0, s.points.length - 2)) })
    else {
      tryEdit(null)
      dispatch(toolTaken(null))
    }
  }, [change, dispatch, setState])

  const type = useCallback(
    (field: 0 | 1 | 2, text: string) =>
      change({
        ...latest.current,
        typed: latest.current.typed.map((t, i) => (i === field ? text : t)) as DrawState['typed'],
      }),
    [change],
  )
  const sideKind = useCallback((side: SideKind) => setState({ ...latest.current, side, through: null }), [setState])
  const nextSideKind = useCallback(
    () => sideKind(SIDE_KINDS[(SIDE_KINDS.indexOf(latest.current.side) + 1) % SIDE_KINDS.length] ?? 'straight'),
    [sideKind],
  )
  const next = useMemo(() => nextPoint(state), [nextPoint, state])
  const bulge = next ? bulgeTo(state, next) : 0
  return { state, next, bulge, holeIn, purpose, move, accept, back, type, sideKind, nextSideKind }
}

export type Drawing = ReturnType<typeof useDraw>

import { useCallback, useMemo, useRef, useState } from 'react'
import { toast } from 'sonner'
import { newMass } from '@geotome/core/form'
import { outlineFault } from '@geotome/core/moves'
import { inOrder, readTyped, Refusal, type Num, type Project, type Scheme } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { makeEdit, tryEdit } from '../app/session'
import { useAppDispatch } from '../app/store'
import { picked, toolTaken } from '../app/view-slice'
import { catchPoint, type Caught } from './catching'

export interface DrawState {
  kind: 'rectangle' | 'polygon'
  stage: 'outline' | 'height'
  points: Vec2[]
  cursor: Caught | null
  /** what is typed into the live fields; empty: the pointer tells */
  typed: [string, string]
  /** m, in the height stage */
  height: number
}

/** Where the pointer is, and how fine it can tell. */
export interface PointerAt { raw: Vec2; pixel: number; held: boolean; /** px the pointer has gone up since the outline was closed */ rise: number }

const START: DrawState = { kind: 'rectangle', stage: 'outline', points: [], cursor: null, typed: ['', ''], height: 9 }

/**
 * Drawing a mass: an outline by clicks and typed lengths in any mix, then its height by moving or typing. Enter accepts, Escape goes
 * one step back. World coordinates in m.
 */
export function useDraw(kind: 'rectangle' | 'polygon', project: Project, scheme: Scheme, level: string, outlines: Vec2[][]) {
  const dispatch = useAppDispatch()
  const [state, setState] = useState<DrawState>({ ...START, kind })
  const mints = useRef<string[]>([])

  const number = useCallback((text: string, quantity: 'length' | 'angle' = 'length'): number | null => {
    if (!text.trim()) return null
    try { return readTyped(text, quantity, project, scheme).value } catch (e) { if (e instanceof Refusal) return null; throw e }
  }, [project, scheme])

  /** The point that the next click or Enter sets: what is typed wins over the pointer. */
  const nextPoint = useCallback((s: DrawState): Vec2 | null => {
    const last = s.points.at(-1)
    const at = s.cursor?.point ?? null
    const [first, second] = [number(s.typed[0]), number(s.typed[1], secondIs(s))]
    if (!last) { const [x, y] = [first ?? at?.[0], second ?? at?.[1]]; return x === undefined || y === undefined ? null : [x, y] }
    if (s.kind === 'rectangle') {
      const [dx, dy] = at ? [at[0] - last[0], at[1] - last[1]] : [1, 1]
      const width = first ?? Math.abs(dx)
      const depth = second ?? Math.abs(dy)
      return width && depth ? [last[0] + width * (dx < 0 ? -1 : 1), last[1] + depth * (dy < 0 ? -1 : 1)] : null
    }
    const length = first ?? (at ? Math.hypot(at[0] - last[0], at[1] - last[1]) : null)
    const angle = second !== null ? second * Math.PI / 180 : at ? Math.atan2(at[1] - last[1], at[0] - last[0]) : 0
    return length ? [round(last[0] + length * Math.cos(angle)), round(last[1] + length * Math.sin(angle))] : null
  }, [number])

  const massOf = useCallback((s: DrawState, height: Num) => {
    let n = 0
    const mint = () => (mints.current[n] ??= crypto.randomUUID(), mints.current[n++] as string)
    const names = new Set(Object.values(scheme.masses).filter((m) => !mints.current.includes(m.id)).map((m) => m.name))
    let count = names.size + 1
    while (names.has(`Mass ${count}`)) count++
    const shape = s.kind === 'rectangle' ? { kind: 'rectangle' as const, from: s.points[0] ?? [0, 0] as Vec2, to: s.points[1] ?? [1, 1] as Vec2 } : { kind: 'polygon' as const, points: s.points }
    return newMass(scheme, mint, { name: `Mass ${count}`, use: inOrder(project.uses)[0]?.id ?? '', level, height, shape })
  }, [project, scheme, level])

  const preview = useCallback((s: DrawState) => {
    if (s.stage !== 'height') return
    const height = number(s.typed[0]) ?? s.height
    tryEdit(() => ({ edit: 'mass.add', scheme: scheme.id, thing: massOf(s, height) }))
  }, [massOf, number, scheme.id])

  const change = useCallback((next: DrawState) => { setState(next); preview(next) }, [preview])

  const move = useCallback((at: PointerAt) => {
    const stride = project.stride.length
    if (state.stage === 'height') change({ ...state, height: Math.max(stride, Math.round((START.height + at.rise) / stride) * stride) })
    else setState({ ...state, cursor: catchPoint(at.raw, { outlines, drawn: state.points, pixel: at.pixel, stride, held: at.held }) })
  }, [change, outlines, project.stride.length, state])

  const close = useCallback((s: DrawState) => {
    const fault = s.kind === 'polygon' ? outlineFault(s.points) : null
    if (fault) { toast.error(`The outline ${fault.what}. ${fault.remedy}`); return }
    mints.current = []
    change({ ...s, stage: 'height', typed: ['', ''], cursor: null })
  }, [change])

  const finish = useCallback((s: DrawState) => {
    const typed = s.typed[0].trim()
    let height: Num = s.height
    if (typed) {
      try { height = readTyped(typed, 'length', project, scheme).num } catch (e) { if (e instanceof Refusal) { toast.error(e.message); return } throw e }
    }
    const mass = massOf(s, height)
    if (makeEdit(`draw ${mass.name}`, { edit: 'mass.add', scheme: scheme.id, thing: mass })) {
      dispatch(toolTaken(null))
      dispatch(picked({ kind: 'mass', ids: [mass.id] }))
    }
  }, [dispatch, massOf, project, scheme])

  /** Sets the next point, or accepts the height. */
  const accept = useCallback((byEnter: boolean) => {
    const s = state
    if (s.stage === 'height') { finish(s); return }
    try { s.typed.forEach((text, i) => { if (text.trim()) readTyped(text, i === 0 ? 'length' : secondIs(s), project, scheme) }) } catch (e) { if (e instanceof Refusal) { toast.error(e.message); return } throw e }
    if (byEnter && s.kind === 'polygon' && s.points.length >= 3 && !s.typed[0] && !s.typed[1]) { close(s); return }
    if (s.kind === 'polygon' && s.cursor?.word === 'close here' && !s.typed[0]) { close(s); return }
    const point = nextPoint(s)
    if (!point) return
    const last = s.points.at(-1)
    if (last && Math.hypot(point[0] - last[0], point[1] - last[1]) < 1e-3) return
    const next: DrawState = { ...s, points: [...s.points, point], typed: ['', ''] }
    if (s.kind === 'rectangle' && next.points.length === 2) {
      const [a, b] = next.points as [Vec2, Vec2]
      if (Math.abs(a[0] - b[0]) < 1e-3 || Math.abs(a[1] - b[1]) < 1e-3) return
      close(next)
    } else change(next)
  }, [state, change, close, finish, nextPoint, project, scheme])

  const back = useCallback(() => {
    const s = state
    if (s.typed[0] || s.typed[1]) { change({ ...s, typed: ['', ''] }); return }
    if (s.stage === 'height') { tryEdit(null); setState({ ...s, stage: 'outline', points: s.kind === 'rectangle' ? s.points.slice(0, 1) : s.points }); return }
    if (s.points.length) setState({ ...s, points: s.points.slice(0, -1) })
    else { tryEdit(null); dispatch(toolTaken(null)) }
  }, [change, dispatch, state])

  const type = useCallback((field: 0 | 1, text: string) => change({ ...state, typed: field === 0 ? [text, state.typed[1]] : [state.typed[0], text] }), [change, state])
  const next = useMemo(() => nextPoint(state), [nextPoint, state])
  return { state, next, move, accept, back, type }
}

export type Drawing = ReturnType<typeof useDraw>

export const drawHint = (s: DrawState): string => {
  if (s.stage === 'height') return 'Move up or down for the height, or type it. Enter or a click accepts, Escape goes back'
  if (s.points.length === 0) return s.kind === 'rectangle' ? 'Click the first corner of the rectangle, or type its place east, Tab, north, Enter' : 'Click the first corner of the outline, or type its place east, Tab, north, Enter'
  if (s.kind === 'rectangle') return 'Click the opposite corner, or type the width, Tab, the depth, Enter'
  return s.points.length < 3 ? 'Click the next corner, or type a length (Tab: direction), Enter. Shift holds to an axis' : 'Click the next corner; Enter or a click on the first corner closes the outline'
}

/** What the second live field measures: the direction of a polygon's side, else a length. */
const secondIs = (s: DrawState): 'angle' | 'length' => (s.kind === 'polygon' && s.points.length > 0 ? 'angle' : 'length')

const round = (v: number) => Math.round(v * 1e6) / 1e6

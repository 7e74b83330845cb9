import { useCallback, useMemo, useRef, useState } from 'react'
import { toast } from 'sonner'
import { MEASURES, nextOrder, Refusal, tidy, valueOf, type MeasureKind, type Project } from '@geotome/core/project'
import type { Vec2, Vec3 } from '@geotome/core/solid'
import { makeEdit } from '../app/session'
import { store } from '../app/store'
import { atHeight, facing, type View } from './camera'
import { cornerAt, pickAll } from './picking'
import { isUpright, type PaneName } from './views'

/** A measure under way on the model: points in the world (m), and the one under the pointer. */
export interface Measuring {
  kind: MeasureKind
  points: Vec3[]
  next: Vec3 | null
  caught: boolean
  move: (view: View, size: Vec2, at: Vec2, pane: PaneName, ground: number) => void
  pick: () => void
  back: () => void
  done: () => void
}

/** Measuring by points picked on the model: corners are caught; a measure with all its points is kept under a name of its own. */
export function useMeasure(kind: MeasureKind, project: Project, leave: () => void): Measuring {
  const [points, setPoints] = useState<Vec3[]>([])
  const [next, setNext] = useState<{ point: Vec3; caught: boolean } | null>(null)
  const latest = useRef<{ points: Vec3[]; next: Vec3 | null }>({ points: [], next: null })
  const set = useCallback((now: Vec3[]) => {
    latest.current.points = now
    setPoints(now)
  }, [])
  const keep = useCallback(
    (all: Vec3[]) => {
      try {
        valueOf(kind, all)
      } catch (e) {
        if (e instanceof Refusal) {
          toast.error(e.message)
          set([])
          return
        }
        throw e
      }
      let n = 1
      const names = new Set(Object.values(project.measures).map((m) => m.name))
      while (names.has(`${kind}_${n}`)) n++
      makeEdit(`measure ${kind}`, {
        edit: 'measure.add',
        thing: {
          id: crypto.randomUUID(),
          name: `${kind}_${n}`,
          order: nextOrder(project.measures),
          kind,
          picture: null,
          points: all,
          same: null,
        },
      })
      set([])
    },
    [kind, project.measures, set],
  )
  const move = useCallback((view: View, size: Vec2, at: Vec2, pane: PaneName, ground: number) => {
    const origin = store.getState().view.study?.origin ?? [0, 0]
    const corner = cornerAt(view, size, at, 10)
    const free: Vec3 =
      pane === 'plan'
        ? [...atHeight(view, size, at, ground), ground]
        : isUpright(pane)
          ? facing(view, size, at)
          : (() => {
              const hit = pickAll(view, size, at, { from: -1e9, to: 1e9 })[0]?.point
              return hit ? [hit.x, hit.y, hit.z] : [...atHeight(view, size, at, 0), 0]
            })()
    const p = corner ?? free
    const point: Vec3 = [
      tidy(Math.round((p[0] + origin[0]) * 1e5) / 1e5),
      tidy(Math.round((p[1] + origin[1]) * 1e5) / 1e5),
      tidy(Math.round(p[2] * 1e5) / 1e5),
    ]
    latest.current.next = point
    setNext({ point, caught: corner !== null })
  }, [])
  const pick = useCallback(() => {
    const { points: now, next: point } = latest.current
    if (!point) return
    const all = [...now, point]
    if (kind !== 'area' && all.length === MEASURES[kind].points[1]) keep(all)
    else set(all)
  }, [keep, kind, set])
  const back = useCallback(() => {
    if (latest.current.points.length) set(latest.current.points.slice(0, -1))
    else leave()
  }, [leave, set])
  const done = useCallback(() => {
    if (kind === 'area' && latest.current.points.length >= 3) keep(latest.current.points)
  }, [keep, kind])
  return useMemo(
    () => ({ kind, points, next: next?.point ?? null, caught: next?.caught ?? false, move, pick, back, done }),
    [kind, points, next, move, pick, back, done],
  )
}

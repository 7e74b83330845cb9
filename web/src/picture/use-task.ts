import { useCallback, useEffect, useRef, useState } from 'react'
import type { Picture } from '@geotome/core/project'
import { selectPresent } from '../app/project-slice'
import { makeEdit } from '../app/session'
import { store, useAppDispatch } from '../app/store'
import { benchOpened } from '../app/view-slice'
import type { BenchEvent, BenchWorld, Picking, Task } from './tasks/kind'
import { afterEvent } from './tasks/run'
import { tellFault } from '../common/tell'

/** What a task sees of this moment; null once its picture is gone. */
export function benchWorld(picture: string): BenchWorld | null {
  const present = selectPresent(store.getState())
  const p = present?.project.pictures[picture]
  return present && p ? { ...present, picture: p, mint: () => crypto.randomUUID() } : null
}

/**
 * Runs a task of the bench: hands it what happens, and does what it answers. Events may come faster than the page is drawn: each goes on
 * from what the one before it made.
 */
export function useTask<S extends Picking>(task: Task<S>, picture: Picture) {
  const dispatch = useAppDispatch()
  const now = useRef<S | null>(null)
  const [state, show] = useState<S>(() => {
    const world = benchWorld(picture.id)
    if (!world) throw new Error('No picture is open.')
    return (now.current = task.begin(world))
  })
  useEffect(() => {
    now.current ??= state
  }, [state])

  /** false where the event is none of the task's business */
  const send = useCallback(
    (event: BenchEvent<S>): boolean => {
      const world = benchWorld(picture.id)
      const before = now.current
      if (!world || !before) return false
      const after = afterEvent(task, before, event, world, makeEdit)
      if (!after) return false
      show((now.current = after.state))
      if (after.refused) tellFault(after.refused)
      if (after.close) dispatch(benchOpened(null))
      return true
    },
    [task, picture.id, dispatch],
  )
  const points = useCallback(() => now.current?.points ?? [], [])
  return { state, send, points }
}

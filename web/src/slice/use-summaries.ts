import { useEffect, useState } from 'react'
import type { SchemeSummary } from '@geotome/core/study'
import { useOf } from '../app/hooks'
import { workerReady } from '../app/study-loop'
import { studyWorker } from '../worker/client'

const NONE: readonly SchemeSummary[] = []

/** All schemes in one glance, computed again whenever the project changes, while they are wanted. */
export function useSummaries(wanted: boolean): readonly SchemeSummary[] {
  const { project } = useOf((at) => ({ project: at.project }))
  const [all, setAll] = useState(NONE)
  useEffect(() => {
    if (!wanted) return
    let mine = true
    void workerReady()
      .then(() => studyWorker.summaries())
      .then((found) => mine && setAll(found))
      .catch(() => mine && setAll(NONE))
    return () => {
      mine = false
    }
  }, [project, wanted])
  return wanted ? all : NONE
}

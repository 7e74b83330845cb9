import { proxy } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import type { Trial } from '@geotome/core/study'
import { studyWorker } from '../worker/client'
import { tellFault } from '../common/tell'

/** Runs trials in the worker; what is known already is shown meanwhile. */
export function useTrials() {
  const [trials, setTrials] = useState<{ dials: string[]; all: Trial[] } | null>(null)
  const [done, setDone] = useState<number | null>(null)
  const now = useRef(0)
  useEffect(
    () => () => {
      now.current++
    },
    [],
  )
  const run = async (scheme: string, dials: string[], values: number[][]) => {
    const mine = ++now.current
    // Each is told twice: with its areas, and once it is known how compact it is.
    const known = new Map<string, Trial>()
    let told = performance.now()
    setTrials({ dials, all: [] })
    setDone(0)
    try {
      await studyWorker.trials(
        scheme,
        dials,
        values,
        proxy((trial: Trial, share: number) => {
          if (mine !== now.current) return false
          known.set(trial.values.join(), trial)
          if (performance.now() - told > 150) {
            told = performance.now()
            setTrials({ dials, all: [...known.values()] })
            setDone(share)
          }
          return true
        }),
      )
    } catch (e) {
      if (mine === now.current) tellFault(e instanceof Error ? e.message : 'The trials could not be made. Try again.')
    }
    if (mine !== now.current) return
    setTrials({ dials, all: [...known.values()] })
    setDone(null)
  }
  const stop = () => {
    now.current++
    setDone(null)
  }
  return { trials, done, run, stop }
}

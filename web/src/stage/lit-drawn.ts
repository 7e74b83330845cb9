import { useMemo } from 'react'
import type { Lit } from '../app/view-slice'
import { fillsOf, outlinesOf } from './batches'
import type { StoredView } from './geometry-store'

/** What a list that is walked lights up on its level: what counts, what does not, and their outlines. */
export function useLit(view: StoredView, lit: Lit | null) {
  return useMemo(() => {
    const z = view.levels.find((l) => l.id === lit?.level)?.height
    if (!lit || z === undefined) return null
    const fill = (region: typeof lit.on) => (region.length ? fillsOf([{ region, z: z + 0.02 }]) : null)
    const lines = [lit.on, lit.off].filter((r) => r.length).map((region) => ({ region, z: z + 0.03 }))
    return { on: fill(lit.on), off: fill(lit.off), lines: outlinesOf(lines) }
  }, [view.levels, lit])
}

import { useSyncExternalStore } from 'react'
import type { View } from './camera'

export type PaneName = '3d' | 'plan' | 'elevation' | 'section'
/** Panes that look at a level: heights are true in them. */
export const isUpright = (pane: PaneName): boolean => pane === 'elevation' || pane === 'section'

/** The views of the stage, beside the store: they change with every frame of a drag. */
let views: Record<PaneName, View> = {
  '3d': { target: [0, 0, 0], azimuth: -38, elevation: 31, scale: 8 },
  plan: { target: [0, 0, 0], azimuth: -90, elevation: 90, scale: 8 },
  elevation: { target: [0, 0, 0], azimuth: -90, elevation: 0, scale: 8 },
  section: { target: [0, 0, 0], azimuth: -90, elevation: 0, scale: 8 },
}
const listeners = new Set<() => void>()

export const allViews = (): Record<PaneName, View> => views
export const viewOf = (pane: PaneName): View => views[pane]

export function setView(pane: PaneName, view: View): void {
  views = { ...views, [pane]: view }
  for (const listen of listeners) listen()
}

export function onViews(listen: () => void): () => void {
  listeners.add(listen)
  return () => listeners.delete(listen)
}

export const useView = (pane: PaneName): View => useSyncExternalStore(onViews, () => views[pane])

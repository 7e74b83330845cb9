import type { View } from './camera'
import { onViews, viewOf, type PaneName } from './views'

/** A part of a canvas: px from its lower left corner, width, height. */
export type Part = readonly [number, number, number, number]

/** Where on a canvas each pane lies, and how it looks. */
export interface Sights {
  /** px */ size(): readonly [number, number]
  partOf(name: PaneName): Part | null
  viewOf(name: PaneName): View
  /** something is held or tried: what is drawn may be rough */ isTried(): boolean
  /** called when a view has changed; ends with what is returned */ onMoved(listen: () => void): () => void
}

/** Where the boxes of panes lie on what holds the canvas. */
export function partsOf(boxes: ReadonlyMap<PaneName, HTMLElement>, holder: Element): Partial<Record<PaneName, Part>> {
  const whole = holder.getBoundingClientRect()
  return Object.fromEntries(
    [...boxes].map(([name, element]) => {
      const box = element.getBoundingClientRect()
      return [name, [box.left - whole.left, whole.bottom - box.bottom, box.width, box.height] as const]
    }),
  )
}

/** The sights of a canvas in the page. `views` are the stage's own unless told otherwise. */
export const sightsOnPage = (
  holder: () => Element | null,
  boxes: ReadonlyMap<PaneName, HTMLElement>,
  views: (name: PaneName) => View = viewOf,
): Sights => ({
  size: () => {
    const box = holder()?.getBoundingClientRect()
    return [box?.width ?? 0, box?.height ?? 0]
  },
  partOf: (name) => {
    const at = holder()
    return (at && partsOf(boxes, at)[name]) ?? null
  },
  viewOf: views,
  isTried: () => false,
  onMoved: onViews,
})

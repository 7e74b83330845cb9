import type { Site } from '../project'
import type { Vec2 } from '../solid'

interface SiteOptions {
  limit?: number | null
  /** m by side, from the first corner on */
  setbacks?: number[]
  slopes?: ({ from: number; angle: number } | null)[]
}

/** A site by its corners, m. */
export const siteWith = (corners: Vec2[], { limit = null, setbacks, slopes }: SiteOptions = {}): Site => ({
  corners: corners.map(([x, y], i) => ({ id: `c${i}`, x, y, setback: setbacks?.[i] ?? 0, slope: slopes?.[i] ?? null })),
  limit,
})

/** A rectangular site from the project's zero, m: sides south, east, north, west. */
export const siteOf = (width: number, depth: number, options: SiteOptions = {}): Site =>
  siteWith(
    [
      [0, 0],
      [width, 0],
      [width, depth],
      [0, depth],
    ],
    options,
  )

import type { LevelHeight } from '@geotome/core/levels'

export interface SpineScale {
  y(z: number): number
  z(y: number): number
  perPixel: number
}

/** Heights to scale over the spine's length, a little air at both ends. */
export function spineScale(levels: LevelHeight[], top: number, length: number): SpineScale {
  const heights = levels.map((l) => l.height)
  const low = Math.min(0, ...heights)
  const high = Math.max(low + 6, top, ...heights) + 0.5
  const [pad0, pad1] = [22, 18]
  const perPixel = (high - low + 1.2) / Math.max(60, length - pad0 - pad1)
  return { y: (z) => pad0 + (high + 0.6 - z) / perPixel, z: (y) => high + 0.6 - (y - pad0) * perPixel, perPixel }
}

/** Moves labels apart that would overprint each other; those that do not fit at all are left out, the kept ones never. */
export function spreadLabels<T extends { id: string; y: number }>(
  items: T[],
  apart: number,
  from: number,
  to: number,
  keep: Set<string>,
): Map<string, number> {
  const room = Math.max(1, Math.floor((to - from) / apart))
  const every = Math.ceil(items.length / room)
  const shown = items.filter((item, i) => every === 1 || i % every === 0 || keep.has(item.id)).sort((a, b) => a.y - b.y)
  const ys = shown.map((s) => s.y)
  for (let i = 1; i < ys.length; i++) ys[i] = Math.max(ys[i] as number, (ys[i - 1] as number) + apart)
  let limit = to
  for (let i = ys.length - 1; i >= 0; i--) {
    ys[i] = Math.min(ys[i] as number, limit)
    limit = (ys[i] as number) - apart
  }
  return new Map(shown.map((s, i) => [s.id, ys[i] as number]))
}

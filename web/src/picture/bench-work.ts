import type { Vec2 } from '@geotome/core/solid'

/** A line drawn over the picture, in its pixels. */
export interface BenchLine {
  points: Vec2[]
  closed: boolean
  tone: 'live' | 'kept' | 'faint'
  label?: string
}

/** What a task's panel works with: the points picked so far, and what is drawn over the picture. */
export interface BenchWork {
  points: Vec2[]
  setPoints: (points: Vec2[]) => void
  setLines: (lines: BenchLine[]) => void
  /** called with each picked point; gives the points that are kept, null to leave it to the bench */ onPick: {
    current: ((p: Vec2) => Vec2[] | null) | null
  }
  onEnter: { current: (() => void) | null }
  /** keys of the task's own; true where one is taken */
  onKey: { current: ((e: KeyboardEvent) => boolean) | null }
}

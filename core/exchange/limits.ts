import { refuse } from '../values'

/** What files may bring, in one place; docs/file-format.md lists it. A reader stops at once where one is passed. */
export const READ_LIMITS = {
  /** bytes of a file with bodies, of one of a site */
  bodyBytes: 100 * 1024 * 1024,
  siteBytes: 120 * 1024 * 1024,
  triangles: 200_000,
  /** points of the ground before they are thinned, and of all lines and outlines */
  points: 8_000_000,
  /** things in a drawing once its blocks are placed, and how deep blocks may stand in one another */
  placed: 500_000,
  depth: 16,
  /** m from zero: what lies farther is no place on the ground */
  far: 2e7,
  /** cells of a grid */
  cells: 60_000_000,
} as const

/** Seconds that a file may take to be read once its reader has started: a busy machine took over 2 s for a sound file of less than 250 kB. */
export const secondsFor = (bytes: number): number => Math.min(120, 3 + bytes / 250_000)

/** Refuses a file that has more of something than is read. Errors: 'file'. */
export const tooMany = (what: string, name: string): never =>
  refuse('file', `"${name}" has too many ${what}.`, 'Export only what is needed, or more coarsely.')

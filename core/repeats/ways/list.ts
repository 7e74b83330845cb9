import { refuse } from '../../values'
import { grid } from './grid'
import type { WayKind } from './kind'
import { line } from './line'
import { once } from './once'
import { path } from './path'
import { points } from './points'
import { round } from './round'
import { sides } from './sides'

/** All ways to repeat in plan; a new one is a file and a line here. */
export const WAYS = [line, grid, round, path, sides, points, once] as const

type WayOf<K> = K extends WayKind<infer W> ? W : never
export type Way = WayOf<(typeof WAYS)[number]>

/** The kind of a way. Errors: 'edit' for one that this version does not know. */
export const wayKind = (way: Pick<Way, 'way'>): WayKind<Way> =>
  (WAYS.find((k) => k.way === way.way) ??
    refuse(
      'edit',
      `"${way.way}" is no way to repeat that this Geotome knows.`,
      'Update Geotome.',
    )) as unknown as WayKind<Way>

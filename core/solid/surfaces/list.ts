import type { Arc } from '../arc'
import type { Placement } from '../place'
import { carriedOver, type CarriedSurface } from './carried'
import { free, type FreeSurface } from './free'
import type { SurfaceKind } from './kind'
import { ruled, type RuledSurface } from './ruled'
import { swept, type SweptSurface } from './swept'
import { keepTilt } from './tilt'
import { turned, type TurnedSurface } from './turned'

/** The true form of a curved face, for which its facets stand. */
export type Surface = SweptSurface | TurnedSurface | RuledSurface | FreeSurface | CarriedSurface<Surface>

/** The arc that a curved face is cut along at a height (m); null where it is not cut along one. */
export const arcAt = (surface: Surface, z: number): Arc | null => kindOf(surface).arcAt(surface, z)

/** The surface placed with its body. */
export const placeSurface = (surface: Surface, at: Placement): Surface =>
  keepTilt(surface, kindOf(surface).placed(surface, at))

/** Whether it is cut along one straight line at every height where it is not cut along an arc. */
export const isRuled = (surface: Surface): boolean => kindOf(surface).ruled(surface)

/** Whether it is unrolled into (m along its arc, height), as a flat face is; else it is taken storey by storey. */
export const unrolls = (surface: Surface): boolean => kindOf(surface).unrolls(surface)

/** A curved face in a word. */
export const surfaceLabel = (surface: Surface): string => kindOf(surface).called(surface)

/** All kinds of surface; a new one is a file and a line here. */
const KINDS = [swept, turned, ruled, free, carriedOver<Surface>({ arcAt, placed: placeSurface })] as const

const byKind = new Map<string, SurfaceKind<Surface>>(
  KINDS.flatMap((k) =>
    k.kinds.map((name): [string, SurfaceKind<Surface>] => [name, k as unknown as SurfaceKind<Surface>]),
  ),
)
const kindOf = ({ kind }: Surface): SurfaceKind<Surface> => byKind.get(kind) as SurfaceKind<Surface>

import type { Arc } from '../arc'
import { carryPlaced, similarityAt, type Carry } from '../carry'
import type { Placement } from '../place'
import type { SurfaceKind } from './kind'

/** A face of a body whose level cuts were turned, shifted or scaled by their height; what it was before lies under it. */
export interface CarriedSurface<S> {
  kind: 'carried'
  under: S | null
  by: Carry
  /** whether it is cut along straight lines still, where it is not cut along arcs */
  ruled: boolean
}

/** The kind of such faces, over what is known of all others. */
export const carriedOver = <S>(over: {
  arcAt(surface: S, z: number): Arc | null
  placed(surface: S, at: Placement): S
}): SurfaceKind<CarriedSurface<S>> => ({
  kinds: ['carried'],
  called: () => 'bent',
  ruled: ({ ruled }) => ruled,
  unrolls: () => false,
  arcAt: ({ under, by }, z) => {
    const arc = under && over.arcAt(under, z)
    if (!arc) return null
    const { scale, turn, move } = similarityAt(by, z)
    const [x, y] = move([arc.x, arc.y])
    return { ...arc, x, y, r: arc.r * scale, from: arc.from + turn }
  },
  placed: (surface, at) => ({
    ...surface,
    under: surface.under && over.placed(surface.under, at),
    by: carryPlaced(surface.by, at),
  }),
})

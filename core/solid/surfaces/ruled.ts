import type { SurfaceKind } from './kind'

/** Between two straight edges at two heights that are not in one plane: it is cut along a straight line at every height. */
export interface RuledSurface {
  kind: 'ruled'
}

export const ruled: SurfaceKind<RuledSurface> = {
  kinds: ['ruled'],
  called: () => 'warped',
  ruled: () => true,
  unrolls: () => false,
  arcAt: () => null,
  placed: () => ({ kind: 'ruled' }),
}

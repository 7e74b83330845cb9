import type { SurfaceKind } from './kind'

/** A curved face of which nothing but its facets is known. */
export interface FreeSurface {
  kind: 'free'
}

export const free: SurfaceKind<FreeSurface> = {
  kinds: ['free'],
  called: () => 'curved',
  ruled: () => false,
  unrolls: () => false,
  arcAt: () => null,
  placed: () => ({ kind: 'free' }),
}

export { arcAt, isRuled, placeSurface, surfaceLabel, unrolls, type Surface } from './list'
export { turnAt, type Twist } from './swept'
export { radiusAt, type TurnedSurface } from './turned'
export { warpOf, type RuledSurface } from './ruled'

export { StudyCache } from './cache'
export * from './study'
export * from './ledger'
export { compareTrace, tracedPlan } from './traces'
export type { Finding } from './finding'
export { CHECKS, NOT_COMPUTED, notComputed } from './findings'
export { sketchOf, SKETCH, type Sketch } from './sketch'
export type { Floor } from './floor'
export { givesFloor } from './special'
export type { Check, Study, Totals } from './types'
export {
  contoursApart,
  NO_ASSETS,
  standingPlan,
  type Assets,
  type GroundStudy,
  type MassGround,
  type NeighbourForm,
} from './ground'
export { marksOf, traceLines, type PictureStudy } from './pictures'
export { sayLimit } from './findings/over-envelope'
export type { WingStudy } from './wings'
export { permittedHeight } from './permitted'
export * from './trials'
export * from './areas'
export * from './target'
export { ratioFloors, sayRatioRule, type RatioBy } from './ratio'

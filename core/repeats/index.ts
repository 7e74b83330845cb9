export { WAYS, wayKind, type Way } from './ways/list'
export { stepped } from './step'
export { pointsOfText } from './points-text'
export { cornerFrame, sideFrame } from './ways/sides'
export type { Begins, Frame, Place, PlanAt, Step, WayKind } from './ways/kind'
export {
  checkRepeat,
  onesOf,
  onesOfWay,
  remarksOn,
  REPEAT_FIELDS,
  RepeatSchema,
  UP_FIELDS,
  WaySchema,
  type One,
  type OwnOfRepeat,
  type Repeat,
  type Up,
} from './schema'

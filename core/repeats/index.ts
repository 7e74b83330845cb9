export { WAYS, wayKind, type Way } from './ways/list'
export type { Begins, Place, Step, WayKind } from './ways/kind'
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
  type Repeat,
  type Up,
} from './schema'

import { warpedFace } from './warped-face'
import type { Check } from '../types'
import { briefMissed } from './brief-missed'
import { driftedPart } from './drifted-part'
import { duplicateBody } from './duplicate-body'
import { fabricOverEnvelope } from './fabric-over-envelope'
import { faultyBody } from './faulty-body'
import { footBelowGround } from './foot-below-ground'
import { leftOutMove } from './left-out-move'
import { levelCutsNothing } from './level-cuts-nothing'
import { levelsAtOneHeight } from './levels-at-one-height'
import { lostChange } from './lost-change'
import { lowHeadroom } from './low-headroom'
import { overEnvelope } from './over-envelope'
import { overPermitted } from './over-permitted'
import { overlap } from './overlap'
import { peakAboveLevel } from './peak-above-level'
import { picturesDisagree } from './pictures-disagree'
import { movesNote } from './moves-note'
import { ratioUnknown } from './ratio-unknown'
import { repeatNote, ruleNote } from './growth-note'
import { sliver } from './sliver'
import { storeyTooLow } from './storey-too-low'
import { thinBody } from './thin-body'
import { tooDeep } from './too-deep'
import { wallGap } from './wall-gap'

export { NOT_COMPUTED, notComputed } from './not-computed'

/** All checks, in the order in which their findings are listed; a new one is a file and a line here. */
export const CHECKS: Check[] = [
  leftOutMove,
  driftedPart,
  faultyBody,
  movesNote,
  repeatNote,
  ruleNote,
  warpedFace,
  thinBody,
  duplicateBody,
  overlap,
  overEnvelope,
  overPermitted,
  fabricOverEnvelope,
  ratioUnknown,
  briefMissed,
  footBelowGround,
  wallGap,
  lostChange,
  lowHeadroom,
  storeyTooLow,
  peakAboveLevel,
  tooDeep,
  sliver,
  levelsAtOneHeight,
  levelCutsNothing,
  picturesDisagree,
]

import type { Check } from '../types'
import { driftedPart } from './drifted-part'
import { levelCutsNothing } from './level-cuts-nothing'
import { lowHeadroom } from './low-headroom'
import { overlap } from './overlap'
import { sliver } from './sliver'

/** All checks, in the order in which their findings are listed; a new one is a file and a line here. */
export const CHECKS: Check[] = [driftedPart, overlap, lowHeadroom, sliver, levelCutsNothing]

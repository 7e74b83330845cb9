import type { Move } from '@geotome/core/moves'
import { body } from './body'
import { combine } from './combine'
import { cut } from './cut'
import { join } from './join'
import { loft } from './loft'
import type { MoveOnPage } from './kind'
import { outline } from './outline'
import { pitch } from './pitch'
import { raise } from './raise'
import { taper } from './taper'

/** The moves that have more on the page than what their kind asks for; the others need no line here. */
export const MOVES_ON_PAGE: { [M in Move['move']]?: MoveOnPage<M> } = {
  outline,
  body,
  raise,
  taper,
  pitch,
  cut,
  combine,
  join,
  loft,
}

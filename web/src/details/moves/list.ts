import type { Move } from '@geotome/core/moves'
import { body } from './body'
import { cut } from './cut'
import { inset } from './inset'
import { join } from './join'
import type { MoveOnPage } from './kind'
import { outline } from './outline'
import { pitch } from './pitch'
import { pull } from './pull'
import { raise } from './raise'
import { scale } from './scale'
import { stepBack } from './step-back'
import { taper } from './taper'
import { twist } from './twist'

/** Every move of the core in the details; the compiler misses those that are not here. */
export const MOVES_ON_PAGE: { [M in Move['move']]: MoveOnPage<M> } = {
  outline,
  inset,
  scale,
  body,
  raise,
  taper,
  twist,
  pitch,
  pull,
  'step-back': stepBack,
  cut,
  join,
}

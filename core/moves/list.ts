import { join } from './join'
import type { MoveKind } from './kind'
import { outline } from './outline'
import { pitch } from './pitch'
import { raise } from './raise'

/** All moves that a recipe can be made of; a new one is a file and a line here. */
export const MOVES = [outline, raise, pitch, join] as const

type MoveOf<K> = K extends MoveKind<infer M> ? M : never
export type Move = MoveOf<(typeof MOVES)[number]>

import { refuse } from '../values'
import { body } from './body'
import { combine } from './combine'
import { cut } from './cut'
import { edging } from './edging'
import { hip } from './hip'
import { inset } from './inset'
import { join, type JoinMove } from './join'
import type { MoveKind } from './kind'
import { loft } from './loft'
import { revolve } from './revolve'
import { sweep } from './sweep'
import { outline } from './outline'
import { mirror } from './mirror'
import { parts } from './parts'
import { patch } from './patch'
import { pitch } from './pitch'
import { pull } from './pull'
import { slope } from './slope'
import { upstand } from './upstand'
import { raise } from './raise'
import { ring } from './ring'
import { round } from './round'
import { scale } from './scale'
import { shiftCorner } from './shift-corner'
import { shiftFace } from './shift-face'
import { soft } from './soft'
import { split } from './split'
import { strips } from './strips'
import { stepBack } from './step-back'
import { bend } from './bend'
import { lean } from './lean'
import { taper } from './taper'
import { twist } from './twist'

/** All moves that a recipe can be made of; a new one is a file and a line here. */
export const MOVES = [
  outline,
  inset,
  scale,
  round,
  strips,
  mirror,
  ring,
  body,
  revolve,
  sweep,
  edging,
  raise,
  loft,
  taper,
  twist,
  pitch,
  hip,
  slope,
  upstand,
  pull,
  patch,
  shiftFace,
  shiftCorner,
  split,
  parts,
  stepBack,
  cut,
  lean,
  bend,
  soft,
  combine,
  join,
] as const

type MoveOf<K> = K extends MoveKind<infer M> ? M : never
/** A join of a body whose recipe is of moves of this list. */
export interface Join extends JoinMove<Move> {
  move: 'join'
}
export type Move = Exclude<MoveOf<(typeof MOVES)[number]>, JoinMove> | Join

/** The kind of a move. Errors: 'geometry' for one that this version does not know. */
export function kindOf(move: Pick<Move, 'move'>): MoveKind<Move> {
  const kind =
    MOVES.find((k) => k.move === move.move) ??
    refuse('geometry', `"${move.move}" is no move that this Geotome knows.`, 'Update Geotome.')
  return kind as unknown as MoveKind<Move>
}

/** What a move is called on its own: "step back". */
export function moveTitle(move: Pick<Move, 'move'>): string {
  const { title, called } = kindOf(move)
  return title ?? called.replace(/^an? /, '')
}

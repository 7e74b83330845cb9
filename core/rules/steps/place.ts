import { angle, length } from '../../moves'
import { tidy, type Num } from '../../values'
import { inRule } from '../cell'
import type { StepBase, StepKind } from './kind'

export interface PlaceStep extends StepBase {
  step: 'place'
  /** m in the rule's frame */ east: Num
  north: Num
  up: Num
  /** degrees, about its middle */ turn: Num
}

/** Moves each, lifts it, turns it about its middle. */
export const place: StepKind<PlaceStep> = {
  step: 'place',
  called: 'place',
  about: 'move, lift or turn each',
  fields: { turn: angle('turn'), east: length('east'), north: length('north'), up: length('up') },
  says: 'turn each by {turn}, move it by {east}, {north}, lift it by {up}',
  starts: () => ({ east: 0, north: 0, up: 0, turn: 0 }),
  each: (cell, s, { numbers }) => {
    const [x, y] = inRule(cell, [0, 0])
    return [
      {
        ...cell,
        x: tidy(x + numbers.length(s.east)),
        y: tidy(y + numbers.length(s.north)),
        up: tidy(cell.up + numbers.length(s.up)),
        turn: tidy(cell.turn + numbers.angle(s.turn)),
      },
    ]
  },
}

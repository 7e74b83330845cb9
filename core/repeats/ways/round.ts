import { angle, length, times } from '../../moves'
import { tidy, type Num } from '../../values'
import { whole, type WayKind } from './kind'

export interface RoundWay {
  way: 'round'
  count: Num
  /** the centre on the site, m */ x: Num
  y: Num
  /** degrees from one to the next; null: evenly all round */ turn: Num | null
}

/** Round a centre, each turned with it. Keys: 2, 3 ... from the original, counter-clockwise. */
export const round: WayKind<RoundWay> = {
  way: 'round',
  called: 'round a centre',
  fields: {
    count: times('in all', { from: 1, to: 2000 }),
    x: length('centre east'),
    y: length('north'),
    turn: angle('each turned by', { otherwise: 'evenly all round' }),
  },
  starts: ({ middle: [x, y], wide, deep }) => ({
    count: 8,
    x: Math.round(x),
    y: Math.round(y - 2 * Math.max(wide, deep)),
    turn: null,
  }),
  places: (w, numbers) => {
    const count = whole(numbers, w.count)
    const turn = w.turn === null ? 360 / count : numbers.angle(w.turn)
    const about: [number, number] = [numbers.length(w.x), numbers.length(w.y)]
    return Array.from({ length: count }, (_, nth) => ({ key: String(nth + 1), nth, step: { about, turn: turn * nth } }))
  },
  moved: (w, [dx, dy], numbers) => ({ x: tidy(numbers.length(w.x) + dx), y: tidy(numbers.length(w.y) + dy) }),
  ring: (w, numbers) => (w.turn === null ? whole(numbers, w.count) : null),
}

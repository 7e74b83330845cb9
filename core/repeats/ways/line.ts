import { direction, length, times } from '../../moves'
import { tidy, TOLERANCE, type Num } from '../../values'
import { whole, type WayKind } from './kind'

export interface LineWay {
  way: 'line'
  count: Num
  /** m from one to the next */ apart: Num
  /** degrees from east to north */ direction: Num
}

/** Along a straight line. Keys: 2, 3 ... from the original. */
export const line: WayKind<LineWay> = {
  way: 'line',
  called: 'along a line',
  fields: {
    count: times('in all', { from: 1, to: 2000 }),
    apart: length('apart'),
    direction: direction('running to', 'site'),
  },
  starts: ({ wide }) => ({ count: 4, apart: Math.max(1, Math.ceil(wide * 1.5)), direction: 0 }),
  places: (w, numbers) => {
    const [apart, a] = [numbers.length(w.apart), (numbers.angle(w.direction) * Math.PI) / 180]
    return Array.from({ length: whole(numbers, w.count) }, (_, nth) => ({
      key: String(nth + 1),
      nth,
      step: { by: [Math.cos(a) * apart * nth, Math.sin(a) * apart * nth] as [number, number] },
    }))
  },
  dragged: (w, key, by, numbers) => {
    const nth = Number.parseInt(key) - 1
    const [apart, a] = [numbers.length(w.apart), (numbers.angle(w.direction) * Math.PI) / 180]
    const [x, y] = [Math.cos(a) * apart * nth + by[0], Math.sin(a) * apart * nth + by[1]]
    const far = Math.hypot(x, y)
    return nth > 0 && far > TOLERANCE.least
      ? { apart: tidy(far / nth), direction: tidy((Math.atan2(y, x) * 180) / Math.PI) }
      : null
  },
}

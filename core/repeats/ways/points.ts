import { refuse, tidy } from '../../values'
import type { Place, WayKind } from './kind'

export interface PointsWay {
  way: 'points'
  /** m on the site: east and north of each in turn */ list: number[]
}

/** At points of the site: typed, or pasted from a table. The original stands at the first. Keys: 2, 3 ... */
export const points: WayKind<PointsWay> = {
  way: 'points',
  called: 'at points',
  fields: { list: { is: 'values', label: 'east, north of each in turn' } },
  starts: ({ middle: [x, y], wide }) => ({ list: [x, y, x + Math.ceil(wide * 2), y] }),
  moved: ({ list }, [dx, dy]) => ({ list: list.map((v, i) => tidy(v + (i % 2 ? dy : dx))) }),
  places: ({ list }) => {
    if (list.length % 2 !== 0)
      refuse(
        'size',
        `${list.length} numbers make no points: the last east has no north.`,
        'Type an even number of them.',
      )
    const [x0 = 0, y0 = 0] = list
    return Array.from({ length: list.length / 2 }, (_, nth): Place => {
      const [x, y] = [list[2 * nth] ?? 0, list[2 * nth + 1] ?? 0]
      return { key: String(nth + 1), nth, step: { by: [x - x0, y - y0] } }
    })
  },
}

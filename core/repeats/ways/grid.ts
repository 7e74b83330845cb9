import { direction, length, times } from '../../moves'
import { tidy, type Num } from '../../values'
import { whole, type WayKind } from './kind'

export interface GridWay {
  way: 'grid'
  columns: Num
  rows: Num
  /** m from one column to the next, and from one row to the next */ apart: Num
  between: Num
  /** degrees from east to north: where rows run to */ direction: Num
}

/** In columns and rows. Keys: column-row, each from 1, the original 1-1. */
export const grid: WayKind<GridWay> = {
  way: 'grid',
  called: 'in a grid',
  fields: {
    columns: times('columns', { from: 1, to: 500 }),
    apart: length('columns apart'),
    rows: times('rows', { from: 1, to: 500 }),
    between: length('rows apart'),
    direction: direction('rows run to', 'site'),
  },
  starts: ({ wide, deep }) => ({
    columns: 3,
    rows: 2,
    apart: Math.max(1, Math.ceil(wide * 1.5)),
    between: Math.max(1, Math.ceil(deep * 1.5)),
    direction: 0,
  }),
  places: (w, numbers) => {
    const [columns, rows] = [whole(numbers, w.columns), whole(numbers, w.rows)]
    const [apart, between] = [numbers.length(w.apart), numbers.length(w.between)]
    const a = (numbers.angle(w.direction) * Math.PI) / 180
    const [c, s] = [Math.cos(a), Math.sin(a)]
    return Array.from({ length: columns * rows }, (_, nth) => {
      const [column, row] = [nth % columns, Math.floor(nth / columns)]
      const [x, y] = [column * apart, row * between]
      return { key: `${column + 1}-${row + 1}`, nth, step: { by: [c * x - s * y, s * x + c * y] as [number, number] } }
    })
  },
  dragged: (w, key, [dx, dy], numbers) => {
    const [column = 0, row = 0] = key.split('-').map((part) => Number.parseInt(part) - 1)
    const a = (numbers.angle(w.direction) * Math.PI) / 180
    const [c, s] = [Math.cos(a), Math.sin(a)]
    return {
      ...(column > 0 ? { apart: tidy(numbers.length(w.apart) + (c * dx + s * dy) / column) } : {}),
      ...(row > 0 ? { between: tidy(numbers.length(w.between) + (c * dy - s * dx) / row) } : {}),
    }
  },
}

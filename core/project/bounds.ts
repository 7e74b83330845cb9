import { refuse } from '../values'

/** JSON may nest so deep: a join of joins of a few storeys stays far below. */
export const MOST_NESTED = 100
/** JSON may hold so many values: the largest project file holds a third. */
export const MOST_VALUES = 5_000_000

const [QUOTE, BACKSLASH, COMMA, OPEN, CLOSE, OPEN_LIST, CLOSE_LIST] = [...'"\\,{}[]'].map((c) => c.charCodeAt(0))

/**
 * Refuses the text of a JSON document that nests too deep or holds too many values. It counts characters only: to parse and check such a
 * document takes seconds. Errors: 'size'.
 */
export function needBounds(text: string): void {
  let [depth, values] = [0, 0]
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i)
    if (c === QUOTE) {
      for (i++; i < text.length && text.charCodeAt(i) !== QUOTE; i++) if (text.charCodeAt(i) === BACKSLASH) i++
    } else if (c === COMMA) values++
    else if (c === OPEN || c === OPEN_LIST) {
      values++
      if (++depth > MOST_NESTED)
        refuse('size', `The JSON nests more than ${MOST_NESTED} times.`, 'Take it apart, and try again.')
    } else if (c === CLOSE || c === CLOSE_LIST) depth--
    if (values > MOST_VALUES)
      refuse('size', `The JSON holds more than ${MOST_VALUES} values.`, 'Divide it, and send it in parts.')
  }
}

/** Whether data holds so few values that all that is wrong in it may be listed. */
export function isSmall(data: unknown, most = 5000): boolean {
  let left = most
  const waits = [data]
  while (waits.length) {
    if (left-- < 0) return false
    const next = waits.pop()
    if (next !== null && typeof next === 'object') {
      const inner = Object.values(next)
      if (inner.length > left) return false
      waits.push(...inner)
    }
  }
  return true
}

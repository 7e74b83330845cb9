import { refuse, type Num, type Numbers } from '../../values'

/** A number that counts. Errors: 'size' where it is not whole. */
export function whole(numbers: Numbers, num: Num, what: string): number {
  const value = numbers.value(num, 'number')
  return Number.isInteger(value) ? value : refuse('size', `${what} is ${value}.`, 'Type a whole number.')
}

import { refuse } from '../values'

/** points that are taken at most */
const MOST = 2000

/**
 * Points of a table as text: east and north (m) are the first two numbers of each line; lines without are headings.
 * Apart by commas, semicolons,
 * tabs or blanks; with semicolons or tabs a comma is a decimal one. Gives east and north of each in turn. Errors:
 * 'file' where there are none, or too many.
 */
export function pointsOfText(text: string): number[] {
  const list = text.split(/\r?\n/).flatMap((line) => {
    const isOwn = /[;\t]/.test(line)
    const bits = line.split(isOwn ? /[;\t]/ : /[,\s]+/).map((bit) => bit.trim().replace(/^"|"$/g, ''))
    const numbers = bits
      .filter((bit) => bit !== '')
      .map((bit) => Number(isOwn ? bit.replace(',', '.') : bit))
      .filter((n) => Number.isFinite(n))
    return numbers.length >= 2 ? numbers.slice(0, 2) : []
  })
  if (list.length === 0)
    return refuse(
      'file',
      'The table has no line with two numbers.',
      'Give east and north of each point in metres, a line each.',
    )
  if (list.length > 2 * MOST)
    return refuse('file', `The table has ${list.length / 2} points; ${MOST} are taken.`, 'Take fewer of them.')
  return list
}

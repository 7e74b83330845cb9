import { loopArea, type Vec2, TOLERANCE } from '../solid'
import { refuse, tidy } from '../values'
import { bearingOf } from './site'

/** One leg of a walk around a site. */
export interface Leg {
  length: number
  /** degrees clockwise from project north */ bearing: number
}

/** A closed walk: its corners, and the leg that leads back to the start; area m2, perimeter m. */
export interface Walk {
  points: Vec2[]
  closing: Leg | null
  area: number
  perimeter: number
}

const WORDS: Record<string, number> = {
  n: 0,
  north: 0,
  ne: 45,
  e: 90,
  east: 90,
  se: 135,
  s: 180,
  south: 180,
  sw: 225,
  w: 270,
  west: 270,
  nw: 315,
}

/**
 * Corners as they are written, one a line: east and north (m) parted by a comma, a semicolon or a space; brackets around them do not
 * matter. `length` reads a length. Errors: 'formula' for a line that is no point, 'outline' for fewer than three.
 */
export function readCorners(text: string, length: (text: string) => number): Vec2[] {
  const rows = text
    .replace(/\)\s*[,;]?\s*\(/g, ')\n(')
    .split('\n')
    .map((r) => r.trim().replace(/^\(|\)$/g, ''))
    .filter(Boolean)
  const points = rows.map((row, i): Vec2 => {
    const parts = row.split(/[;,\t]|\s{2,}/).length === 2 ? row.split(/[;,\t]|\s{2,}/) : row.split(/\s+/)
    if (parts.length !== 2)
      return refuse(
        'formula',
        `Line ${i + 1}, "${row.slice(0, 30)}", is no point.`,
        'Write east and north with a comma between them.',
      )
    return [length(parts[0] ?? ''), length(parts[1] ?? '')]
  })
  return points.length >= 3
    ? points
    : refuse(
        'outline',
        `${points.length} ${points.length === 1 ? 'corner is' : 'corners are'} typed.`,
        'A site needs at least three.',
      )
}

/**
 * Legs as they are written, one a line or separated by semicolons: a length and a direction. A direction is a word (east), a bearing in
 * degrees (90, 90.5°, 90°30'), a quadrant bearing (N 45 E), or a turn from the leg before (left 90, right 12.5). A direction in words may
 * come first, and legs in one line be parted by commas: east 9.4, north 5.6. `lengthOf` reads a length.
 */
export function readLegs(text: string, lengthOf: (text: string) => number): Leg[] {
  const legs: Leg[] = []
  const rows = text
    .split(/[\n;]/)
    .flatMap(severalIn)
    .map((r) => r.trim())
    .filter(Boolean)
    .map(lengthFirst)
  rows.forEach((row, i) => {
    const found =
      /^(.*?)[\s,]+((?:left|right)\s+\S+|[ns]\s*[\d.].*[ew]|[a-z]{1,5}|[-\d.]+\s*(?:°|deg)?(?:\s*[\d.]+\s*['′])?)$/i.exec(
        row,
      )
    if (!found)
      return refuse(
        'formula',
        `Leg ${i + 1}, "${row.slice(0, 40)}", is not understood.`,
        'Write a length and a direction: east, 90°, N 45 E, or left 90.',
      )
    const [, size = '', way = ''] = found
    const length = lengthOf(/^(east|north|west|south)$/i.test(size) ? '' : size)
    if (!(length > 0)) refuse('size', `Leg ${i + 1} is ${length} m long.`, 'Type a length above zero.')
    legs.push({ length, bearing: directionOf(way, legs.at(-1)?.bearing ?? null, i) })
  })
  return legs
}

/** Legs in one line, parted by commas; a comma may also part a length from its direction. */
const severalIn = (row: string): string[] => {
  const parts = row.split(',')
  return parts.length > 1 && parts.every((p) => /\d/.test(p) && /[a-z]/i.test(p)) ? parts : [row]
}

/** "east 9.4" as "9.4 east". */
function lengthFirst(row: string): string {
  const found = /^([a-z]+)\s+(.*\d.*)$/i.exec(row)
  return found && WORDS[(found[1] ?? '').toLowerCase()] !== undefined && !/[ew]\s*$/i.test(found[2] ?? '')
    ? `${found[2]} ${found[1]}`
    : row
}

function directionOf(text: string, before: number | null, i: number): number {
  const way = text.trim().toLowerCase()
  const word = WORDS[way]
  if (word !== undefined) return word
  const turn = /^(left|right)\s+([\d.]+)/.exec(way)
  if (turn) {
    if (before === null)
      return refuse(
        'formula',
        'The first leg has no leg before it to turn from.',
        'Give the first leg a bearing, for example east, or 90°.',
      )
    return (((before + (turn[1] === 'left' ? -1 : 1) * Number(turn[2])) % 360) + 360) % 360
  }
  const degrees = (part: string): number => {
    const m = /^([-\d.]+)\s*(?:°|deg)?\s*(?:([\d.]+)\s*['′]?)?$/.exec(part.trim())
    return m ? Number(m[1]) + (Math.sign(Number(m[1]) || 1) * Number(m[2] ?? 0)) / 60 : NaN
  }
  const quadrant = /^([ns])\s*(.+?)\s*([ew])$/.exec(way)
  const bearing = quadrant
    ? (() => {
        const d = degrees(quadrant[2] ?? '')
        const from = quadrant[1] === 'n' ? 0 : 180
        return from + ((quadrant[1] === 'n') === (quadrant[3] === 'e') ? d : -d)
      })()
    : degrees(way)
  return Number.isFinite(bearing)
    ? ((bearing % 360) + 360) % 360
    : refuse(
        'formula',
        `The direction of leg ${i + 1}, "${text}", is not understood.`,
        'Write east, 90°, N 45 E, or left 90.',
      )
}

/**
 * Walks the legs from a point (m) and closes the outline: the closing leg is computed. Errors: 'outline' where fewer than two legs are
 * given.
 */
export function walk(start: Vec2, legs: Leg[]): Walk {
  if (legs.length < 2) refuse('outline', 'Two legs at least make an outline.', 'Type another length and direction.')
  const points: Vec2[] = [start]
  for (const { length, bearing } of legs) {
    const last = points.at(-1) as Vec2
    const [s, c] = [exact(Math.sin((bearing * Math.PI) / 180)), exact(Math.cos((bearing * Math.PI) / 180))]
    points.push([tidy(last[0] + length * s), tidy(last[1] + length * c)])
  }
  const end = points.at(-1) as Vec2
  const [dx, dy] = [start[0] - end[0], start[1] - end[1]]
  const gap = Math.hypot(dx, dy)
  // A walk that comes back to where it began needs no closing leg.
  if (gap < TOLERANCE.touch) points.pop()
  return {
    points,
    closing: gap < TOLERANCE.touch ? null : { length: tidy(gap), bearing: bearingOf(dx, dy) },
    area: Math.abs(loopArea(points)),
    perimeter: legs.reduce((sum, l) => sum + l.length, 0) + gap,
  }
}

const exact = (v: number) => (Math.abs(v) < TOLERANCE.zero ? 0 : v)

/** A bearing in words where it has one: 180 is south. */
export const sayBearing = (bearing: number): string =>
  (({ 0: 'north', 90: 'east', 180: 'south', 270: 'west', 360: 'north' }) as Record<number, string>)[tidy(bearing)] ??
  `${bearing.toFixed(2)}°`

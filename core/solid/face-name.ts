/**
 * The names of faces, of their pieces, and of stretches of them are a grammar, kept in stored projects (docs/file-format.md):
 *
 *     face     = move "/" own                   the id of the move that made it, and what it made it from
 *     own      = [ hole "/" ] edge              a side: "south", "e3", "round"; one of a hole: "h1/e2"
 *              | "top" | "base" | "left" ...    another face of the move
 *     piece    = face "~" face { "+" face }     a face that falls apart: each piece by the faces that border it, sorted
 *
 *     strip    = [ face ] ">" [ face ]          a piece of a face between two heights, by the faces at its two ends
 *     stretch  = mass ">" mass [ ":" number ]   what other masses leave of a strip, by the masses at its two ends
 *     place    = [ strip ] [ "#" stretch ]      where on its face a wall stands; empty: all there is
 *
 * Everything that builds or takes apart such a name does it here.
 */
export interface FaceName {
  move: string
  own: string
  /** the faces that border it, where it is one of several pieces; else none */
  borders: string[]
}

/** The name of a face by the move that made it and what it was made from. */
export const faceName = (move: string, ...own: string[]): string => [move, ...own].join('/')

/** The own name of an edge of a hole. */
export const inHole = (hole: string, edge: string): string => `${hole}/${edge}`

/** The name of a piece of a face by the faces that border it, in any order. */
export const pieceOfFace = (face: string, borders: Iterable<string>): string =>
  `${face}~${[...new Set(borders)].sort().join('+')}`

/** A name taken apart. Names of faces that were read from files are made by us too, so that none is without a move. */
export function parseFaceName(name: string): FaceName {
  const [raw, rest] = halves(name, '~')
  const [move, own] = halves(raw, '/')
  return { move, own: own ?? '', borders: rest ? rest.split('+') : [] }
}

/** The name of its parts: the reverse of parseFaceName. */
export function printFaceName({ move, own, borders }: FaceName): string {
  return borders.length ? pieceOfFace(faceName(move, own), borders) : faceName(move, own)
}

/** A face's name without what tells its pieces apart. */
export const rawName = (name: string): string => halves(name, '~')[0]

/** The id of the move that made a face. */
export const moveOf = (name: string): string => halves(name, '/')[0]

/**
 * A face's name as a person reads it: "top", "south side 2", "court, looking south". `titles` says what sides are called, by their name or
 * by their own name; without it they have the numbers that they were drawn with.
 */
export function faceLabel(name: string, titles: ReadonlyMap<string, string> = NO_TITLES): string {
  const { own, borders } = parseFaceName(name)
  return `${titles.get(rawName(name)) ?? labelOf(own.split('/'), titles)}${borders.length ? ', a piece' : ''}`
}
const NO_TITLES: ReadonlyMap<string, string> = new Map()

/** The parts of an own name as words: a side of a hole, a side, or a word of the move that made it. */
function labelOf([first = '', ...rest]: string[], titles: ReadonlyMap<string, string>): string {
  const inHole = rest[0] === undefined ? undefined : titles.get(`${first}/${rest[0]}`)
  const [word, more] = inHole
    ? [inHole, rest.slice(1)]
    : [titles.get(first) ?? first.replace(/^e(\d+)$/, 'side $1'), rest]
  return more.length ? `${word} ${labelOf(more, titles)}` : word
}

/** A face's own name for files that other programs read: "south", "h1-e2". */
export const faceFileName = (name: string): string => name.split('/').slice(1).join('-')

/** The name of a strip by the faces at its ends; '' where there is none. */
export const stripName = (left: string, right: string): string => `${left}>${right}`

/** Whether a strip goes all round its face: it is its own neighbour. */
export const goesRound = (strip: string, face: string): boolean => strip === stripName(face, face)

/** The name of what other masses leave of a strip; `nth` counts those with the same masses at their ends, from 1. */
export const stretchName = (left: string, right: string, nth = 1): string =>
  `${left}>${right}${nth > 1 ? `:${nth}` : ''}`

/** The masses at the two ends of a stretch; '' where it ends at none. */
export function stretchEnds(stretch: string): [left: string, right: string] {
  const [left, right] = halves(stretch, '>')
  return [left, halves(right ?? '', ':')[0]]
}

/** Where on its face a wall stands: a strip, and a stretch of it. */
export interface WallPlace {
  strip: string
  /** null: all that there is of the strip */
  stretch: string | null
}

/** A place taken apart. */
export function parseWallPlace(place: string): WallPlace {
  const [strip, stretch] = halves(place, '#')
  return { strip, stretch }
}

/** The place of its parts: the reverse of parseWallPlace. */
export const printWallPlace = ({ strip, stretch }: WallPlace): string =>
  stretch === null ? strip : `${strip}#${stretch}`

/** The strip that a wall stands on. */
export const stripOf = (place: string): string => halves(place, '#')[0]

/** The same place on another strip. */
export const onStrip = (strip: string, place: string): string =>
  printWallPlace({ strip, stretch: parseWallPlace(place).stretch })

function halves(text: string, at: string): [string, string | null] {
  const i = text.indexOf(at)
  return i < 0 ? [text, null] : [text.slice(0, i), text.slice(i + 1)]
}

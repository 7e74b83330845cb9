import type { Vec2, Vec3 } from '../../solid'

/** What a file says of a site, in its own coordinates: heights, lines on the ground, closed outlines with what stands on them. */
export interface SiteRead {
  points: Vec3[]
  lines: Vec3[][]
  outlines: {
    name: string | null
    points: Vec2[]
    /** m above its foot */ height: number | null
    /** m above the datum */ base: number | null
  }[]
  /** how its coordinates are to be understood: 'EPSG:25832', or null where the file does not say */
  system: string | null
  /** what was left out, as sentences */
  remarks: string[]
  /** what the file does not say, and was taken in one way */
  asks: Ask[]
}

/** Something that a file leaves open: what was taken, and what else there is. `what` is its key among the answers. */
export interface Ask {
  what: 'unit' | 'contours' | 'surface' | 'up' | 'order' | 'band' | 'system' | 'take'
  say: string
  options: { value: string; label: string }[]
  taken: string
}
export type Answers = Partial<Record<Ask['what'], string>>

/** `leaveOut`: rows that are not numbers are left out, rather than refused. `answers`: to what an earlier reading asked. */
export interface ReadOptions {
  leaveOut: boolean
  answers: Answers
}
export interface SurveyReader {
  extensions: string[]
  read(bytes: Uint8Array, name: string, options: ReadOptions): SiteRead | Promise<SiteRead>
}

/** What a file has given before anything of it is read. */
export const nothing = (): SiteRead => ({ points: [], lines: [], outlines: [], system: null, remarks: [], asks: [] })
/** Bytes as text: UTF-8, or UTF-16 where the mark at its beginning says so; without that mark. */
export function textOf(bytes: Uint8Array): string {
  const [first, second] = bytes
  const wide = first === 0xff && second === 0xfe ? 'utf-16le' : first === 0xfe && second === 0xff ? 'utf-16be' : null
  return new TextDecoder(wide ?? 'utf-8').decode(bytes).replace(/^\uFEFF/, '')
}

/** Metres to a unit of length by its name. */
export const METRES: Record<string, number> = {
  m: 1,
  mm: 0.001,
  cm: 0.01,
  dm: 0.1,
  km: 1000,
  ft: 0.3048,
  'US survey ft': 1200 / 3937,
  in: 0.0254,
  yd: 0.9144,
}

/** The unit of a file that does not say it: asked, and metres until it is told. Gives metres to a unit. */
export function unitAsked(read: Pick<SiteRead, 'asks'>, answers: Answers, guess = 'm'): number {
  const taken = answers.unit !== undefined && METRES[answers.unit] !== undefined ? answers.unit : guess
  read.asks.push({
    what: 'unit',
    say: 'The file does not say its unit',
    options: Object.keys(METRES).map((unit) => ({ value: unit, label: unit })),
    taken,
  })
  return METRES[taken] ?? 1
}

/** Numbers of rows as they are said: "rows 3, 4, 9 and 12 more". */
export const sayRows = (rows: number[]): string =>
  `${rows.length === 1 ? 'row' : 'rows'} ${rows.slice(0, 8).join(', ')}${rows.length > 8 ? ` and ${rows.length - 8} more` : ''}`

import type { Vec2, Vec3 } from '../../solid'

/** What a file says of a site, in its own coordinates: heights, lines on the ground, closed outlines with what stands on them. */
export interface SiteRead {
  points: Vec3[]
  lines: Vec3[][]
  outlines: { name: string | null; points: Vec2[]; /** m above its foot */ height: number | null; /** m above the datum */ base: number | null }[]
  /** how its coordinates are to be understood: 'EPSG:25832', or null where the file does not say */
  system: string | null
  /** what was left out, as sentences */
  remarks: string[]
}

/** `leaveOut`: rows that are not numbers are left out, rather than refused. */
export interface SurveyReader { extensions: string[]; read(bytes: Uint8Array, name: string, options: { leaveOut: boolean }): SiteRead | Promise<SiteRead> }

export const nothing = (): SiteRead => ({ points: [], lines: [], outlines: [], system: null, remarks: [] })
export const textOf = (bytes: Uint8Array): string => new TextDecoder('utf-8').decode(bytes).replace(/^\uFEFF/, '')

/** Numbers of rows as they are said: "rows 3, 4, 9 and 12 more". */
export const sayRows = (rows: number[]): string => `${rows.length === 1 ? 'row' : 'rows'} ${rows.slice(0, 8).join(', ')}${rows.length > 8 ? ` and ${rows.length - 8} more` : ''}`

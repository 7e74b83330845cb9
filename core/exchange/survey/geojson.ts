import * as v from 'valibot'
import { refuse } from '../../project'
import type { Vec2, Vec3 } from '../../solid'
import { READ_LIMITS } from '../limits'
import { METRES, nothing, textOf, type Answers, type SiteRead, type SurveyReader } from './kind'

const Position = v.pipe(v.array(v.pipe(v.number(), v.finite())), v.minLength(2))
const GeometrySchema = v.variant('type', [
  v.object({ type: v.literal('Point'), coordinates: Position }),
  v.object({ type: v.literal('MultiPoint'), coordinates: v.array(Position) }),
  v.object({ type: v.literal('LineString'), coordinates: v.array(Position) }),
  v.object({ type: v.literal('MultiLineString'), coordinates: v.array(v.array(Position)) }),
  v.object({ type: v.literal('Polygon'), coordinates: v.array(v.array(Position)) }),
  v.object({ type: v.literal('MultiPolygon'), coordinates: v.array(v.array(v.array(Position))) }),
])
const CollectionSchema = v.object({ type: v.literal('GeometryCollection'), geometries: v.array(v.unknown()) })
const FeatureSchema = v.object({
  type: v.literal('Feature'),
  geometry: v.unknown(),
  properties: v.optional(v.nullable(v.record(v.string(), v.unknown())), null),
})
const FileSchema = v.object({
  type: v.string(),
  features: v.optional(v.array(v.unknown()), []),
  crs: v.optional(v.nullable(v.object({ properties: v.optional(v.object({ name: v.optional(v.string()) })) }))),
})

/**
 * GeoJSON (RFC 7946): points with heights, lines, and polygons with `height` and `base`. Degrees, unless an older `crs` member says otherwise;
 * where the numbers are no degrees of one site, or would make a site of hundreds of kilometres, they are asked about and taken as metres.
 */
export const geojson: SurveyReader = {
  extensions: ['geojson', 'json'],
  read(bytes, name, { answers }) {
    let data: unknown
    try {
      data = JSON.parse(textOf(bytes))
    } catch {
      return refuse('file', `"${name}" is no JSON.`, 'Choose a GeoJSON file.')
    }
    const file = v.safeParse(FileSchema, data)
    if (!file.success)
      return refuse(
        'file',
        `"${name}" is no GeoJSON: it has no type.`,
        'Choose a GeoJSON file with a feature collection.',
      )
    const features =
      file.output.type === 'FeatureCollection'
        ? file.output.features
        : file.output.type === 'Feature'
          ? [data]
          : [{ type: 'Feature', geometry: data, properties: null }]
    const said = file.output.crs?.properties?.name
    const read: SiteRead = nothing()
    features.forEach((f, i) => {
      const feature = v.safeParse(FeatureSchema, f)
      const geometries = feature.success ? geometriesOf(feature.output.geometry, 0) : []
      for (const geometry of geometries) if (geometry) add(read, geometry, (feature.output as Feature).properties ?? {})
      if (geometries.length === 0 || geometries.includes(null))
        read.remarks.push(
          geometries.some((g) => g !== null)
            ? `A part of feature ${i + 1} was left out: it is no point, line or polygon.`
            : `Feature ${i + 1} was left out: it is no point, line or polygon.`,
        )
    })
    read.remarks = [...new Set(read.remarks)]
    read.system = said ? systemOf(said) : unsaid(read, answers)
    if (read.points.length + read.lines.length + read.outlines.length === 0)
      refuse(
        'file',
        `There is nothing in "${name}" that a site is made of.`,
        'Choose a file with points, lines or polygons.',
      )
    return read
  },
}

type Feature = v.InferOutput<typeof FeatureSchema>
type Geometry = v.InferOutput<typeof GeometrySchema>

/** The geometries of a feature, also those of collections; null for each that is none. */
function geometriesOf(data: unknown, depth: number): (Geometry | null)[] {
  const collection = v.safeParse(CollectionSchema, data)
  if (collection.success && depth < READ_LIMITS.depth)
    return collection.output.geometries.flatMap((g) => geometriesOf(g, depth + 1))
  const geometry = v.safeParse(GeometrySchema, data)
  return [geometry.success ? geometry.output : null]
}

/** Degrees: no site is wider. */
const WIDEST = 2

/** The system of a file that names none: degrees by the standard; asked where its numbers cannot be the degrees of one site. */
function unsaid(read: SiteRead, answers: Answers): string | null {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity]
  const widen = ([x, y]: readonly number[]) => {
    x0 = Math.min(x0, x ?? 0)
    y0 = Math.min(y0, y ?? 0)
    x1 = Math.max(x1, x ?? 0)
    y1 = Math.max(y1, y ?? 0)
  }
  for (const p of read.points) widen(p)
  for (const l of read.lines) for (const p of l) widen(p)
  for (const o of read.outlines) for (const p of o.points) widen(p)
  const canBeDegrees = x0 >= -360 && x1 <= 360 && y0 >= -90 && y1 <= 90
  if (canBeDegrees && x1 - x0 <= WIDEST && y1 - y0 <= WIDEST) return 'EPSG:4326'
  const taken = answers.system === 'degrees' && canBeDegrees ? 'degrees' : 'metres'
  read.asks.push({
    what: 'system',
    say: canBeDegrees
      ? 'The file does not say its coordinates; as degrees they would be hundreds of kilometres apart'
      : 'The file does not say its coordinates, and they are no degrees',
    options: [{ value: 'metres', label: 'metres' }, ...(canBeDegrees ? [{ value: 'degrees', label: 'degrees' }] : [])],
    taken,
  })
  return taken === 'degrees' ? 'EPSG:4326' : null
}

/** Names of properties, in several languages of the trade, in small letters without signs between their words. */
const PROPERTIES = {
  elevation: /^(elevation|ele|elev|z|height|hoehe|höhe|altitude|level|gelaendehoehe|geländehöhe)(m)?$/,
  height:
    /^(height|buildingheight|h|hoehe|höhe|gebaeudehoehe|gebäudehöhe|measuredheight|heightm|heightmedian|relh|hauteur|altezza|hoogte|bldgheight|roofheight)(m)?$/,
  base: /^(base|minheight|ground|groundheight|groundelevation|baseheight|buildingminheight|sohle|bodenhoehe|bodenhöhe)(m)?$/,
} as const

type Said = Record<string, unknown>
/** The first property of one of the names that is a length, m: a number, "12 m", "40 ft" or "12,5". */
function lengthOf(properties: Said, what: keyof typeof PROPERTIES): number | null {
  for (const [name, value] of Object.entries(properties)) {
    if (!PROPERTIES[what].test(name.toLowerCase().replace(/[\s_:.-]/g, ''))) continue
    const found = typeof value === 'number' ? value : typeof value === 'string' ? lengthIn(value) : null
    if (found !== null && Number.isFinite(found)) return found
  }
  return null
}

/** A height of nothing is none. */
const aboveZero = (height: number | null): number | null => (height !== null && height > 0 ? height : null)

/** A length written as text, in metres where it names no unit; null where it is none. */
function lengthIn(text: string): number | null {
  const feet = /^\s*(\d+)\s*'\s*(?:(\d+(?:\.\d+)?)\s*")?\s*$/.exec(text)
  if (feet) return (Number(feet[1]) + Number(feet[2] ?? 0) / 12) * (METRES.ft ?? 1)
  const found = /^\s*([+\u2212-]?\d*(?:[.,]\d+)?(?:e[+-]?\d+)?)\s*([a-z]*)\.?\s*$/i.exec(text)
  const unit = METRES[UNIT_WORDS[(found?.[2] ?? '').toLowerCase()] ?? '']
  const number = found?.[1]?.replace(',', '.').replace('\u2212', '-')
  return number && unit !== undefined ? Number(number) * unit : null
}
const UNIT_WORDS: Record<string, string> = {
  '': 'm',
  m: 'm',
  metre: 'm',
  metres: 'm',
  meter: 'm',
  meters: 'm',
  cm: 'cm',
  mm: 'mm',
  ft: 'ft',
  feet: 'ft',
  foot: 'ft',
}

const xyz = (c: number[], z: number): Vec3 => [c[0] ?? 0, c[1] ?? 0, c[2] ?? z]

function add(read: SiteRead, geometry: Geometry, properties: Said): void {
  const z = lengthOf(properties, 'elevation') ?? 0
  switch (geometry.type) {
    case 'Point':
      read.points.push(xyz(geometry.coordinates, z))
      break
    case 'MultiPoint':
      read.points.push(...geometry.coordinates.map((c) => xyz(c, z)))
      break
    case 'LineString':
      read.lines.push(geometry.coordinates.map((c) => xyz(c, z)))
      break
    case 'MultiLineString':
      read.lines.push(...geometry.coordinates.map((l) => l.map((c) => xyz(c, z))))
      break
    case 'Polygon':
    case 'MultiPolygon': {
      const name = properties.name
      for (const rings of geometry.type === 'Polygon' ? [geometry.coordinates] : geometry.coordinates) {
        const outer = (rings[0] ?? []).map((c): Vec2 => [c[0] ?? 0, c[1] ?? 0])
        const [a, b] = [outer[0], outer.at(-1)]
        if (a && b && outer.length > 1 && a[0] === b[0] && a[1] === b[1]) outer.pop()
        if (outer.length >= 3)
          read.outlines.push({
            name: typeof name === 'string' ? name : null,
            points: outer,
            height: aboveZero(lengthOf(properties, 'height')),
            base: lengthOf(properties, 'base'),
          })
        if (rings.length > 1) read.remarks.push('Holes of polygons were left out.')
      }
    }
  }
}

/** urn:ogc:def:crs:EPSG::25832 and the like. */
function systemOf(name: string): string {
  if (/CRS84/i.test(name)) return 'EPSG:4326'
  const code = /EPSG:{1,2}(?:[\d.]*:)?(\d+)/i.exec(name)
  return code ? `EPSG:${code[1]}` : name
}

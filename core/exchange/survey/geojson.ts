import * as v from 'valibot'
import { refuse } from '../../project'
import type { Vec2, Vec3 } from '../../solid'
import { nothing, textOf, type SiteRead, type SurveyReader } from './kind'

const Position = v.pipe(v.array(v.pipe(v.number(), v.finite())), v.minLength(2))
const GeometrySchema = v.variant('type', [
  v.object({ type: v.literal('Point'), coordinates: Position }),
  v.object({ type: v.literal('MultiPoint'), coordinates: v.array(Position) }),
  v.object({ type: v.literal('LineString'), coordinates: v.array(Position) }),
  v.object({ type: v.literal('MultiLineString'), coordinates: v.array(v.array(Position)) }),
  v.object({ type: v.literal('Polygon'), coordinates: v.array(v.array(Position)) }),
  v.object({ type: v.literal('MultiPolygon'), coordinates: v.array(v.array(v.array(Position))) }),
])
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

/** GeoJSON (RFC 7946): points with heights, lines, and polygons with `height` and `base`. Degrees, unless an older `crs` member says otherwise. */
export const geojson: SurveyReader = {
  extensions: ['geojson', 'json'],
  read(bytes, name) {
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
    const read: SiteRead = { ...nothing(), system: systemOf(file.output.crs?.properties?.name) }
    features.forEach((f, i) => {
      const feature = v.safeParse(FeatureSchema, f)
      const geometry = feature.success ? v.safeParse(GeometrySchema, feature.output.geometry) : null
      if (!feature.success || !geometry?.success) {
        read.remarks.push(`Feature ${i + 1} was left out: it is no point, line or polygon.`)
        return
      }
      add(read, geometry.output, feature.output.properties ?? {})
    })
    if (read.points.length + read.lines.length + read.outlines.length === 0)
      refuse(
        'file',
        `There is nothing in "${name}" that a site is made of.`,
        'Choose a file with points, lines or polygons.',
      )
    return read
  },
}

type Said = Record<string, unknown>
const numberOf = (p: Said, names: string[]): number | null => {
  for (const n of names) {
    const value = typeof p[n] === 'string' ? Number(p[n]) : p[n]
    if (typeof value === 'number' && Number.isFinite(value)) return value
  }
  return null
}
const xyz = (c: number[], z: number): Vec3 => [c[0] ?? 0, c[1] ?? 0, c[2] ?? z]

function add(read: SiteRead, geometry: v.InferOutput<typeof GeometrySchema>, properties: Said): void {
  const z = numberOf(properties, ['elevation', 'ele', 'z', 'height']) ?? 0
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
            height: numberOf(properties, ['height', 'building:height', 'h']),
            base: numberOf(properties, ['base', 'min_height', 'ground']),
          })
        if (rings.length > 1) read.remarks.push('Holes of polygons were left out.')
      }
    }
  }
}

/** urn:ogc:def:crs:EPSG::25832 and the like; GeoJSON without one is in degrees. */
function systemOf(name: string | undefined): string {
  if (!name || /CRS84/i.test(name)) return 'EPSG:4326'
  const code = /EPSG:{1,2}(?:[\d.]*:)?(\d+)/i.exec(name)
  return code ? `EPSG:${code[1]}` : name
}

import proj4 from 'proj4'
import { refuse, type Location } from '../../project'
import type { Vec2, Vec3 } from '../../solid'
import { READ_LIMITS } from '../limits'
import type { SiteRead } from './kind'

/** What a site file becomes in project coordinates, and the place of the project's zero that it was taken from, where the project had none. */
export interface Placed {
  read: SiteRead
  location: Location
}

/** Coordinates that large are a map's, not a project's. m */
const MAP = 20_000

/**
 * A site file in project coordinates. Degrees (and web mercator) become metres about the project's place (or the file's middle); map coordinates lose the project's
 * zero (or the file's lower left corner, rounded to 100 m); then all is turned from true to project north. Small coordinates without a system are taken as the project's own. Errors: 'file' for a system that
 * is not known.
 */
export function placeRead(read: SiteRead, location: Location): Placed {
  const all: (Vec2 | Vec3)[] = [...read.points, ...read.lines.flat(), ...read.outlines.flatMap((o) => o.points)]
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity]
  for (const [x, y] of all) {
    x0 = Math.min(x0, x)
    y0 = Math.min(y0, y)
    x1 = Math.max(x1, x)
    y1 = Math.max(y1, y)
  }
  let next = location
  let plane: (p: readonly number[]) => Vec2
  const system = read.system === null ? null : definitionOf(read.system)
  if (system?.local) {
    // Metres of a web map are not true ones: they go by way of degrees too.
    if (location.latitude === null || location.longitude === null) {
      const [lon = 0, lat = 0] = proj4(system.name, 'EPSG:4326').forward([(x0 + x1) / 2, (y0 + y1) / 2])
      next = { ...location, latitude: round(lat, 6), longitude: round(lon, 6) }
    }
    const local = proj4(
      system.name,
      `+proj=tmerc +lat_0=${next.latitude} +lon_0=${next.longitude} +k=1 +x_0=0 +y_0=0 +datum=WGS84 +units=m`,
    )
    plane = (p) => local.forward([p[0] ?? 0, p[1] ?? 0]) as Vec2
  } else {
    if (location.zero === null && Math.max(Math.abs(x0), Math.abs(y0), Math.abs(x1), Math.abs(y1)) > MAP) {
      const known =
        system && location.latitude !== null && location.longitude !== null
          ? proj4('EPSG:4326', system.name).forward([location.longitude, location.latitude])
          : null
      const zero =
        known && Math.hypot((known[0] ?? 0) - x0, (known[1] ?? 0) - y0) < 50_000
          ? [round(known[0] ?? 0, 3), round(known[1] ?? 0, 3)]
          : [Math.floor(x0 / 100) * 100, Math.floor(y0 / 100) * 100]
      next = { ...location, zero: [zero[0] ?? 0, zero[1] ?? 0, 0], system: system ? read.system : null }
      if (system && location.latitude === null) {
        const [lon, lat] = proj4(system.name, 'EPSG:4326').forward([zero[0] ?? 0, zero[1] ?? 0])
        next = { ...next, latitude: round(lat ?? 0, 6), longitude: round(lon ?? 0, 6) }
      }
    }
    const zero = next.zero ?? [0, 0, 0]
    plane = (p) => [(p[0] ?? 0) - zero[0], (p[1] ?? 0) - zero[1]]
  }
  // Small coordinates without a system are the project's own: they lie as they are.
  const a = read.system === null && next.zero === null ? 0 : (next.trueNorth * Math.PI) / 180
  const [c, s] = [Math.cos(a), Math.sin(a)]
  const drop = next.zero?.[2] ?? 0
  const p2 = (p: readonly number[]): Vec2 => {
    const [e, n] = plane(p)
    if (!Number.isFinite(e) || !Number.isFinite(n) || Math.abs(e) > READ_LIMITS.far || Math.abs(n) > READ_LIMITS.far)
      refuse(
        'file',
        `The point (${p[0]}, ${p[1]}) lies outside of what ${read.system ?? 'its coordinates'} can say.`,
        'Check the coordinate system of the file.',
      )
    return [micro(e * c + n * s), micro(n * c - e * s)]
  }
  const p3 = (p: Vec3): Vec3 =>
    (Number.isFinite(p[2]) && Math.abs(p[2]) < 1e5
      ? [...p2(p), p[2] - drop]
      : refuse(
          'file',
          `A height of ${p[2]} m is none that a site has.`,
          'Check the unit of the file and its values for what was not measured.',
        )) as Vec3
  return {
    location: next,
    read: {
      ...read,
      points: read.points.map(p3),
      lines: read.lines.map((l) => l.map(p3)),
      outlines: read.outlines.map((o) => ({
        ...o,
        points: o.points.map(p2),
        base: o.base === null ? null : o.base - drop,
      })),
    },
  }
}

/** Systems of longitude and latitude: WGS 84, ETRS89, NAD83, and its later realisations. Their differences are below 2 m, on the place of the whole. */
const DEGREES = [4326, 4258, 4269, 6318, 4979, 4937]

const GRS80 = '+ellps=GRS80'
const GERMANY = '+ellps=bessel +towgs84=598.1,73.7,418.2,0.202,0.045,-2.455,6.7'
const AUSTRIA = '+ellps=bessel +towgs84=577.326,90.129,463.919,5.137,1.474,5.297,2.4232'
const BRITAIN = '+ellps=airy +towgs84=446.448,-125.157,542.06,0.15,0.247,0.842,-20.489'
const NETHERLANDS = '+ellps=bessel +towgs84=565.4171,50.3319,465.5524,-0.398957,0.343988,-1.8774,4.0725'
const SWITZERLAND =
  '+proj=somerc +lat_0=46.9524055555556 +lon_0=7.43958333333333 +k_0=1 +ellps=bessel +towgs84=674.374,15.056,405.346'

/** A transverse Mercator grid about a meridian (degrees), with its false easting and northing (m). */
const meridian = (longitude: number, x: number, y: number, ellipsoid: string, k = 1, latitude = 0): string =>
  `+proj=tmerc +lat_0=${latitude} +lon_0=${longitude} +k=${k} +x_0=${x} +y_0=${y} ${ellipsoid}`

/** National grids in metres by their EPSG code, for proj4 (definitions and shifts of the EPSG register, to some metres of the place on the globe). */
const GRIDS: Record<number, string> = {
  2056: `${SWITZERLAND} +x_0=2600000 +y_0=1200000`,
  21781: `${SWITZERLAND} +x_0=600000 +y_0=200000`,
  2154: `+proj=lcc +lat_1=49 +lat_2=44 +lat_0=46.5 +lon_0=3 +x_0=700000 +y_0=6600000 ${GRS80}`,
  2180: meridian(19, 500000, -5300000, GRS80, 0.9993),
  27700: meridian(-2, 400000, -100000, BRITAIN, 0.9996012717, 49),
  28992: `+proj=sterea +lat_0=52.1561605555556 +lon_0=5.38763888888889 +k=0.9999079 +x_0=155000 +y_0=463000 ${NETHERLANDS}`,
  3006: `+proj=utm +zone=33 ${GRS80}`,
  3035: `+proj=laea +lat_0=52 +lon_0=10 +x_0=4321000 +y_0=3210000 ${GRS80}`,
  3067: `+proj=utm +zone=35 ${GRS80}`,
  31254: meridian(10.3333333333333, 0, -5000000, AUSTRIA),
  31255: meridian(13.3333333333333, 0, -5000000, AUSTRIA),
  31256: meridian(16.3333333333333, 0, -5000000, AUSTRIA),
  31466: meridian(6, 2500000, 0, GERMANY),
  31467: meridian(9, 3500000, 0, GERMANY),
  31468: meridian(12, 4500000, 0, GERMANY),
  31469: meridian(15, 5500000, 0, GERMANY),
  3812:
    '+proj=lcc +lat_1=49.8333333333333 +lat_2=51.1666666666667 +lat_0=50.797815 +lon_0=4.35921583333333' +
    ` +x_0=649328 +y_0=665262 ${GRS80}`,
  4647: meridian(9, 32500000, 0, GRS80, 0.9996),
}
const NATIONAL: Record<number, string> = Object.fromEntries(
  Object.entries(GRIDS).map(([code, grid]) => [code, `${grid} +units=m +no_defs`]),
)

/** `local`: laid about the project's place, rather than on a grid of metres. */
function definitionOf(system: string): { name: string; local: boolean } {
  const code = Number(/^EPSG:(\d+)$/i.exec(system)?.[1] ?? NaN)
  if (DEGREES.includes(code)) return { name: 'EPSG:4326', local: true }
  if (code === 3857 || code === 900913) return { name: 'EPSG:3857', local: true }
  const utm =
    code > 32600 && code <= 32660
      ? [code - 32600, '']
      : code > 32700 && code <= 32760
        ? [code - 32700, '+south ']
        : code >= 25828 && code <= 25838
          ? [code - 25800, '']
          : null
  if (NATIONAL[code]) return { name: NATIONAL[code], local: false }
  if (utm) return { name: `+proj=utm +zone=${utm[0]} ${utm[1]}+datum=WGS84 +units=m +no_defs`, local: false }
  return refuse(
    'file',
    `The file's coordinates are in "${system}", which is not known here.`,
    `Export it in degrees (EPSG:4326), in UTM (EPSG:326xx, 327xx or 258xx), in a national grid that is known here (EPSG:${Object.keys(NATIONAL).join(', ')}), or in metres of the project without a system.`,
  )
}

const round = (v: number, digits: number) => Number(v.toFixed(digits))
const micro = (v: number) => Math.round(v * 1e6) / 1e6 + 0

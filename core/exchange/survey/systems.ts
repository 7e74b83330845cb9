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

/** `local`: laid about the project's place, rather than on a grid of metres. */
function definitionOf(system: string): { name: string; local: boolean } {
  const code = Number(/^EPSG:(\d+)$/i.exec(system)?.[1] ?? NaN)
  if (code === 4326 || code === 4258) return { name: 'EPSG:4326', local: true }
  if (code === 3857 || code === 900913) return { name: 'EPSG:3857', local: true }
  const utm =
    code > 32600 && code <= 32660
      ? [code - 32600, '']
      : code > 32700 && code <= 32760
        ? [code - 32700, '+south ']
        : code >= 25828 && code <= 25838
          ? [code - 25800, '']
          : null
  if (utm) return { name: `+proj=utm +zone=${utm[0]} ${utm[1]}+datum=WGS84 +units=m +no_defs`, local: false }
  return refuse(
    'file',
    `The file's coordinates are in "${system}", which is not known here.`,
    'Export it in degrees (EPSG:4326), in UTM (EPSG:326xx, 327xx or 258xx), or in metres of the project without a system.',
  )
}

const round = (v: number, digits: number) => Number(v.toFixed(digits))
const micro = (v: number) => Math.round(v * 1e6) / 1e6 + 0

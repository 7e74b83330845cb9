import { marksOf, contoursApart, type NeighbourForm, type Study } from '@geotome/core/study'
import { alongGround, contoursOf, roomOf, triangulateSurvey, type Tin } from '@geotome/core/project'
import { sectionOf, uprightFrame, type Upright } from '@geotome/core/slice'
import { areaOf, boxOf, loopArea, prism, roomMesh, type Region, type Vec2, type Vec3 } from '@geotome/core/solid'
import { meshGeometry } from './geometry'
import type { Geometry, GroundView, LaidView, StudyView } from './protocol'

type Send = (key: string, make: () => Geometry) => string
let numbered = 0
const keys = new WeakMap<object, string>()
const keyOf = (thing: object, what: string): string => {
  let key = keys.get(thing)
  if (!key) keys.set(thing, (key = `${what}:${++numbered}`))
  return key
}

/** No site, no terrain, no neighbours. */
export const NO_GROUND: GroundView = {
  site: null,
  envelope: null,
  fits: {},
  feet: {},
  terrain: null,
  neighbours: [],
  missing: false,
}

/** Site, envelope, terrain and neighbours as they are drawn; triangles are sent once. */
export function groundView(study: Study, origin: Vec2, send: Send): GroundView {
  const { ground, project } = study
  const shift = (ring: Vec2[]) => ring.map((p): Vec2 => [p[0] - origin[0], p[1] - origin[1]])
  const at = origin.join()
  const { envelope, tin } = ground
  const flat = tin ? null : ground.height(0, 0)
  const top = Math.max(10, ...study.forms.map((f) => f.top)) + 3
  const bounded = envelope && (envelope.limit !== null || envelope.slopes.length > 0) && envelope.region.length > 0
  return {
    site: ground.site && {
      ...ground.site,
      ring: shift(ground.site.ring),
      line: send(`site:${JSON.stringify(ground.site.ring)} on ${tin ? keyOf(tin, 'terrain') : flat}@${at}`, () =>
        linesOnly(boundaryLine(ground.site?.ring ?? [], tin, flat, origin)),
      ),
    },
    envelope: envelope && {
      region: envelope.region.map(shift),
      area: envelope.area,
      limit: envelope.limit,
      side: envelope.side.map((s) => s + 1),
      names: envelope.names,
      ring: shift(envelope.ring),
      mesh: bounded
        ? send(`${keyOf(envelope, 'envelope')}@${at}${envelope.limit === null ? Math.ceil(top / 10) : ''}`, () =>
            meshGeometry('', roomMesh(roomOf(envelope, Math.ceil(top / 10) * 10)), origin),
          )
        : null,
    },
    fits: Object.fromEntries(
      [...ground.fits].map(([id, fit]) => [
        id,
        {
          limits: fit.limits,
          over: fit.over,
          clear: fit.clear,
          mesh: fit.mesh
            ? send(`${keyOf(fit, 'over')}@${at}`, () =>
                meshGeometry('', fit.mesh ?? { positions: new Float64Array(), triangles: new Uint32Array() }, origin),
              )
            : null,
        },
      ]),
    ),
    feet: Object.fromEntries(ground.feet),
    terrain: tin
      ? {
          mesh: send(`${keyOf(tin, 'terrain')}@${at}`, () => tinGeometry(tin, origin)),
          low: tin.low,
          high: tin.high,
          points: tin.points.length / 3,
          lost: tin.lost,
          apart: contoursApart(tin),
          flat: null,
        }
      : project.terrain?.kind === 'level'
        ? { mesh: null, low: flat ?? 0, high: flat ?? 0, points: 0, lost: 0, apart: 0, flat }
        : null,
    neighbours: ground.neighbours.map((n) => ({
      id: n.id,
      name: n.name,
      base: n.base,
      top: n.top,
      outline: shift(n.outline),
      body: send(`neighbour:${JSON.stringify([n.outline, n.base, n.top])}@${at}`, () => neighbourGeometry(n, origin)),
    })),
    missing: ground.missing,
  }
}

/** m that a line lies over the ground that it is drawn on */
const OVER = 0.03

/** The boundary laid on the ground as it is drawn; where there is none it goes straight on, at the datum where there is none at all. */
function boundaryLine(ring: readonly Vec2[], tin: Tin | null, flat: number | null, [ox, oy]: Vec2): Float32Array {
  const drawn = tin && drawnGround(tin)
  const along = ring.flatMap((p, i) =>
    drawn ? alongGround(drawn, p, ring[(i + 1) % ring.length] as Vec2) : [{ at: p, z: flat }],
  )
  let known = along.find(({ z }) => z !== null)?.z ?? 0
  const points = along.map(({ at: [x, y], z }): Vec3 => [x - ox, y - oy, (known = z ?? known) + OVER])
  return Float32Array.from(points.flatMap((p, i) => [...p, ...(points[(i + 1) % points.length] as Vec3)]))
}

const linesOnly = (edges: Float32Array): Geometry => ({
  key: '',
  positions: new Float32Array(),
  normals: new Float32Array(),
  edges,
  contours: new Float32Array(),
  faceOf: new Uint32Array(),
})

function neighbourGeometry(n: NeighbourForm, origin: Vec2): Geometry {
  const ring = loopArea(n.outline) < 0 ? [...n.outline].reverse() : n.outline
  return meshGeometry(
    '',
    prism(
      ring,
      ring.map((_, i) => `e${i}`),
      n.base,
      n.top,
      'base',
      'top',
    ),
    origin,
  )
}

/** so many points of ground are drawn at most; figures and contours go by all of them */
const DRAWN = 30_000

const thinned = new WeakMap<Tin, Tin>()
/** Large surveys thinned for drawing: a point in each cell of a grid. */
function drawnGround(tin: Tin): Tin {
  if (tin.points.length / 3 <= DRAWN * 1.5) return tin
  let drawn = thinned.get(tin)
  if (!drawn) thinned.set(tin, (drawn = thinnedOut(tin)))
  return drawn
}

function thinnedOut({ points }: Tin): Tin {
  const box = boxOf(points)
  const cell = Math.sqrt(((box.x1 - box.x0) * (box.y1 - box.y0)) / DRAWN)
  const seen = new Set<number>()
  const kept: number[] = []
  const across = Math.ceil((box.x1 - box.x0) / cell) + 1
  for (let i = 0; i < points.length; i += 3) {
    const key =
      Math.floor(((points[i + 1] ?? 0) - box.y0) / cell) * across + Math.floor(((points[i] ?? 0) - box.x0) / cell)
    if (seen.has(key)) continue
    seen.add(key)
    kept.push(points[i] ?? 0, points[i + 1] ?? 0, points[i + 2] ?? 0)
  }
  return triangulateSurvey({ points: Float64Array.from(kept), lines: [] })
}

/** Ground with its contours for edges, shaded softly: a corner by the mean direction of the triangles that meet there. */
function tinGeometry(tin: Tin, [ox, oy]: Vec2): Geometry {
  const { points, triangles } = drawnGround(tin)
  const sums = new Float32Array(points.length)
  const direction = (t: number): Vec3 => {
    const [a, b, c] = [0, 1, 2].map((k) => (triangles[t + k] ?? 0) * 3) as [number, number, number]
    const at = (v: number, i: number) => points[v + i] ?? 0
    const [ux, uy, uz, wx, wy, wz] = [
      at(b, 0) - at(a, 0),
      at(b, 1) - at(a, 1),
      at(b, 2) - at(a, 2),
      at(c, 0) - at(a, 0),
      at(c, 1) - at(a, 1),
      at(c, 2) - at(a, 2),
    ]
    return [uy * wz - uz * wy, uz * wx - ux * wz, ux * wy - uy * wx]
  }
  for (let t = 0; t < triangles.length; t += 3) {
    const n = direction(t)
    for (let k = 0; k < 3; k++) {
      const v = (triangles[t + k] ?? 0) * 3
      for (let i = 0; i < 3; i++) sums[v + i] = (sums[v + i] ?? 0) + (n[i] ?? 0)
    }
  }
  const positions = Float32Array.from(points, (c, i) => (i % 3 === 0 ? c - ox : i % 3 === 1 ? c - oy : c))
  const normals = new Float32Array(points.length)
  for (let i = 0; i < sums.length; i += 3) {
    const long = Math.hypot(sums[i] ?? 0, sums[i + 1] ?? 0, sums[i + 2] ?? 0) || 1
    for (let k = 0; k < 3; k++) normals[i + k] = (sums[i + k] ?? 0) / long
  }
  const lines = contoursOf(tin, contoursApart(tin))
  const edges = lines.map((c, i) => (i % 3 === 0 ? c - ox : i % 3 === 1 ? c - oy : c + 0.02))
  return {
    key: '',
    positions,
    normals,
    edges,
    contours: new Float32Array(),
    faceOf: new Uint32Array(),
    index: triangles.slice(),
  }
}

export function laidViews(study: Study, origin: Vec2): LaidView[] {
  const shift = (p: Vec3): Vec3 => [p[0] - origin[0], p[1] - origin[1], p[2]]
  return study.pictures.flatMap(({ id, laid }) =>
    laid
      .filter((l) => l.stand.shown)
      .map((l): LaidView => ({
        picture: id,
        stand: l.stand.id,
        upright: l.stand.lies.kind === 'upright' ? study.context.numbers.angle(l.stand.lies.azimuth) : null,
        front: l.stand.front,
        shown: l.shown.map(shift),
        part: l.part,
        corner: shift(l.corner),
        right: l.right,
        up: l.up,
        marks: marksOf(study.project, l, id, study.context.numbers).map(shift),
      })),
  )
}

/** What an upright plane cuts; its coordinates along the plane from the view's origin. */
export function sectionView(study: Study, upright: Upright, origin: Vec2): NonNullable<StudyView['section']> {
  const { right } = uprightFrame(upright.azimuth)
  const along = right[0] * origin[0] + right[1] * origin[1]
  const regions = study.forms.flatMap((form) => {
    const region = study.context.memo.keep(form, 'section', [upright.azimuth, upright.toward], (): Region =>
      sectionOf(form, upright),
    )
    const area = areaOf(region)
    return area > 1e-6
      ? [{ mass: form.id, use: form.use, area, region: region.map((l) => l.map((p): Vec2 => [p[0] - along, p[1]])) }]
      : []
  })
  return { upright, regions }
}

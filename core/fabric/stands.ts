import type { MassForm } from '../form'
import {
  cutAt,
  inside,
  intersectRegions,
  mappedSolid,
  onFacets,
  placeSolid,
  rectOf,
  rectsMeet,
  TOLERANCE,
  uniteRegions,
  type Rect,
  type Region,
  type Solid,
  type Vec2,
  minus,
  gapOf,
  linesMeet,
} from '../solid'
import { alongOf, facesAbove, lowestOf, pointAt } from './pieces'
import { facesOfForm, levelHeight, type FabricContext } from './context'
import { LIMITS } from './limits'
import { girthOf, unrolled, type WorldFace } from './print'
import { roofSpaceOver } from './roof-space'

/**
 * What stands where: which masses stand in, on, or against a face of another one. Every kind of part asks here, so that none runs into a
 * mass that is not its own.
 */

/** The other masses that come near a mass in plan and height, in their order; the same list while they stand as they do. */
export function nearTo(context: FabricContext, form: MassForm): MassForm[] {
  let all = known.get(context)
  if (!all) known.set(context, (all = new Map()))
  let near = all.get(form.id)
  if (!near) {
    const found = [...context.forms.values()].filter(
      (o) => o !== form && rectsMeet(o.rect, form.rect, 0.01) && o.base < form.top + NEAR && o.top > form.base - NEAR,
    )
    all.set(form.id, (near = context.memo.keep(form, 'near', found, () => found)))
  }
  return near
}
const known = new WeakMap<FabricContext, Map<string, MassForm[]>>()
/** m: above or below a mass, as far as a roof hangs down or a slab is thick */
const NEAR = 2

/**
 * m to either side of a face: what lies in a mass on both sides of it is inside that mass; on one side only, the two lie against one
 * another
 */
const ASIDE = 2 * TOLERANCE.touch

/** What another mass takes of a wall-like face, in (u, z) as the face is unrolled. */
export interface Taken {
  by: MassForm
  region: Region
  /** its extent */ rect: Rect
}

/**
 * What other masses take of a wall-like face: what lies inside them; where two faces are one, the first mass in order has it; and where
 * masses of one use lie against one another they open to one another, as if they were joined. Masses of different uses share one wall
 * there.
 */
export function takenOf(context: FabricContext, form: MassForm, face: WorldFace): Taken[] {
  const near = nearTo(context, form)
  if (near.length === 0) return []
  return context.memo.keep(face, 'taken', near, () => {
    const rect = rectOf([face.loops.flat().map(([x, y]): Vec2 => [x, y])])
    return near
      .filter((o) => rectsMeet(o.rect, rect, 0.01))
      .flatMap((other): Taken[] => {
        const [solid, how] = [
          placedOf(context, other),
          { first: other.order < form.order, opens: other.use === form.use },
        ]
        const region = uniteRegions(
          (face.round ? roundCut(face, solid, how) : flatCut(face, solid, how)).filter((r) => r.length > 0),
        )
        return region.length ? [{ by: other, region, rect: rectOf(region) }] : []
      })
  })
}

/** Whether a mass is a roof that stands on others: all that looks up over its foot slopes, and springs lower than a person needs. */
export const isRoofBody = (context: FabricContext, form: MassForm): boolean =>
  context.memo.keep(
    form,
    'roof',
    nearTo(context, form),
    () =>
      roofSpaceOver(
        form,
        facesOfForm(form)
          .filter((f) => f.plane.n[2] > TOLERANCE.slope)
          .map((f) => f.name),
        form.base,
      ) && supportsOf(context, form).length > 0,
  )

/** The masses on whose flat tops a mass stands. */
export const supportsOf = (context: FabricContext, form: MassForm): MassForm[] =>
  nearTo(context, form).filter((o) =>
    facesOfForm(o).some(
      (f) =>
        f.plane.n[2] > 1 - TOLERANCE.rounding &&
        Math.abs(f.plane.d - form.base) < TOLERANCE.touch &&
        rectsMeet(rectOf(f.loops.map((l) => l.map(([x, y]): Vec2 => [x, y]))), form.rect, -TOLERANCE.touch),
    ),
  )

/**
 * Faces that go on above a wall-like face in the same plane and border mere roof space, of its own mass or of a roof that stands on it:
 * its wall runs up over them.
 */
export function goesOnIn(
  context: FabricContext,
  form: MassForm,
  face: WorldFace,
): { roof: MassForm; face: WorldFace }[] {
  if (face.round || face.bent || Math.abs(face.plane.n[2]) > TOLERANCE.rounding) return []
  return context.memo.keep(face, 'goes on', [form, ...nearTo(context, form)], () => [
    ...facesOfForm(form)
      .filter((g) => g !== face && goesOn(face, g) && isGable(form, g))
      .map((g) => ({ roof: form, face: g })),
    ...nearTo(context, form)
      .filter((o) => o.base > form.base + 0.1 && isRoofBody(context, o))
      .flatMap((roof) =>
        facesOfForm(roof)
          .filter((g) => goesOn(face, g))
          .map((g) => ({ roof, face: g })),
      ),
  ])
}

/** Whether a wall below, of its own mass or of one that it stands on, runs up over a face. */
export const isRunOver = (context: FabricContext, form: MassForm, face: WorldFace): boolean =>
  (isGable(form, face) && facesOfForm(form).some((f) => f !== face && goesOn(f, face))) ||
  (isRoofBody(context, form) && supportsOf(context, form).some((o) => facesOfForm(o).some((f) => goesOn(f, face))))

/** Whether what a face borders above its foot is mere roof space: the faces across its upper edges slope, and spring low. */
function isGable(form: MassForm, face: WorldFace): boolean {
  const us = unrolled(face)
    .flat()
    .map((p) => p[0])
  return roofSpaceOver(form, facesAbove(face, Math.min(...us), Math.max(...us), lowestOf(face)), lowestOf(face))
}

/** Whether the second face goes on above the first in its plane. */
function goesOn(below: WorldFace, above: WorldFace): boolean {
  const { n, d } = below.plane
  if (
    above.bent ||
    above.round ||
    Math.abs(n[2]) > TOLERANCE.rounding ||
    above.plane.n[0] * n[0] + above.plane.n[1] * n[1] < 1 - TOLERANCE.rounding
  )
    return false
  if (!above.loops.flat().every((p) => Math.abs(n[0] * p[0] + n[1] * p[1] - d) < TOLERANCE.touch)) return false
  const foot = lowestOf(above)
  if (Math.max(...above.loops.flat().map((p) => p[2])) - foot < LIMITS.leastHigh) return false
  if (!below.loops.flat().some((p) => Math.abs(p[2] - foot) < TOLERANCE.touch) || lowestOf(below) > foot - 0.1)
    return false
  const span = (f: WorldFace) => {
    const us = f.loops.flat().map((p) => n[0] * p[1] - n[1] * p[0])
    return [Math.min(...us), Math.max(...us)] as const
  }
  const [[a, b], [c, e]] = [span(below), span(above)]
  return Math.min(b, e) - Math.max(a, c) > 0.01
}

/** What of the plane of a face that looks up or down lies inside other masses, in plan; those that stand on it are counted. */
export function standsIn(context: FabricContext, form: MassForm, face: WorldFace): Region {
  const near = nearTo(context, form)
  if (near.length === 0 || face.bent) return []
  const { n, d } = face.plane
  if (Math.abs(n[2]) > 1 - TOLERANCE.rounding) {
    const z = d / n[2]
    return uniteRegions(
      near.flatMap((o) => {
        const plate = o.base < z + TOLERANCE.height && o.top > z + TOLERANCE.height ? context.plateAt(o, z) : null
        return plate ? [plate.region] : []
      }),
    )
  }
  return context.memo.keep(face, 'stands in', near, () =>
    uniteRegions(
      near
        .map((other): Region =>
          cutAt(
            mappedSolid(placedOf(context, other), (x, y, z) => [x, y, z - (d - n[0] * x - n[1] * y) / n[2]]),
            0,
          ).map((l) => l.points),
        )
        .filter((r) => r.length > 0),
    ),
  )
}

/** The stretches (from 0 to 1) of an edge at a height, in plan, that nothing stands on or against; `out` points away from the face. */
export function openStretches(context: FabricContext, form: MassForm, a: Vec2, b: Vec2, z: number): [number, number][] {
  const length = gapOf(b, a)
  const plates = nearTo(context, form).flatMap((o) => {
    const plate = o.base < z + TOLERANCE.height && o.top > z + TOLERANCE.height ? context.plateAt(o, z) : null
    return plate ? [plate.region] : []
  })
  if (plates.length === 0 || length < TOLERANCE.point) return [[0, 1]]
  const out: Vec2 = [(b[1] - a[1]) / length, (a[0] - b[0]) / length]
  let open: [number, number][] = [[0, 1]]
  for (const side of [0.002, -0.002])
    for (const region of plates) {
      const [p, q] = [a, b].map(([x, y]): Vec2 => [x + out[0] * side, y + out[1] * side]) as [Vec2, Vec2]
      open = open.flatMap((s) => lessStretches(s, coveredOf(p, q, region)))
    }
  return open.filter(([from, to]) => (to - from) * length > 0.005)
}

/** The stretches (from 0 to 1) of a line in plan that lie within a region. */
export function coveredOf(a: Vec2, b: Vec2, region: Region): [number, number][] {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]]
  const cuts = [0, 1]
  for (const loop of region)
    loop.forEach((p, i) => {
      const q = loop[(i + 1) % loop.length] as Vec2
      const met = linesMeet(a, [dx, dy], p, minus(q, p))
      if (met && met.t > 0 && met.t < 1 && met.s >= 0 && met.s <= 1) cuts.push(met.t)
    })
  cuts.sort((s, t) => s - t)
  const within = (t: number) =>
    region.reduce((odd, loop) => odd !== inside(loop, [a[0] + dx * t, a[1] + dy * t]), false)
  return cuts.slice(1).flatMap((to, i): [number, number][] => {
    const from = cuts[i] as number
    return to - from > TOLERANCE.rounding && within((from + to) / 2) ? [[from, to]] : []
  })
}

function lessStretches(stretch: [number, number], taken: [number, number][]): [number, number][] {
  return taken.reduce<[number, number][]>(
    (left, [from, to]) =>
      left.flatMap(([a, b]): [number, number][] =>
        to <= a || from >= b
          ? [[a, b]]
          : [...(from > a ? [[a, from] as [number, number]] : []), ...(to < b ? [[to, b] as [number, number]] : [])],
      ),
    [stretch],
  )
}

/** A slab of another mass whose plate lies over a line in plan: over which stretch of it (from 0 to 1), and from which height up (m). */
export interface SlabOver {
  by: MassForm
  from: number
  to: number
  z: number
}

/** Slabs of other masses that lie over the head of a wall; `head` is m above the datum, the line the middle of the wall. */
export function slabsOver(
  context: FabricContext,
  form: MassForm,
  slabs: ReadonlyMap<string, OtherSlab[]>,
  line: [Vec2, Vec2],
  foot: number,
  head: number,
): SlabOver[] {
  return nearTo(context, form).flatMap((other) =>
    (slabs.get(other.id) ?? []).flatMap(({ level, z0, z1 }): SlabOver[] => {
      if (z0 < foot + 0.1 || z0 > head - TOLERANCE.touch || z1 < head - 0.5) return []
      const plate = context.plateAt(other, levelHeight(context, level))
      return plate ? coveredOf(...line, plate.region).map(([from, to]) => ({ by: other, from, to, z: z0 })) : []
    }),
  )
}
/** A slab by its level and its two sides, m above the datum. */
export interface OtherSlab {
  level: string
  z0: number
  z1: number
}

const placedOf = (context: FabricContext, form: MassForm): Solid =>
  context.memo.keep(form, 'placed', [], () => placeSolid(form.body.solid, form.at))

/** The cut of a body by the plane of a flat face, in the face's (u, z). */
function flatCut(face: WorldFace, solid: Solid, how: How): Region[] {
  const [dx, dy] = alongOf(face)
  const [ox, oy] = face.loops[0]?.[0] ?? [0, 0]
  const { n, d } = face.plane
  return [
    cutBetween(
      mappedSolid(solid, (x, y, z) => [dx * (x - ox) + dy * (y - oy), z, n[0] * x + n[1] * y + n[2] * z - d]),
      how,
    ),
  ]
}

/** The same of a round face, facet by facet. */
function roundCut(face: WorldFace, solid: Solid, how: How): Region[] {
  const arc = face.round
  if (!arc) return []
  const girth = girthOf(arc)
  const step = girth / arc.n
  return Array.from({ length: arc.n }, (_, k): Region => {
    const [a, b] = [onFacets(arc, k / arc.n), onFacets(arc, (k + 1) / arc.n)]
    const chord = gapOf(b, a)
    const [dx, dy] = [(b[0] - a[0]) / chord, (b[1] - a[1]) / chord]
    const cut = cutBetween(
      mappedSolid(solid, (x, y, z) => [
        k * step + ((dx * (x - a[0]) + dy * (y - a[1])) * step) / chord,
        z,
        dy * (x - a[0]) - dx * (y - a[1]),
      ]),
      how,
    )
    const zs = cut.flat().map((p) => p[1])
    return cut.length
      ? intersectRegions(cut, [
          [
            [k * step, Math.min(...zs) - 1],
            [(k + 1) * step, Math.min(...zs) - 1],
            [(k + 1) * step, Math.max(...zs) + 1],
            [k * step, Math.max(...zs) + 1],
          ],
        ])
      : []
  })
}

/** Whether the other mass comes first in order, and whether masses that lie against one another open to one another. */
interface How {
  first: boolean
  opens: boolean
}

/** The cut at w = 0 of what passes through that plane; of what lies in it by a face, what is taken by the rules. */
function cutBetween(solid: Solid, { first, opens }: How): Region {
  let [low, high, flush] = [Infinity, -Infinity, false]
  for (let i = 2; i < solid.positions.length; i += 3) {
    const w = solid.positions[i] as number
    low = Math.min(low, w)
    high = Math.max(high, w)
    if (Math.abs(w) <= ASIDE) flush = true
  }
  if (low > ASIDE || high < -ASIDE) return []
  const at = (w: number): Region => cutAt(solid, w).map((l) => l.points)
  if (!flush) return at(0)
  const [within, beyond] = [at(-ASIDE), at(ASIDE)]
  const both = intersectRegions(within, beyond)
  return uniteRegions([both, first ? within : [], opens ? beyond : []])
}

/** The line in plan along the middle of a wall of some thickness behind a stretch of face, from u to u. */
export function middleLine(face: WorldFace, from: number, to: number, z: number, off: number): [Vec2, Vec2] {
  const point = (u: number): Vec2 => {
    const [x, y] = pointAt(face, u, z)
    const [ax, ay] = alongOf(face, u)
    return [x - ay * off, y + ax * off]
  }
  return [point(from), point(to)]
}

import {
  boxOf,
  cornerAt,
  dotOf,
  halfSpace,
  intersect,
  faceName,
  parseFaceName,
  subtract,
  sweepBody,
  TOLERANCE,
  unite,
  type Facet,
  type Outline,
  type Solid,
  type SweepNames,
  type Vec2,
} from '../solid'
import { refuse, tidy, type AtLevel, type Num, type StandingNumbers } from '../values'
import { heightAtLevel } from './at-level'
import { moveKind } from './define'
import { length } from './fields'
import type { BodyForm, MoveBase } from './kind'
import { stripBetween, withSideMoved } from './strip'

export interface PullMove extends MoveBase {
  move: 'pull'
  /** the side of the outline, by the name of its edge */
  side: string
  /** m outwards, at right angles; below zero inwards */ by: Num
  /** m above the mass's base; at levels where they are given. `to` null without a level: up to the top */
  from: Num
  fromLevel: AtLevel | null
  to: Num | null
  toLevel: AtLevel | null
}

/** Where it acts on chosen heights or storeys, it pulls the side over all of them. */
const isWhole = (m: PullMove) => !m.span

/**
 * Pulls a side of a body straight out, or pushes it in, between two heights: on chosen storeys, or from the base to the top. The sides
 * beside it run on under their names, as do top and base where it reaches them; the side itself is <id>/<edge> there. Errors: left out
 * with a sentence.
 */
export const pull = moveKind<PullMove>({
  move: 'pull',
  called: 'a pull',
  group: 'shape',
  takes: 'body',
  ofSides: true,
  gives: 'body',
  spans: true,
  fields: {
    side: { is: 'side', label: 'side' },
    by: length('out by', { hint: 'Square to the side; below zero in.' }),
    from: { is: 'height', label: 'from', level: 'fromLevel', when: isWhole },
    to: { is: 'height', label: 'up to', level: 'toLevel', otherwise: 'its top', when: isWhole },
  },
  starts: ({ plan }) => {
    const side = plan[0]?.edges[0]
    return side === undefined ? null : { side, by: 1, from: 0, fromLevel: null, to: null, toLevel: null }
  },
  build: (form, m, { numbers, name, ranges }) => {
    const { solid } = form as BodyForm
    const by = numbers.length(m.by)
    const { z0, z1 } = boxOf(solid.positions)
    const at = ranges ?? [heightsOf(m, numbers, [z0, z1])]
    if (at.some(([from, to]) => to - from < TOLERANCE.least))
      refuse(
        'geometry',
        `"${name}" is pulled between heights at which it does not stand: it is from ${tidy(z0)} to ${tidy(z1)} m.`,
        'Let it begin lower, or end higher.',
      )
    if (by === 0) return form
    const strip = stripBetween(form, m.side, by, name)
    const moved = at.reduce((body, range) => pulled(body, strip, m, by, range, [z0, z1]), solid)
    // Pulled from foot to head, the side stands there from now on: what is pulled beside it goes round the corner.
    const [whole] = at
    const isAll = at.length === 1 && whole && whole[0] <= z0 + TOLERANCE.height && whole[1] >= z1 - TOLERANCE.height
    return {
      ...form,
      carried: null,
      solid: moved,
      outline: isAll ? withSideMoved(form, m.side, by, name) : form.outline,
    }
  },
})

function pulled(
  solid: Solid,
  strip: Outline[],
  m: PullMove,
  by: number,
  [from, to]: readonly [number, number],
  [z0, z1]: readonly [number, number],
): Solid {
  const own = sideOf(solid, m.side)
  // What is pushed in is taken off beyond the ends too, so that nothing thin is left; what is pulled out is as high as its side.
  const [low, high] = by > 0 ? [from, Math.min(to, own.top)] : [from === z0 ? z0 - 1 : from, to === z1 ? z1 + 1 : to]
  if (high - low < TOLERANCE.least) return solid
  const onward = runsOnFrom(solid, strip, m.side, low, high)
  const block = sweepBody({ low: strip, high: strip, z0: low, z1: high, twist: null }, namesOf(m, onward))
  if (by < 0) return subtract(solid, block)
  // What runs on lies on the very plane of what it runs on from; roofs over the side run on too.
  const planes = new Map([...onward.values()].map((f) => [f.name, f.plane]))
  const runsOn = { ...block, facets: block.facets.map((f) => ({ ...f, plane: planes.get(f.name) ?? f.plane })) }
  const under = own.roofs.reduce((body, f) => intersect(body, halfSpace(f.plane, body, true, f.name)), runsOn)
  return unite(solid, under)
}

/** How high a side of a body reaches (m), and the sloping roofs that it reaches up to, where all of it lies below their planes. */
function sideOf({ positions, triangles, facetOf, facets }: Solid, side: string): { top: number; roofs: Facet[] } {
  const isSide = facets.map((f) => parseFaceName(f.name).own === side)
  const corners = new Set<number>()
  let top = -Infinity
  for (let i = 0; i < triangles.length; i++) {
    if (!isSide[facetOf[Math.floor(i / 3)] as number]) continue
    corners.add(triangles[i] as number)
    top = Math.max(top, positions[(triangles[i] as number) * 3 + 2] as number)
  }
  const touching = new Map<number, number>()
  for (let i = 0; i < triangles.length; i++) {
    const f = facetOf[Math.floor(i / 3)] as number
    const up = facets[f]?.plane.n[2] ?? 0
    if (up > TOLERANCE.lean && up < 1 - TOLERANCE.slope && corners.has(triangles[i] as number))
      touching.set(f, (touching.get(f) ?? 0) + 1)
  }
  const roofs = [...touching].flatMap(([f, count]) => {
    const facet = facets[f] as Facet
    const isBelow = [...corners].every(
      (v) => dotOf(facet.plane.n, cornerAt(positions, v)) < facet.plane.d + TOLERANCE.touch,
    )
    return count > 1 && !facet.surface && isBelow ? [facet] : []
  })
  return { top, roofs }
}

const [BASE, TOP] = ['base', 'top'] as const

/**
 * The flat faces of a body that a block over a strip runs on from, by its edges, and at its base and top: those that lie in one plane
 * with it.
 */
function runsOnFrom(solid: Solid, strip: Outline[], side: string, low: number, high: number): Map<string, Facet> {
  const flat = solid.facets.filter((f) => !f.surface)
  const isOn = ({ plane: { n, d } }: Facet, [x, y]: Vec2) =>
    Math.abs(n[2]) < TOLERANCE.rounding && Math.abs(n[0] * x + n[1] * y - d) < TOLERANCE.touch
  const found = new Map<string, Facet>()
  for (const { points, edges } of strip)
    edges.forEach((edge, i) => {
      if (edge === side) return
      const [a, b] = [points[i] as Vec2, points[(i + 1) % points.length] as Vec2]
      const from = flat.find((f) => parseFaceName(f.name).own === edge && isOn(f, a) && isOn(f, b))
      if (from) found.set(edge, from)
    })
  const level = (z: number, up: number) =>
    flat.find((f) => f.plane.n[2] * up > 1 - TOLERANCE.rounding && Math.abs(f.plane.d * up - z) < TOLERANCE.touch)
  const [base, top] = [level(low, -1), level(high, 1)]
  if (base) found.set(BASE, base)
  if (top) found.set(TOP, top)
  return found
}

/** The faces of the block: they have the names of those that they run on from. */
const namesOf = ({ id, side }: PullMove, onward: Map<string, Facet>): SweepNames => ({
  base: onward.get(BASE)?.name ?? faceName(id, BASE),
  top: onward.get(TOP)?.name ?? faceName(id, TOP),
  side: (edge) => (edge === side ? faceName(id, side) : (onward.get(edge)?.name ?? faceName(id, edge))),
})

/** The heights that it pulls between (m), within those of the form. */
function heightsOf(m: PullMove, numbers: StandingNumbers, [z0, z1]: readonly [number, number]): [number, number] {
  const from = m.fromLevel ? heightOf(m.fromLevel, numbers) : numbers.length(m.from)
  const to = m.toLevel ? heightOf(m.toLevel, numbers) : m.to === null ? z1 : numbers.length(m.to)
  return [Math.max(z0, from), Math.min(z1, to)]
}

const heightOf = (at: AtLevel, numbers: StandingNumbers): number =>
  heightAtLevel(at, numbers, 'A side is pulled from, or up to,')

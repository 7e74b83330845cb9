import type { MassForm } from '../form'
import {
  envelopeOf,
  fitOf,
  groundAlong,
  heightAt,
  inOrder,
  planFit,
  Refusal,
  siteFigures,
  siteRing,
  triangulateSurvey,
  unpackSurvey,
  type Envelope,
  type Fit,
  type FootGround,
  type Id,
  type Neighbour,
  type Numbers,
  type Project,
  type Site,
  type SiteFigures,
  type Tin,
} from '../project'
import { placePoint, type Region, type Vec2 } from '../solid'
import type { StudyCache } from './cache'

/** Stored pictures and surveys by the hash of their content; null where one is not at hand. */
export type Assets = (hash: string) => Uint8Array | null
/** Where no stored content is at hand. */
export const NO_ASSETS: Assets = () => null

/** A mass on the ground: the ground along its foot, and how high its top stands above it by each rule, m. */
export interface MassGround extends FootGround {
  above: { lowest: number; mean: number; highest: number }
}

export interface NeighbourForm {
  id: Id
  name: string
  outline: Vec2[]
  base: number
  top: number
}

/** The ground of a project, as a scheme stands on it. */
export interface GroundStudy {
  site: (SiteFigures & { ring: Vec2[] }) | null
  envelope: Envelope | null
  /** by mass */
  fits: Map<Id, Fit>
  tin: Tin | null
  /** m above the datum at a place; null beyond the survey */
  height: (x: number, y: number) => number | null
  feet: Map<Id, MassGround>
  neighbours: NeighbourForm[]
  /** the terrain is stored elsewhere, and not at hand */
  missing: boolean
}

/** The ground of a scheme: site, envelope, terrain, and how each mass stands in them; m, m2, m3. */
export function studyGround(
  project: Project,
  forms: MassForm[],
  numbers: Numbers,
  cache: StudyCache,
  assets: Assets,
): GroundStudy {
  const { site, terrain } = project
  const { attempts } = cache
  const whole = <T>(what: string, make: () => T): T | null =>
    attempts.run<T | null>({ what, id: what, name: project.name }, make, () => null)
  const ring = site && whole('site', () => ({ ring: siteRing(site, numbers) }))
  const figures = ring && whole('site figures', () => ({ ...siteFigures(ring.ring), ...ring }))
  // The same object while its numbers stay, so that what hangs on it stays too, and a drag does not offset the site anew.
  const envelope =
    site &&
    whole('envelope', () =>
      cache.memo.keep(site, 'envelope', [siteKey(site, numbers)], () => envelopeOf(site, numbers)),
    )
  const bytes = terrain?.kind === 'survey' ? assets(terrain.asset) : null
  const tin =
    bytes && whole('terrain', () => cache.memo.keep(bytes, 'tin', [], () => triangulateSurvey(unpackSurvey(bytes))))
  const flat = terrain?.kind === 'level' ? whole('ground level', () => numbers.length(terrain.height)) : null
  const height = tin ? (x: number, y: number) => heightAt(tin, x, y) : () => flat
  const levelGround: FootGround | null = flat === null ? null : { lowest: flat, mean: flat, highest: flat, beyond: 0 }
  const fits = new Map<Id, Fit>()
  const feet = new Map<Id, MassGround>()
  for (const form of forms) {
    const node = { what: 'place in the envelope', id: form.id, name: form.name, masses: [form.id] }
    const fit =
      envelope &&
      attempts.run<Fit | null>(
        node,
        () => fitIn(form, envelope, cache),
        () => null,
      )
    if (fit) fits.set(form.id, fit)
    const foot =
      terrain &&
      attempts.run(
        { ...node, what: 'foot on the ground' },
        () => footOn(form),
        () => null,
      )
    if (foot)
      feet.set(form.id, {
        ...foot,
        above: { lowest: form.top - foot.lowest, mean: form.top - foot.mean, highest: form.top - foot.highest },
      })
  }
  // A form that only grows taller keeps its foot, and how it lies in the envelope.
  function footOn(form: MassForm) {
    return cache.memo.keep(form, 'foot', [tin, flat], () => {
      const plan = standingPlan(form)
      return cache.lately(`foot ${form.id}`, [tin, flat, JSON.stringify(plan)], () =>
        tin ? groundAlong(tin, plan) : levelGround,
      )
    })
  }
  const neighbours = inOrder(project.neighbours).flatMap((n) =>
    attempts.run<NeighbourForm[]>(
      { what: 'neighbour', id: n.id, name: n.name },
      () => [neighbourForm(n, height, numbers)],
      () => [],
    ),
  )
  const missing = terrain?.kind === 'survey' && !bytes
  return { site: figures, envelope, fits, tin, height, feet, neighbours, missing }
}

/** How a mass fits the envelope; null for a body that cannot be computed with, which is a finding of its own. */
function fitIn(form: MassForm, envelope: Envelope, cache: StudyCache): Fit | null {
  const inPlan = () => {
    const plan = standingPlan(form)
    return cache.lately(`plan ${form.id}`, [envelope, JSON.stringify(plan)], () => planFit(envelope, plan, form.rect))
  }
  return cache.memo.keep(form, 'fit', [envelope], () => {
    try {
      return fitOf(form.body.solid, form.at, form.top, form.rect, envelope, inPlan)
    } catch (e) {
      if (e instanceof Refusal) return null
      throw e
    }
  })
}

function neighbourForm(n: Neighbour, height: GroundStudy['height'], numbers: Numbers): NeighbourForm {
  const middle = n.outline.reduce(
    (sum, p): Vec2 => [sum[0] + p[0] / n.outline.length, sum[1] + p[1] / n.outline.length],
    [0, 0],
  )
  const base = n.base === null ? (height(...middle) ?? 0) : numbers.length(n.base)
  return { id: n.id, name: n.name, outline: n.outline, base, top: base + numbers.length(n.height) }
}

/** A site's numbers, where formulas give some of them. */
const siteKey = (site: Site, numbers: Numbers): string =>
  JSON.stringify([
    site.limit === null ? null : numbers.length(site.limit),
    ...site.corners.map((c) => [
      numbers.length(c.x),
      numbers.length(c.y),
      numbers.length(c.setback),
      c.slope && [numbers.length(c.slope.from), numbers.angle(c.slope.angle)],
    ]),
  ])

/** The plan of a mass where it stands, m. */
export const standingPlan = (form: MassForm): Region =>
  form.body.plan().map((loop) => loop.map((p) => placePoint(p, form.at)))

/** m between contours for drawing: so that there are a dozen or two of them. */
export const contoursApart = ({ low, high }: Pick<Tin, 'low' | 'high'>): number =>
  [0.1, 0.25, 0.5, 1, 2, 5, 10, 25, 50].find((a) => (high - low) / a <= 24) ?? 100

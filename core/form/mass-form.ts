import {
  buildRecipe,
  copiesReadOf,
  readsOf,
  recipeKey,
  type Form,
  type LeftOutMove,
  type Note,
  type SoftCage,
} from '../moves'
import { planFromAbove, ringPlan } from './plan'
import {
  canonical,
  copiesAmong,
  fingerprint,
  type Mass,
  type Move,
  type Numbers,
  type StandingNumbers,
} from '../project'
import {
  tiersOf,
  boxOf,
  facesOf,
  flatsOf,
  placePoint,
  volumeOf,
  type Tiers,
  type Box,
  type Face,
  type Placement,
  type Rect,
  type Region,
  type Solid,
  type Vec2,
} from '../solid'
import { tidy } from '../project'

/** A body by the content of its recipe, in its own frame; masses and copies with equal recipes share one. */
export interface Body {
  key: string
  solid: Solid
  box: Box
  volume: number
  eaves: number
  ridge: number | null
  anchor: Vec2
  /** moves that could not be made */ leftOut: LeftOutMove[]
  /** what moves say of what they made */ notes: Note[]
  /**
   * where it is twisted and nothing else: its content without the levels, and the heights (m, as text) at which its cut hangs on that
   * alone
   */
  turned: { key: string; rows: ReadonlySet<string> } | null
  /** of a soft form: what it is drawn from, in the body's own frame */ cage: SoftCage | null
  faces(): Face[]
  /** its faces in flat bits */ flats(): Face[]
  tiers(): Tiers
  /** its plan from above, m */ plan(): Region
}

/** A mass as it stands: its body, and where. Heights in metres above the datum. */
export interface MassForm {
  id: string
  name: string
  use: string
  order: number
  body: Body
  at: Placement
  base: number
  top: number
  ridge: number | null
  /** its extent in plan, m */ rect: Rect
  key: string
}

/** Builds a body from a recipe's content. Errors: as the moves'. */
export function buildBody(recipe: Move[], numbers: StandingNumbers, name: string, key: string): Body {
  const form = buildRecipe(recipe, numbers, name)
  const { solid } = form
  let faces: Face[] | null = null
  let flats: Face[] | null = null
  let tiers: Tiers | null = null
  let plan: Region | null = null
  const body: Body = {
    key,
    solid,
    box: boxOf(solid.positions),
    volume: volumeOf(solid),
    eaves: form.eaves,
    ridge: form.ridge,
    anchor: form.anchor,
    leftOut: form.leftOut,
    notes: form.notes,
    turned: turnedOf(form, numbers),
    cage: form.cage ?? null,
    faces: () => (faces ??= facesOf(solid)),
    flats: () => (flats ??= solid.facets.some((f) => f.surface) ? flatsOf(solid) : body.faces()),
    tiers: () => (tiers ??= tiersOf(solid)),
    plan: () =>
      (plan ??=
        form.turned?.solid === solid
          ? ringPlan(form.turned)
          : planFromAbove(body.flats, form.carried?.sweep ?? null, solid)),
  }
  return body
}

/** A height as it is compared: to a thousandth of a millimetre. */
export const heightText = (z: number): string => z.toFixed(6)

function turnedOf({ carried }: Form, { heights, base }: StandingNumbers): Body['turned'] {
  if (!carried?.sweep.twist) return null
  // A row of the body lies at every level: there its cut is the outline, turned.
  const rows = new Set([...heights.values()].map((h) => heightText(tidy(h - base))))
  return { key: fingerprint(JSON.stringify(carried)), rows }
}

/** What a body is cached by: the recipe and the values of its numbers. */
export const bodyKey = (recipe: Move[], numbers: StandingNumbers): string =>
  `${recipeText(recipe)}|${recipeKey(recipe, numbers)}`

/** A recipe as it is stored, with its keys in order. */
export function recipeText(recipe: Move[]): string {
  let text = texts.get(recipe)
  if (text === undefined) texts.set(recipe, (text = canonical(recipe)))
  return text
}
const texts = new WeakMap<Move[], string>()

/** The masses that a recipe reads, and those that they read: none for nearly all. */
export function massesRead(recipe: Move[], masses: Record<string, Mass>, seen: string[] = []): (Mass | undefined)[] {
  let own = reading.get(recipe)
  if (!own) reading.set(recipe, (own = { reads: readsOf(recipe), copies: copiesReadOf(recipe) }))
  const { reads, copies } = own
  return reads.flatMap((id) =>
    seen.includes(id)
      ? []
      : [
          masses[id],
          ...(copies.includes(id) ? copiesAmong(masses, id) : []),
          ...massesRead(masses[id]?.recipe ?? [], masses, [...seen, id]),
        ],
  )
}
const reading = new WeakMap<Move[], { reads: string[]; copies: string[] }>()

/** The mass standing on its base level, whose height (m) is given. */
export function standMass(mass: Mass, body: Body, numbers: Numbers, levelHeight: number): MassForm {
  const place = {
    x: numbers.length(mass.place.x),
    y: numbers.length(mass.place.y),
    z: tidy(levelHeight + numbers.length(mass.base.above)),
    turn: numbers.angle(mass.place.turn),
  }
  const [x, y] = placePoint(body.anchor, place)
  const at = { ...place, x, y }
  return {
    id: mass.id,
    name: mass.name,
    use: mass.use,
    order: mass.order,
    body,
    at,
    base: tidy(at.z + body.box.z0),
    top: tidy(at.z + body.box.z1),
    ridge: body.ridge === null ? null : tidy(at.z + body.ridge),
    rect: rectIn(body.box, at),
    key: `${body.key}@${at.x},${at.y},${at.z},${at.turn}`,
  }
}

/** The extent in plan of a placed box. */
function rectIn(box: Box, at: Placement): Rect {
  const points = (
    [
      [box.x0, box.y0],
      [box.x1, box.y0],
      [box.x1, box.y1],
      [box.x0, box.y1],
    ] as Vec2[]
  ).map((p) => placePoint(p, at))
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])]
  return { x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) }
}

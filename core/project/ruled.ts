import { buildable, orderedRing } from '../ground'
import { darknessAt, lay, pixelOf, scalingOf } from '../picture'
import { carriedUp, checkRecipe, recipeTies, type Move } from '../moves'
import { wayKind } from '../repeats'
import { cellRecipe, givenIn, isRaised, runRule, type Rule, type RuleRun, type RuleWorld } from '../rules'
import { refuse, sameList, tidy, type Numbers } from '../values'
import {
  outlinesAt,
  piecesOf,
  placePoint,
  planOfOutlines,
  turnOf,
  type Plan,
  type PlanCorner,
  type Vec2,
} from '../solid'
import { heightsOf, standingNumbers } from './heights'
import { numbersOf } from './numbers'
import type { Project, Scheme } from './schema'

/** What a rule grows from besides its steps: storeys, site, its base. */
export function ruleWorld(project: Project, scheme: Scheme, rule: Rule, numbers: Numbers): RuleWorld {
  const storeys = Object.values(scheme.levels)
    .filter((l) => l.kind === 'storey')
    .map((l) => ({ id: l.id, name: l.name, height: numbers.height(l.id) }))
    .sort((a, b) => a.height - b.height)
  return {
    base: tidy(numbers.height(rule.base.level) + numbers.length(rule.base.above)),
    storeys,
    site: siteOf(project, rule, numbers),
    mass: hostsOf(scheme, rule, numbers),
    darkness: darknessOf(project, rule, numbers),
  }
}

function siteOf({ site }: Project, { place }: Rule, numbers: Numbers): RuleWorld['site'] {
  if (!site) return null
  const { ring, side } = orderedRing(site, numbers)
  const [x, y] = [numbers.length(place.x), numbers.length(place.y)]
  const { c, s } = turnOf(-numbers.angle(place.turn))
  const setbacks = side.map((k) => numbers.length(site.corners[k]?.setback ?? 0))
  const placed = ([px, py]: Vec2): Vec2 => {
    const [dx, dy] = [px - x, py - y]
    return [tidy(c * dx - s * dy), tidy(s * dx + c * dy)]
  }
  // The very region that the envelope is made of.
  const within = (deeper: number): Plan[] =>
    piecesOf(
      buildable(
        ring,
        setbacks.map((d) => Math.max(0, d + deeper)),
      ),
    ).map((piece) =>
      piece.map((loop) => loop.map((p, i): PlanCorner => ({ id: `s${i + 1}`, at: placed(p), bulge: 0 }))),
    )
  return { within, limit: site.limit === null ? null : numbers.length(site.limit) }
}

/** How dark pictures are where a rule is at work. Only those are asked that lie in plan and are tied to a point of the site. */
const darknessOf =
  (project: Project, rule: Rule, numbers: Numbers): RuleWorld['darkness'] =>
  (id) => {
    const picture =
      project.pictures[id] ?? refuse('stale', 'The picture whose darkness counts is gone.', 'Choose another one.')
    const stand = picture.stands.find((s) => s.lies.kind === 'plan')
    if (!stand)
      return refuse(
        'stale',
        `"${picture.name}" is not laid in plan.`,
        'Lay it in plan at the Ground desk, or choose another picture.',
      )
    if (picture.pin.to.kind !== 'point')
      return refuse(
        'stale',
        `"${picture.name}" is tied to a mass or an axis, and moves with it.`,
        'Tie it to a point of the site, or choose another picture.',
      )
    const { shades, width, height } = picture
    if (!shades)
      return refuse(
        'stale',
        `How dark "${picture.name}" is has not been read yet.`,
        'Choose it once more in this step.',
      )
    const laid = lay(picture, stand, { numbers, pictures: {}, measures: {}, height: () => null, mass: () => null })
    const scaling = scalingOf(picture, numbers)
    const at = {
      x: numbers.length(rule.place.x),
      y: numbers.length(rule.place.y),
      z: 0,
      turn: numbers.angle(rule.place.turn),
    }
    return (p) => {
      const [x, y] = placePoint(p, at)
      const [across, down] = pixelOf(laid, scaling, [x, y, laid.corner[2]])
      return darknessAt(shades, across / width, down / height)
    }
  }

/** The masses that a rule's steps go round: their outlines as they are carried up, without a kernel. */
function hostsOf(scheme: Scheme, rule: Rule, numbers: Numbers): RuleWorld['mass'] {
  const turn = numbers.angle(rule.place.turn)
  const [x, y] = [numbers.length(rule.place.x), numbers.length(rule.place.y)]
  return (id) => {
    const mass = scheme.masses[id]
    if (!mass) return null
    const standing = standingNumbers(mass, numbers, heightsOf(scheme, numbers))
    const { sweep, anchor, more } = carriedUp(mass.recipe, standing, mass.name) ?? {}
    if (!sweep || !anchor) return null
    const place = {
      x: numbers.length(mass.place.x),
      y: numbers.length(mass.place.y),
      z: 0,
      turn: numbers.angle(mass.place.turn),
    }
    const { c, s } = turnOf(-turn)
    const inRule = (p: Vec2): Vec2 => {
      const [wx, wy] = placePoint([p[0] + anchor[0], p[1] + anchor[1]], place)
      return [c * (wx - x) - s * (wy - y), s * (wx - x) + c * (wy - y)]
    }
    return {
      name: mass.name,
      base: tidy(standing.base + sweep.z0),
      top: tidy(standing.base + sweep.z1),
      twisted: sweep.twist !== null,
      more: more ?? false,
      plan: (z) =>
        planOfOutlines(outlinesAt(sweep, z - standing.base)).map((line) =>
          line.map((corner) => ({ ...corner, at: inRule(corner.at) })),
        ),
    }
  }
}

const runs = new WeakMap<Rule, { from: unknown[]; run: RuleRun }>()

/** Whether a rule's steps read masses. */
const reads = (rule: Rule): boolean =>
  rule.steps.some(
    (s) => ('mass' in s && s.mass) || (s.step === 'repeat' && (wayKind(s.way).reads?.(s.way).length ?? 0) > 0),
  )

/** A rule of a scheme, run; once while nothing that it grows from has changed. Errors: 'unknown-id' where its level is gone. */
export function ruleRun(project: Project, scheme: Scheme, rule: Rule): RuleRun {
  const { site, dials, measures, pictures, profiles, unit } = project
  const from = [
    site,
    dials,
    measures,
    pictures,
    profiles,
    unit,
    scheme.dials,
    scheme.levels,
    reads(rule) ? scheme.masses : null,
  ]
  const known = runs.get(rule)
  if (known && sameList(known.from, from)) return known.run
  const numbers = numbersOf(project, scheme)
  const run = runRule(rule, ruleWorld(project, scheme, rule, numbers), (given) =>
    given === null ? numbers : numbersOf(project, scheme, given),
  )
  runs.set(rule, { from, run })
  return run
}

/** The numbers of a scheme as a rule's formulas read them: what its steps give is that of its first cell, or 1 while there is none. */
export function numbersInRule(project: Project, scheme: Scheme, id: string | null): Numbers {
  const rule = id === null ? undefined : scheme.rules[id]
  if (!rule) return numbersOf(project, scheme)
  const cell = ruleRun(project, scheme, rule).trace.at(-1)?.cells[0]
  return numbersOf(project, scheme, new Map(givenIn(rule).map((g) => [g.id, { ...g, value: cell?.given[g.id] ?? 1 }])))
}

/** Refuses a rule that leads nowhere, or whose steps cannot be made. Each body of another recipe is looked at once. */
export function checkRule(project: Project, scheme: Scheme, rule: Rule, numbers: Numbers): void {
  const need = <T>(things: Record<string, T>, id: string | null | undefined, what: string, remedy: string) =>
    id === null ||
    id === undefined ||
    things[id] ||
    refuse('unknown-id', `"${rule.name}" has a ${what} that is not there.`, remedy)
  need(scheme.levels, rule.base.level, 'level', 'Choose one of the levels in the spine.')
  need(project.uses, rule.use, 'use', 'Choose one of the uses of the project.')
  for (const num of [rule.place.x, rule.place.y, rule.base.above]) numbers.length(num)
  numbers.angle(rule.place.turn)
  const ids = rule.steps.map((s) => s.id)
  if (new Set(ids).size !== ids.length)
    refuse('id-taken', `Two steps of "${rule.name}" have the same id.`, 'Give each step its own id.')
  const names = givenIn(rule).map((g) => g.name.toLowerCase())
  const twice = names.find((n, i) => names.indexOf(n) < i)
  if (twice !== undefined)
    refuse('name-taken', `Two steps of "${rule.name}" give a number named "${twice}".`, 'Choose another name.')
  for (const own of [...rule.steps, ...Object.values(rule.own), ...Object.values(rule.frozen ?? {})]) {
    const { use, material, materials, faces } = own as {
      use?: string | null
      material?: string | null
      materials?: string[]
      faces?: Record<string, string>
    }
    need(project.uses, use, 'use', 'Choose one of the uses of the project.')
    for (const id of [material, ...(materials ?? []), ...Object.values(faces ?? {})])
      need(project.materials, id, 'material', 'Choose one of the materials of the project.')
  }
  const run = ruleRun(project, scheme, rule)
  // A mass that it reads may go: the rule says so, and grows nothing.
  if (run.failed && run.failed.code !== 'stale') refuse('edit', run.failed.say, run.failed.remedy)
  const heights = heightsOf(scheme, numbers)
  const base = numbers.height(rule.base.level) + numbers.length(rule.base.above)
  const seen = new Set<Move[]>()
  for (const cell of run.cells) {
    const recipe = cellRecipe(cell, rule.own[cell.key])
    if (!isRaised(cell) || seen.has(recipe)) continue
    seen.add(recipe)
    for (const tie of recipeTies(recipe))
      need(scheme.levels, tie.level, 'level', 'Choose one of the levels in the spine.')
    checkRecipe(recipe, `${rule.name} ${cell.key}`, { ...numbers, heights, base: tidy(base + cell.up) })
  }
}

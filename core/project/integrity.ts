import { gapOf, TOLERANCE } from '../solid'
import { checkSite } from '../ground'
import { checkRecipe, hangsOn, moveIds, outlineFault, recipeTies } from '../moves'
import { checkRepeat } from '../repeats'
import { MEASURES } from '../picture'
import { refuse, sameList, type Numbers, type StandingNumbers } from '../values'
import { heightsOf, standingNumbers } from './heights'
import { numbersOf } from './numbers'
import { checkRule } from './ruled'
import { keysOf, PROJECT_COLLECTIONS, SCHEME_COLLECTIONS } from './collections'
import type { Project, Scheme } from './schema'
import { briefKey, quantityOf } from './brief'
import type { Within } from './plate-edits'
import type { Mass } from './things'

/**
 * What must hold in every project that is stored: references lead somewhere, names are told apart, nothing goes in a circle,
 * every form can be built. Run on the result of each batch of edits, so that nothing is half-applied.
 */
export function checkProject(project: Project): void {
  for (const [things, apart] of allCollections(project)) {
    for (const [key, thing] of Object.entries(things))
      if (key !== thing.id)
        refuse('edit', `The key "${key}" differs from the id "${thing.id}" under it.`, 'Make both the same.')
    if (apart !== null) tellApart(Object.values(things), apart)
  }
  const names = numbersOf(project, null)
  for (const dial of Object.values(project.dials)) names.value(dial.value, dial.quantity)
  checkGround(project, names)
  if (project.siteArea !== null && !(names.value(project.siteArea, 'area') >= 0.01))
    refuse('size', 'The site area is nothing, or less.', 'Type an area above zero, or leave it empty.')
  for (const [num, what] of [
    [project.headroom, 'headroom'],
    [project.smallestArea, 'smallest area'],
    [project.wallAllowance ?? 0, 'thickness of outer walls'],
    [project.deepest ?? 0, 'greatest depth'],
  ] as const) {
    if (names.value(num, what === 'smallest area' ? 'area' : 'length') < 0)
      refuse('size', `The ${what} is below zero.`, 'Type zero or more.')
  }
  checkBrief(project, names)
  idsApart(project.facts.custom, 'fields of your own')
  for (const buildUp of Object.values(project.buildUps)) {
    const thickness = buildUp.layers.reduce(
      (sum, layer) => sum + atLeastZero(names.length(layer.thickness), `A layer of "${buildUp.name}"`),
      0,
    )
    idsApart(buildUp.layers, `layers of "${buildUp.name}"`)
    if (!(thickness > 0))
      refuse('size', `The build-up "${buildUp.name}" has no thickness.`, 'Give a layer a thickness above zero.')
  }
  for (const material of Object.values(project.kinds)) needMaterial(project, material, 'A kind of part')
  if (Object.keys(project.schemes).length === 0)
    refuse('in-use', 'A project needs at least one scheme.', 'Make another scheme before removing this one.')
  const around = Object.entries(project).flatMap(([key, value]): unknown[] => (key === 'schemes' ? [] : [value]))
  for (const scheme of Object.values(project.schemes)) {
    // Most edits change one scheme: the others stand as they stood.
    if (sameList(sound.get(scheme) ?? [], around)) continue
    checkScheme(project, scheme)
    sound.set(scheme, around)
  }
}

/** schemes that were checked, with all that is not of a scheme in the project that they were checked in */
const sound = new WeakMap<Scheme, readonly unknown[]>()

function checkGround(project: Project, names: Numbers): void {
  if (project.site) checkSite(project.site, names)
  if (project.terrain?.kind === 'level') names.length(project.terrain.height)
  for (const n of Object.values(project.neighbours)) {
    const fault = outlineFault(n.outline)
    if (fault) refuse('outline', `The outline of the neighbour "${n.name}" ${fault.what}.`, fault.remedy)
    if (n.base !== null) names.length(n.base)
    if (!(names.length(n.height) > 0))
      refuse('size', `The neighbour "${n.name}" has no height.`, 'Type a height above zero.')
  }
  tellApart([...Object.values(project.dials), ...Object.values(project.measures)], 'dial or measure')
  for (const p of Object.values(project.pictures)) {
    for (const [i, pair] of p.pairs.entries()) {
      if (gapOf(pair.b, pair.a) < 1)
        refuse(
          'size',
          `The two points of pair ${i + 1} of "${p.name}" lie at one place.`,
          'Pick two points that lie well apart.',
        )
      if (!(names.length(pair.length) > 0))
        refuse(
          'size',
          `The length of pair ${i + 1} of "${p.name}" is zero or less.`,
          'Type how far the two points are apart.',
        )
    }
    names.angle(p.turn)
    if (p.crop && (p.crop[0] >= p.crop[2] || p.crop[1] >= p.crop[3]))
      refuse(
        'size',
        `Nothing of "${p.name}" is left by its crop.`,
        'Let its left edge lie left of its right one, and its top above its bottom.',
      )
    for (const { lies } of p.stands)
      if (lies.kind === 'plan') names.length(lies.above)
      else {
        names.angle(lies.azimuth)
        names.length(lies.toward)
      }
    if (p.pin.to.kind === 'point') for (const num of [p.pin.to.x, p.pin.to.y, p.pin.to.z]) names.length(num)
    if (p.pin.to.kind === 'axis' && project.measures[p.pin.to.measure]?.kind !== 'radius')
      refuse(
        'unknown-id',
        `"${p.name}" is tied to the axis of a circle that is not there.`,
        'Tie it to a point, or measure the circle again.',
      )
  }
  for (const m of Object.values(project.measures)) {
    if (m.same !== null && !project.measures[m.same])
      refuse('unknown-id', `"${m.name}" is compared with a measure that is not there.`, 'Choose another one, or none.')
    names.value({ formula: `{${m.id}}` }, MEASURES[m.kind].quantity)
  }
  for (const t of Object.values(project.traces))
    if (!project.pictures[t.picture])
      refuse('unknown-id', `The picture of "${t.name}" is not there.`, 'Remove what was traced on it first.')
}

function checkScheme(project: Project, scheme: Scheme): void {
  const numbers = numbersOf(project, scheme)
  tellApart([...Object.values(project.dials), ...Object.values(scheme.dials)], 'dial')
  for (const dial of Object.values(scheme.dials)) numbers.value(dial.value, dial.quantity)
  checkStacks(scheme)
  for (const level of Object.values(scheme.levels)) {
    for (const [num, what] of [
      [level.floorBuildUp, 'floor build-up'],
      [level.slab, 'slab'],
    ] as const)
      atLeastZero(numbers.length(num), `The ${what} of "${level.name}"`)
    if (level.tie.kind === 'fixed') {
      numbers.length(level.tie.height)
      continue
    }
    numbers.length(level.tie.above)
  }
  const heights = heightsOf(scheme, numbers)
  const needLevel = (id: string, who: string) =>
    scheme.levels[id] ??
    refuse('unknown-id', `${who} refers to a level that is not there.`, 'Choose one of the levels in the spine.')
  for (const mass of Object.values(scheme.masses)) {
    if (!project.uses[mass.use])
      refuse('unknown-id', `"${mass.name}" has a use that is not there.`, 'Choose one of the uses of the project.')
    needLevel(mass.base.level, `"${mass.name}"`)
    for (const id of mass.takes.levels) needLevel(id, `"${mass.name}"`)
    for (const { use, from, to } of mass.storeyUses ?? []) {
      needUse(project, use, `"${mass.name}"`)
      for (const id of [from, to]) needLevel(id, `"${mass.name}"`)
    }
    for (const num of [mass.base.above, mass.place.x, mass.place.y]) numbers.length(num)
    numbers.angle(mass.place.turn)
    for (const tie of recipeTies(mass.recipe)) needLevel(tie.level, `"${mass.name}"`)
    const now = standing.get(mass)
    if (!now?.every(([id, height]) => heights.get(id) === height))
      checkMassRecipe(mass, standingNumbers(mass, numbers, heights, scheme.masses), heights)
    for (const material of [mass.material, ...Object.values(mass.faces)])
      needMaterial(project, material, `"${mass.name}"`)
  }
  for (const part of Object.values(scheme.parts)) {
    const buildUp =
      project.buildUps[part.buildUp] ??
      refuse('unknown-id', `"${part.name}" has a build-up that is not there.`, 'Choose one of the build-ups.')
    if (buildUp.for !== part.kind)
      refuse(
        'edit',
        `"${part.name}" is a ${part.kind}, "${buildUp.name}" is a build-up for a ${buildUp.for}.`,
        `Choose a build-up for a ${part.kind}.`,
      )
    const plate = part.host.face === 'plate'
    if ((part.print.kind === 'plate') !== (part.kind === 'slab' && plate))
      refuse(
        'edit',
        `"${part.name}" remembers ${part.print.kind === 'plate' ? 'the outline of a floor' : 'a face'}, but stands on ${plate ? 'a floor' : 'a face'}.`,
        'Give it the print of what it stands on.',
      )
    for (const tie of [part.base, part.top])
      if (tie) {
        needLevel(tie.level, `"${part.name}"`)
        numbers.length(tie.above)
      }
    if (part.print.kind === 'face')
      for (const id of [part.print.zFrom, part.print.zTo]) if (id !== null) needLevel(id, `"${part.name}"`)
    for (const overhang of [part.overhang, ...Object.values(part.overhangs)])
      atLeastZero(numbers.length(overhang), `The overhang of "${part.name}"`)
    atLeastZero(numbers.length(part.rise), `The height of "${part.name}"`)
  }
  for (const repeat of Object.values(scheme.repeats)) {
    checkRepeat(repeat, { ...numbers, base: 0, heights })
    for (const { use } of Object.values(repeat.own))
      if (use !== null && !project.uses[use])
        refuse('unknown-id', `"${repeat.name}" has a use that is not there.`, 'Choose one of the uses of the project.')
  }
  for (const rule of Object.values(scheme.rules)) checkRule(project, scheme, rule, numbers)
  for (const wing of Object.values(scheme.wings)) {
    const fault = wing.outline && outlineFault(wing.outline)
    if (fault) refuse('outline', `The outline of the wing "${wing.name}" ${fault.what}.`, fault.remedy)
  }
  for (const { levels, does } of Object.values(scheme.plateEdits)) {
    for (const id of levels) needLevel(id, 'A change of a plate')
    if (does.kind === 'use') needUse(project, does.use, 'A part of a plate')
    if (does.kind === 'inset') numbers.length(does.by)
    else checkWithin(does.within)
  }
  for (const mass of Object.values(scheme.masses))
    if (mass.wing !== null && !scheme.wings[mass.wing])
      refuse('unknown-id', `"${mass.name}" belongs to a wing that is not there.`, 'Choose one of the wings, or none.')
}

function needMaterial(project: Project, id: string | null | undefined, who: string): void {
  if (id && !project.materials[id])
    refuse('unknown-id', `${who} has a material that is not there.`, 'Choose one of the materials of the project.')
}

function needUse(project: Project, id: string, who: string): void {
  if (!project.uses[id])
    refuse('unknown-id', `${who} has a use that is not there.`, 'Choose one of the uses of the project.')
}

function checkWithin(within: Within): void {
  if (within.kind === 'left-of') {
    if (gapOf(within.a, within.b) < TOLERANCE.least)
      refuse('outline', 'The line that splits a plate has no length.', 'Draw it from one place to another.')
    return
  }
  const fault = outlineFault(within.points)
  if (fault) refuse('outline', `The part of a plate ${fault.what}.`, fault.remedy)
}

/** No line of the brief twice, each about something that is there, and above zero. */
function checkBrief(project: Project, names: Numbers): void {
  const seen = new Map<string, string>()
  for (const line of Object.values(project.brief)) {
    const { of, name } = line
    if (of.kind !== 'figure') needUse(project, of.use, `The line "${name}" of the brief`)
    const before = seen.get(briefKey(of))
    if (before !== undefined)
      refuse(
        'name-taken',
        `"${before}" and "${name}" of the brief are about the same thing.`,
        'Keep one of them, or let one count gross and the other net floor.',
      )
    seen.set(briefKey(of), name)
    const quantity = quantityOf(of)
    if (!(names.value(line.target, quantity) > 0))
      refuse('size', `The target of "${name}" is zero or less.`, 'Type what is wanted, above zero.')
    if (of.kind === 'count' && !(names.value(of.size, 'area') > 0))
      refuse('size', `One of "${name}" has no size.`, 'Type the area of one of them.')
  }
}

/** No level stands, directly or over others, on itself. Each is walked over once. */
function checkStacks(scheme: Scheme): void {
  const sound = new Set<string>()
  for (const start of Object.keys(scheme.levels)) {
    const path: string[] = []
    const on = new Set<string>()
    for (let id = start; !sound.has(id);) {
      const level =
        scheme.levels[id] ??
        refuse(
          'unknown-id',
          `"${scheme.levels[path.at(-1) ?? start]?.name ?? start}" stands on a level that is not there.`,
          'Choose one of the levels in the spine.',
        )
      if (on.has(id)) {
        const circle = path.slice(path.indexOf(id)).map((l) => scheme.levels[l]?.name ?? l)
        refuse(
          'level-circle',
          `The levels would stand on each other in a circle: ${circle.join(' on ')} on ${circle[0]}.`,
          'Let one of them be fixed, or stand on another level.',
        )
      }
      path.push(id)
      on.add(id)
      if (level.tie.kind === 'fixed') break
      id = level.tie.on
    }
    for (const id of path) sound.add(id)
  }
}

function checkMassRecipe(mass: Mass, numbers: StandingNumbers, heights: ReadonlyMap<string, number>): void {
  checkRecipe(mass.recipe, mass.name, numbers)
  idsApart(
    moveIds(mass.recipe).map((id) => ({ id })),
    `moves of "${mass.name}"`,
  )
  const levels = typeof mass.base.above === 'number' ? hangsOn(mass.recipe, numbers) : null
  if (levels)
    standing.set(
      mass,
      [mass.base.level, ...levels].map((id) => [id, heights.get(id)]),
    )
}

/** masses of plain numbers whose recipes were checked, with the levels that they hang on and how high those lay */
const standing = new WeakMap<Mass, [string, number | undefined][]>()

function tellApart(things: { name?: string }[], what: string): void {
  const seen = new Set<string>()
  for (const { name = '' } of things) {
    const key = name.toLowerCase()
    if (seen.has(key)) refuse('name-taken', `There is a ${what} named "${name}" already.`, 'Choose another name.')
    seen.add(key)
  }
}

function idsApart(things: readonly { id: string }[], what: string): void {
  if (new Set(things.map((t) => t.id)).size !== things.length)
    refuse('id-taken', `Two ${what} have the same id.`, 'Give each of them its own id.')
}

const atLeastZero = (value: number, what: string) =>
  value >= 0 ? value : refuse('size', `${what} is below zero.`, 'Type zero or more.')

/** Every collection of a project with what holds it; the schemes' too. */
function* allCollections(project: Project): Generator<[Record<string, { id: string; name?: string }>, string | null]> {
  for (const key of keysOf(PROJECT_COLLECTIONS)) yield [project[key], PROJECT_COLLECTIONS[key].apart]
  yield [project.schemes, 'scheme']
  for (const scheme of Object.values(project.schemes))
    for (const key of keysOf(SCHEME_COLLECTIONS)) yield [scheme[key], SCHEME_COLLECTIONS[key].apart]
}

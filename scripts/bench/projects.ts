import { applyEdit, batch, type SingleEdit } from '@geotome/core/edits'
import { newMass, setPitch } from '@geotome/core/form'
import { addStoreys } from '@geotome/core/levels'
import { blankProject, type Move, type Project } from '@geotome/core/project'
import { firstScheme } from '@geotome/core/study'
import type { Vec2 } from '@geotome/core/solid'

let count = 0
const mint = () => `bench-${++count}`

/**
 * A town of `masses` masses under `levels` storeys of 3 m: L shapes and boxes, some gabled, turned, and a third of them overlapping a
 * neighbour.
 */
export function town(masses: number, levels: number): Project {
  let project = blankProject(mint, 'Town', 'm', 100000)
  const scheme = () => firstScheme(project)
  const ground = Object.keys(scheme().levels)[0] as string
  project = applyEdit(
    project,
    addStoreys(
      project,
      scheme(),
      mint,
      { on: ground, count: levels - 1, each: 3, pattern: 'Storey {n}', first: 1 },
      'carried',
    ),
  ).project
  const use = Object.keys(project.uses)[0] as string
  const side = Math.ceil(Math.sqrt(masses))
  const adds: SingleEdit[] = []
  for (let i = 0; i < masses; i++) {
    const [x, y] = [(i % side) * (i % 3 === 0 ? 34 : 36), Math.floor(i / side) * 36]
    const height = 3 * (levels - (i % 7))
    const shape =
      i % 2
        ? {
            kind: 'polygon' as const,
            points: [
              [0, 0],
              [24, 0],
              [24, 10],
              [11, 10],
              [11, 26],
              [0, 26],
            ].map(([a = 0, b = 0]): Vec2 => [x + a, y + b]),
          }
        : { kind: 'rectangle' as const, from: [x, y] as Vec2, to: [x + (i % 6 === 0 ? 38 : 28), y + 20] as Vec2 }
    const mass = newMass(scheme(), mint, { name: `Mass ${i}`, use, level: ground, height, shape })
    const placed = { ...mass, order: i, place: { ...mass.place, turn: (i % 5) * 3 } }
    const pitched = i % 10 === 4 ? setPitch(scheme(), placed, mint, { angle: 30, direction: 0 }) : null
    adds.push({
      edit: 'mass.add',
      scheme: scheme().id,
      thing: pitched?.edit === 'mass.change' ? { ...placed, ...pitched.set } : placed,
    })
  }
  return applyEdit(project, batch(adds)).project
}

/** One tower of 36 x 24 m with so many storeys of 3.5 m, twisted by so many degrees. */
export function twistedTower(levels: number, angle = 120): Project {
  let project = blankProject(mint, 'Tower', 'm', 4000)
  const scheme = () => firstScheme(project)
  const ground = Object.keys(scheme().levels)[0] as string
  project = applyEdit(
    project,
    addStoreys(
      project,
      scheme(),
      mint,
      { on: ground, count: levels, each: 3.5, pattern: 'Storey {n}', first: 1 },
      'carried',
    ),
  ).project
  const mass = newMass(scheme(), mint, {
    name: 'Tower',
    use: Object.keys(project.uses)[0] as string,
    level: ground,
    height: 3.5 * levels,
    shape: { kind: 'rectangle', from: [0, 0], to: [36, 24] },
  })
  return applyEdit(project, {
    edit: 'mass.add',
    scheme: scheme().id,
    thing: { ...mass, recipe: [...mass.recipe, { id: mint(), move: 'twist', on: true, angle, from: 0, to: null }] },
  }).project
}

/** A box of 20 x 10 x 12 that is tapered twice and twisted, or bent, twisted by `turn` degrees and tapered. */
export function carriedBox(form: 'tapers' | 'bend', turn: number): Project {
  const project = blankProject(mint, 'Carried', 'm', 1000)
  const scheme = firstScheme(project)
  const ground = Object.keys(scheme.levels)[0] as string
  const storeys = { on: ground, count: 3, each: 3, pattern: 'Storey {n}', first: 1 }
  const storeyed = applyEdit(project, addStoreys(project, scheme, mint, storeys, 'carried')).project
  const mass = newMass(firstScheme(storeyed), mint, {
    name: 'Box',
    use: Object.keys(project.uses)[0] as string,
    level: ground,
    height: 12,
    shape: { kind: 'rectangle', from: [0, 0], to: [20, 10] },
  })
  const taper = (scale: number): Move => ({ id: mint(), move: 'taper', on: true, by: { kind: 'scale', scale } })
  const twist: Move = { id: mint(), move: 'twist', on: true, angle: turn, from: 0, to: null }
  const bend: Move = { id: mint(), move: 'bend', on: true, by: 30, towards: 0 }
  const moves = form === 'tapers' ? [taper(0.9), taper(0.8), twist] : [bend, twist, taper(0.6)]
  const thing = { ...mass, recipe: [...mass.recipe, ...moves] }
  return applyEdit(storeyed, { edit: 'mass.add', scheme: scheme.id, thing }).project
}

/** One mass of 30 moves: an H of 30 storeys, on 28 of which a side is pulled out, or pushed in. */
export function thirtyMoves(): Project {
  const project = blankProject(mint, 'Shaped', 'm', 4000)
  const scheme = firstScheme(project)
  const mass = newMass(scheme, mint, {
    name: 'Bar',
    use: Object.keys(project.uses)[0] as string,
    level: Object.keys(scheme.levels)[0] as string,
    height: 90,
    shape: { kind: 'rectangle', from: [0, 0], to: [60, 40], form: 'H' },
  })
  const pulls = Array.from({ length: 28 }, (_, i): Move => ({
    id: mint(),
    move: 'pull',
    on: true,
    side: `e${(i % 12) + 1}`,
    by: i % 3 ? 0.8 : -0.6,
    from: 3 * i,
    fromLevel: null,
    to: 3 * i + 3,
    toLevel: null,
  }))
  const thing = { ...mass, recipe: [...mass.recipe, ...pulls] }
  return applyEdit(project, { edit: 'mass.add', scheme: scheme.id, thing }).project
}

import fc from 'fast-check'
import type { Edit } from '../edits'
import { letGo } from '../fabric'
import {
  addHole,
  changeRecipe,
  joinMasses,
  moveCorner,
  moveMasses,
  newMass,
  removeMass,
  removeMaterial,
  setPitch,
} from '../form'
import type { Move } from '../moves'
import {
  addLevel,
  addStoreys,
  insertLevel,
  moveLevel,
  removeLevel,
  retieLevel,
  setHeightBuildUp,
  tieAs,
} from '../levels'
import type { Project } from '../project'
import { converted, minter, projectWith, schemeOf, studied, withMass } from './make'

/** A project with basement and storeys, two masses and the whole building made of them. */
export const busyProject = (): Project => {
  let project = projectWith([-3, 0, 3, 6])
  project = withMass(project, { name: 'Bar', box: [0, 0, 20, 10], height: 9, level: 'L1' })
  project = withMass(project, {
    name: 'Wing',
    points: [
      [20, 0],
      [28, 0],
      [28, 12],
      [20, 10],
    ],
    height: 6,
    level: 'L1',
    use: 'studios',
  })
  return converted(project)
}

/** One random step of a person's work; null where it does not apply. */
const STEPS: ((p: Project, pick: (n: number) => number, mint: () => string) => Edit | null)[] = [
  (p, pick) => ({
    edit: 'project.change',
    set: {
      site: pick(3)
        ? {
            limit: pick(2) ? 9 + pick(9) : null,
            corners: (
              [
                [-9, -9],
                [60 + pick(9), -9],
                [60, 40 + pick(20)],
                [-9, 40],
              ] as const
            ).map(([x, y], i) => ({
              id: `c${i}`,
              x,
              y,
              setback: pick(30) / 10,
              slope: pick(4) ? null : { from: 4, angle: 45 },
            })),
          }
        : null,
    },
  }),
  (p, pick, mint) => ({
    edit: 'neighbour.add',
    thing: {
      id: mint(),
      name: `Shed ${mint()}`,
      order: 0,
      outline: [
        [pick(9), 50],
        [20 + pick(9), 50],
        [20, 60],
      ],
      base: pick(2) ? null : 1,
      height: 1 + pick(9),
    },
  }),
  (p, pick) => ({ edit: 'neighbour.remove', id: anyOf(p.neighbours, pick) }),
  (p, pick, mint) => ({
    edit: 'picture.add',
    thing: {
      id: mint(),
      name: `Picture ${mint()}`,
      order: 0,
      asset: 'a'.repeat(64),
      type: 'image/png',
      width: 400,
      height: 300,
      crop: null,
      turn: pick(9),
      opacity: 1,
      locked: false,
      pairs: [{ id: mint(), a: [0, 0], b: [100, pick(9)], length: 1 + pick(30), lies: 'level' }],
      pin: { px: [0, 300], to: { kind: 'point', x: 0, y: 0, z: 0 } },
      stands: [
        {
          id: mint(),
          lies: pick(2) ? { kind: 'plan', level: null, above: 0 } : { kind: 'upright', azimuth: -90, toward: 0 },
          shown: true,
          front: pick(2) === 1,
        },
      ],
    },
  }),
  (p, pick, mint) => ({
    edit: 'measure.add',
    thing: {
      id: mint(),
      name: `measure ${mint()}`,
      order: 0,
      kind: 'distance',
      picture: pick(2) ? null : anyOf(p.pictures, pick),
      points: [
        [0, 0, 0],
        [1 + pick(9), 3, 0],
      ],
      same: null,
    },
  }),
  (p, pick) => ({ edit: 'picture.remove', id: anyOf(p.pictures, pick) }),
  (p, pick, mint) => ({
    edit: 'wing.add',
    scheme: schemeOf(p).id,
    thing: {
      id: mint(),
      name: `Wing ${mint()}`,
      order: 0,
      outline: pick(2)
        ? null
        : [
            [0, 0],
            [30, 0],
            [30, 30],
            [0, 30],
          ],
    },
  }),
  (p, pick) => ({
    edit: 'mass.change',
    scheme: schemeOf(p).id,
    id: anyOf(schemeOf(p).masses, pick),
    set: { wing: pick(2) ? anyOf(schemeOf(p).wings, pick) : null },
  }),
  (p, pick, mint) =>
    insertLevel(
      p,
      schemeOf(p),
      mint,
      { on: anyOf(schemeOf(p).levels, pick), above: 1 + pick(30) / 10, kind: 'storey', name: `In ${mint()}` },
      pick(2) ? 'carried' : 'held',
      pick(2) === 1,
    ),
  (p, pick) => {
    const id = anyOf(schemeOf(p).levels, pick)
    return setHeightBuildUp(
      p,
      schemeOf(p),
      id,
      (['storey', 'clear', 'slab', 'floor'] as const)[pick(4)] ?? 'clear',
      0.2 + pick(40) / 10,
      { gives: pick(2) ? 'clear' : 'storey', above: pick(2) ? 'carried' : 'held' },
    )
  },
  (p, pick) => {
    const [a, b] = [anyOf(schemeOf(p).levels, pick), anyOf(schemeOf(p).levels, pick)]
    return a === b
      ? null
      : retieLevel(p, schemeOf(p), a, { kind: 'fixed', height: { formula: `{${b}} + ${pick(40) / 10} m` } }, 'carried')
  },
  (_p, pick) => ({
    edit: 'project.change',
    set: { name: `Name ${pick(9)}`, headroom: 1.5 + pick(10) / 10, siteArea: pick(2) ? 400 : null },
  }),
  (p, pick) =>
    moveLevel(p, schemeOf(p), anyOf(schemeOf(p).levels, pick), pick(200) / 10 - 4, pick(2) ? 'carried' : 'held'),
  (p, pick, mint) =>
    addLevel(schemeOf(p), mint, {
      name: `Level ${mint()}`,
      kind: pick(2) ? 'storey' : 'mark',
      on: anyOf(schemeOf(p).levels, pick),
      above: pick(60) / 10 - 3,
    }),
  (p, pick, mint) =>
    addStoreys(
      p,
      schemeOf(p),
      mint,
      { on: anyOf(schemeOf(p).levels, pick), count: 1 + pick(4), each: 3, pattern: `S${mint()} {n}`, first: 1 },
      pick(2) ? 'carried' : 'held',
    ),
  (p, pick) => removeLevel(p, schemeOf(p), anyOf(schemeOf(p).levels, pick)),
  (p, pick) => {
    const id = anyOf(schemeOf(p).levels, pick)
    return retieLevel(p, schemeOf(p), id, tieAs(p, schemeOf(p), id, pick(2) ? 'fixed' : 'stacked'), 'held')
  },
  (p, pick, mint) => ({
    edit: 'mass.add',
    scheme: schemeOf(p).id,
    thing: newMass(schemeOf(p), mint, {
      name: `Mass ${mint()}`,
      use: Object.keys(p.uses)[pick(5)] ?? '',
      level: anyOf(schemeOf(p).levels, pick),
      height: 1 + pick(30),
      shape: { kind: 'rectangle', from: [pick(40), pick(40)], to: [41 + pick(40), 41 + pick(40)] },
    }),
  }),
  (p, pick) =>
    moveMasses(
      p,
      schemeOf(p),
      [anyOf(schemeOf(p).masses, pick)],
      [pick(90) / 10, -pick(50) / 10],
      pick(24) * 15,
      [3, 4],
    ),
  (p, pick) => removeMass(schemeOf(p), anyOf(schemeOf(p).masses, pick), pick(2) === 1),
  (p, pick, mint) => {
    const mass = schemeOf(p).masses[anyOf(schemeOf(p).masses, pick)]
    return mass
      ? setPitch(schemeOf(p), mass, mint, pick(4) ? { angle: 5 + pick(40), direction: pick(4) * 45 } : null)
      : null
  },
  (p, pick) => {
    const mass = schemeOf(p).masses[anyOf(schemeOf(p).masses, pick)]
    const outline = mass?.recipe[0]
    return mass && outline?.move === 'outline' && outline.shape.kind === 'polygon'
      ? moveCorner(p, schemeOf(p), mass.id, outline.shape.corners[0]?.id ?? '', [-pick(30) / 10, -pick(30) / 10])
      : null
  },
  (p, pick, mint) => {
    const [a, b] = Object.keys(schemeOf(p).masses)
    return a && b && pick(3) === 0 ? joinMasses(p, schemeOf(p), mint, a, b) : null
  },
  (p, pick) => ({ edit: 'part.remove', scheme: schemeOf(p).id, id: anyOf(schemeOf(p).parts, pick) }),
  (p, pick) => ({
    edit: 'part.change',
    scheme: schemeOf(p).id,
    id: anyOf(schemeOf(p).parts, pick),
    set: { name: `Part ${pick(99)}`, side: 'outside' },
  }),
  (p, pick, mint) => ({
    edit: 'dial.add',
    scheme: schemeOf(p).id,
    thing: {
      id: mint(),
      order: pick(9),
      name: `d${mint().replace(/\W/g, '_')}`,
      quantity: 'length',
      value: pick(90) / 10,
      least: null,
      most: null,
      step: null,
    },
  }),
  (p, pick, mint) =>
    reshaped(p, pick, (r) => [
      ...r.slice(0, 2),
      {
        id: mint(),
        move: 'taper',
        on: true,
        by: pick(2) ? { kind: 'scale', scale: (5 + pick(9)) / 10 } : { kind: 'lean', angle: pick(8) - 3 },
      },
      ...r.slice(2).filter((m) => m.move === 'join'),
    ]),
  (p, pick, mint) =>
    reshaped(p, pick, (r) => [
      ...r.slice(0, 2),
      { id: mint(), move: 'twist', on: pick(4) > 0, angle: pick(90) - 45, from: 0, to: null },
      ...r.slice(2).filter((m) => m.move === 'join'),
    ]),
  (p, pick) =>
    reshaped(p, pick, (r) =>
      r.map((m) =>
        m.move === 'raise'
          ? { ...m, upTo: pick(3) ? { level: anyOf(schemeOf(p).levels, pick), above: pick(20) / 10 } : null }
          : m,
      ),
    ),
  (p, pick) =>
    reshaped(p, pick, (r) =>
      r.map((m) =>
        m.move === 'outline'
          ? {
              ...m,
              shape:
                m.shape.kind === 'polygon'
                  ? {
                      ...m.shape,
                      corners: m.shape.corners.map((c, i) =>
                        i === pick(3) ? { ...c, bulge: pick(20) / 20 - 0.4 } : c,
                      ),
                    }
                  : { kind: 'circle' as const, radius: 3 + pick(9) },
            }
          : m,
      ),
    ),
  (p, pick, mint) => {
    const mass = schemeOf(p).masses[anyOf(schemeOf(p).masses, pick)]
    return mass
      ? addHole(p, schemeOf(p), mass.id, { kind: 'circle', centre: [pick(20), pick(10)], radius: 0.5 + pick(10) / 10 })
      : (void mint, null)
  },
  (p, pick, mint) => ({
    edit: 'mute.add',
    scheme: schemeOf(p).id,
    thing: { id: mint(), finding: `level cuts nothing:L${pick(4)}`, reason: 'so it is' },
  }),
  (p, pick) => {
    const mass = schemeOf(p).masses[anyOf(schemeOf(p).masses, pick)]
    return mass
      ? {
          edit: 'mass.change',
          scheme: schemeOf(p).id,
          id: mass.id,
          set: { context: pick(2) === 1, material: Object.keys(p.materials)[pick(5)] ?? null },
        }
      : null
  },
  (p, pick) => removeMaterial(p, anyOf(p.materials, pick)),
  (p, pick) => letGo(studied(p).context, [anyOf(schemeOf(p).parts, pick)]),
  (p) => ({ edit: 'whole.set', project: { ...p, name: 'Brought back' } }),
  (p, pick) => ({
    edit: 'build-up.change',
    id: Object.values(p.buildUps).filter((b) => b.for === 'wall')[pick(2)]?.id ?? '',
    set: { layers: [{ name: 'wall', material: 'clay', thickness: 0.1 + pick(30) / 100 }] },
  }),
]
/** An edit of the recipe of one of the masses. */
const reshaped = (p: Project, pick: (n: number) => number, next: (recipe: Move[]) => Move[]): Edit | null => {
  const mass = schemeOf(p).masses[anyOf(schemeOf(p).masses, pick)]
  return mass ? changeRecipe(schemeOf(p), mass, next) : null
}
const anyOf = (things: Record<string, unknown>, pick: (n: number) => number) => {
  const keys = Object.keys(things)
  return keys[pick(Math.max(1, keys.length))] ?? 'none'
}

/** Dice for a person's work: each row decides one step. */
export const WORK = fc.array(fc.array(fc.nat(9999), { minLength: 12, maxLength: 12 }), { minLength: 1, maxLength: 14 })

/** The steps that the dice decide, one for each call; null where the step does not apply. May refuse, as any command. */
export function workOf(rows: number[][]): (project: Project) => Edit | null {
  const mint = minter('new')
  let row = 0
  return (project) => {
    const dice = rows[row++] ?? []
    let k = 0
    const pick = (n: number) => (dice[k++ % dice.length] ?? 0) % n
    return STEPS[pick(STEPS.length)]?.(project, pick, mint) ?? null
  }
}

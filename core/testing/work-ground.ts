import { newMass, moveCorner, addHole, removeMaterial } from '../form'
import { insertLevel, retieLevel, addLevel } from '../levels'
import { schemeOf } from './make'

import type { Step } from './work-pick'
import { anyOf, reshaped } from './work-pick'

/** Steps of work on ground, pictures, materials and views. */
export const GROUND_STEPS: Step[] = [
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
    const [a, b] = [anyOf(schemeOf(p).levels, pick), anyOf(schemeOf(p).levels, pick)]
    return a === b
      ? null
      : retieLevel(p, schemeOf(p), a, { kind: 'fixed', height: { formula: `{${b}} + ${pick(40) / 10} m` } }, 'carried')
  },
  (_p, pick) => ({
    edit: 'project.change',
    set: { name: `Name ${pick(9)}`, headroom: 1.5 + pick(10) / 10, siteArea: pick(2) ? 400 : null },
  }),
  (p, pick, mint) =>
    addLevel(schemeOf(p), mint, {
      name: `Level ${mint()}`,
      kind: pick(2) ? 'storey' : 'mark',
      on: anyOf(schemeOf(p).levels, pick),
      above: pick(60) / 10 - 3,
    }),
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
  (p, pick) => {
    const mass = schemeOf(p).masses[anyOf(schemeOf(p).masses, pick)]
    const outline = mass?.recipe[0]
    return mass && outline?.move === 'outline' && outline.shape.kind === 'polygon'
      ? moveCorner(p, schemeOf(p), mass.id, outline.shape.corners[0]?.id ?? '', [-pick(30) / 10, -pick(30) / 10])
      : null
  },
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
  (p, pick) => ({
    edit: 'build-up.change',
    id: Object.values(p.buildUps).filter((b) => b.for === 'wall')[pick(2)]?.id ?? '',
    set: { layers: [{ id: 'only', name: 'wall', material: 'clay', thickness: 0.1 + pick(30) / 100 }] },
  }),
]

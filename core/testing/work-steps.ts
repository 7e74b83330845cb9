import { letGo } from '../fabric'
import { moveMasses, removeMass, setPitch, joinMasses } from '../form'
import { setHeightPart, retieLevel, moveLevel, addStoreys, removeLevel, tieAs } from '../levels'
import { schemeOf, studied } from './make'

/** One random step of a person's work; null where it does not apply. */
import { anyOf, reshaped, type Step } from './work-pick'
import { GROUND_STEPS } from './work-ground'
import { AREA_STEPS } from './work-areas'
import { GROWN_STEPS } from './work-grown'
import { NAME_STEPS } from './work-names'

/** All that a person may do, a step each. */
export const STEPS: Step[] = [
  (p, pick) => {
    const id = anyOf(schemeOf(p).levels, pick)
    return setHeightPart(
      p,
      schemeOf(p),
      id,
      (['storey', 'clear', 'slab', 'floor'] as const)[pick(4)] ?? 'clear',
      0.2 + pick(40) / 10,
      { gives: pick(2) ? 'clear' : 'storey', above: pick(2) ? 'carried' : 'held' },
    )
  },
  (p, pick) =>
    moveLevel(p, schemeOf(p), anyOf(schemeOf(p).levels, pick), pick(200) / 10 - 4, pick(2) ? 'carried' : 'held'),
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
  (p, pick, mint) => ({
    edit: 'mute.add',
    scheme: schemeOf(p).id,
    thing: { id: mint(), finding: `level cuts nothing:L${pick(4)}`, reason: 'so it is' },
  }),
  (p, pick) => letGo(studied(p).context, [anyOf(schemeOf(p).parts, pick)]),
  (p) => ({ edit: 'whole.set', project: { ...p, name: 'Brought back' } }),
  ...GROUND_STEPS,
  ...GROWN_STEPS,
  ...AREA_STEPS,
  ...NAME_STEPS,
]

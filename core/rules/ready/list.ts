import { choose } from '../steps/choose'
import { divide } from '../steps/divide'
import { number } from '../steps/number'
import { side } from '../steps/side'
import { doing, type ReadyRule } from './kind'

/** Towers on the cells of a plan, twisted between two heights, every other one the other way. */
export const cluster: ReadyRule = {
  ready: 'cluster',
  called: 'tower cluster',
  about: 'a plan in cells, a twisted tower on each, every other one the other way',
  dials: [
    { name: 'columns', quantity: 'number', value: 3, least: 1, most: 8, step: 1 },
    { name: 'rows', quantity: 'number', value: 2, least: 1, most: 6, step: 1 },
    { name: 'inset', quantity: 'length', value: 2.3, least: 0.2, most: 5, step: 0.1 },
    { name: 'twist', quantity: 'angle', value: 72, least: 0, most: 180, step: 1 },
    { name: 'high', quantity: 'length', value: 108.5, least: 7, most: 140, step: 3.5 },
  ],
  steps: (dial, id) => {
    const sense = id()
    return [
      doing(id(), 'plan', { shape: { kind: 'rectangle', width: 42, depth: 28 }, x: 0, y: 0, turn: 0 }),
      doing(id(), 'divide', { ...divide.starts(), columns: dial('columns'), rows: dial('rows') }),
      doing(sense, 'number', { ...number.starts(), name: 'sense' }),
      doing(id(), 'side', side.starts()),
      doing(id(), 'move', { move: { id: 'm', move: 'inset', on: true, by: dial('inset') } }),
      doing(id(), 'move', { move: { id: 'm', move: 'raise', on: true, height: dial('high'), upTo: null } }),
      doing(id(), 'move', {
        move: {
          id: 'm',
          move: 'twist',
          on: true,
          angle: { formula: `${dial('twist').formula} * {${sense}}` },
          from: 21,
          to: 91,
        },
      }),
    ]
  },
}

/** Strips of a plan, each some storeys lower than the one before. */
export const terrace: ReadyRule = {
  ready: 'terrace',
  called: 'stepping terrace',
  about: 'strips one behind the other, each lower by storeys',
  dials: [
    { name: 'strips', quantity: 'number', value: 6, least: 2, most: 20, step: 1 },
    { name: 'tallest', quantity: 'number', value: 7, least: 1, most: 30, step: 1 },
    { name: 'lower', quantity: 'number', value: 1, least: 0, most: 4, step: 1 },
  ],
  steps: (dial, id) => {
    const count = id()
    return [
      doing(id(), 'plan', { shape: { kind: 'rectangle', width: 60, depth: 16 }, x: 0, y: 0, turn: 0 }),
      doing(id(), 'divide', { ...divide.starts(), how: 'strips', columns: dial('strips') }),
      doing(count, 'number', {
        ...number.starts(),
        name: 'count',
        how: 'columns',
        a: dial('tallest'),
        b: { formula: `0 - ${dial('lower').formula}` },
      }),
      doing(id(), 'storeys', { count: { formula: `max({${count}}, 1)` } }),
    ]
  },
}

/** A block round a court, its corners cut off. */
export const court: ReadyRule = {
  ready: 'court',
  called: 'court block with cut corners',
  about: 'a block so deep round a court, its corners cut off',
  dials: [
    { name: 'deep', quantity: 'length', value: 12, least: 6, most: 20, step: 0.5 },
    { name: 'corner', quantity: 'length', value: 4, least: 0.5, most: 10, step: 0.5 },
    { name: 'floors', quantity: 'number', value: 6, least: 1, most: 20, step: 1 },
  ],
  steps: (dial, id) => [
    doing(id(), 'plan', { shape: { kind: 'rectangle', width: 64, depth: 48 }, x: 0, y: 0, turn: 0 }),
    doing(id(), 'ring', { depth: dial('deep') }),
    doing(id(), 'move', {
      move: { id: 'm', move: 'round', on: true, as: 'chamfer', by: dial('corner'), which: 'outer' },
    }),
    doing(id(), 'storeys', { count: dial('floors') }),
  ],
}

/** A bar, with cores that stand out above it. */
export const bar: ReadyRule = {
  ready: 'bar',
  called: 'bar with cores',
  about: 'a bar of bays; cores at its ends and in its middle rise higher',
  dials: [
    { name: 'bays', quantity: 'number', value: 9, least: 3, most: 30, step: 2 },
    { name: 'bay', quantity: 'length', value: 7.2, least: 4, most: 12, step: 0.3 },
    { name: 'floors', quantity: 'number', value: 5, least: 1, most: 30, step: 1 },
  ],
  steps: (dial, id) => {
    const [cores, middle] = [id(), { formula: `(${dial('bays').formula} - 1) / 2` }]
    return [
      doing(id(), 'plan', {
        shape: { kind: 'rectangle', width: { formula: `${dial('bays').formula} * ${dial('bay').formula}` }, depth: 14 },
        x: 0,
        y: 0,
        turn: 0,
      }),
      doing(id(), 'divide', { ...divide.starts(), how: 'strips', columns: dial('bays') }),
      doing(cores, 'choose', { ...choose.starts(), how: 'every', many: middle, from: 1 }),
      { ...doing(id(), 'storeys', { count: dial('floors') }, cores), others: true },
      doing(id(), 'storeys', { count: { formula: `${dial('floors').formula} + 1` } }, cores),
    ]
  },
}

/** Sectors round a court, rising all round. */
export const hall: ReadyRule = {
  ready: 'hall',
  called: 'radial hall',
  about: 'sectors round an open middle, each higher than the last',
  dials: [
    { name: 'sectors', quantity: 'number', value: 12, least: 3, most: 48, step: 1 },
    { name: 'radius', quantity: 'length', value: 24, least: 10, most: 60, step: 1 },
    { name: 'deep', quantity: 'length', value: 9, least: 4, most: 20, step: 0.5 },
    { name: 'eaves', quantity: 'length', value: 7, least: 3, most: 20, step: 0.5 },
    { name: 'rise', quantity: 'length', value: 0.5, least: 0, most: 2, step: 0.1 },
  ],
  steps: (dial, id) => {
    const high = id()
    return [
      doing(id(), 'plan', { shape: { kind: 'circle', radius: dial('radius') }, x: 0, y: 0, turn: 0 }),
      doing(id(), 'ring', { depth: dial('deep') }),
      doing(id(), 'divide', { ...divide.starts(), how: 'sectors', columns: dial('sectors'), direction: 90 }),
      doing(high, 'number', {
        ...number.starts(),
        name: 'top',
        is: 'length',
        how: 'columns',
        a: dial('eaves'),
        b: dial('rise'),
      }),
      doing(id(), 'move', { move: { id: 'm', move: 'raise', on: true, height: { formula: `{${high}}` }, upTo: null } }),
    ]
  },
}

/** What the setbacks leave of the site, cut to a depth, in as many storeys as are permitted. */
export const fromSite: ReadyRule = {
  ready: 'site',
  called: 'from the site',
  about: 'the site set in by its setbacks, so deep all round, up to its limit',
  dials: [
    { name: 'further', quantity: 'length', value: 0, least: 0, most: 20, step: 0.5 },
    { name: 'deep', quantity: 'length', value: 12, least: 5, most: 24, step: 0.5 },
  ],
  steps: (dial, id) => [
    doing(id(), 'site', { by: dial('further') }),
    doing(id(), 'ring', { depth: dial('deep') }),
    doing(id(), 'storeys', { count: null }),
  ],
}

/** Rules to start from; a new one is a line here. */
export const READY_RULES: readonly ReadyRule[] = [cluster, terrace, court, bar, hall, fromSite]

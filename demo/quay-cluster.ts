import { newMass, newRepeat, newRule, newStep, trimRule } from '@geotome/core/form'
import type { Move, OutlineShape } from '@geotome/core/moves'
import type { Scheme } from '@geotome/core/project'
import type { Step } from '@geotome/core/rules'
import type { Vec2 } from '@geotome/core/solid'
import { change, mint, project, scheme } from './quay-work'

type Named = (name: string) => string

/**
 * The fourth scheme, said once and grown: a cluster of turning houses from a rule with five dials, canopies along the quay that are repeats of one soft
 * form, and a lookout with bands and fins. Levels keep their ids.
 */
export function kilnCluster(levelNamed: Named, useNamed: Named, materialNamed: Named): void {
  const id = mint()
  const without = ['Undercroft', 'Mezzanine'].map(levelNamed)
  // Nothing stands on the topmost: the lookout ends there.
  const levels = Object.fromEntries(
    Object.entries(scheme().levels)
      .filter(([level]) => !without.includes(level))
      .map(([level, l]) => [level, level === levelNamed('Tenth') ? { ...l, kind: 'mark' as const } : l]),
  )
  change({
    edit: 'scheme.add',
    thing: {
      ...scheme(),
      id,
      name: 'Kiln cluster',
      order: 3,
      levels,
      dials: {},
      masses: {},
      parts: {},
      views: {},
      mutes: {},
      wings: {},
    },
  })
  const own = () => project.schemes[id] as Scheme
  const quay = levelNamed('Quay')
  growHouses(own, quay, levelNamed, useNamed, materialNamed)
  canopies(own, quay, useNamed, materialNamed)
  lookout(own, quay, levelNamed, useNamed, materialNamed)
}

/** Houses on the cells of a plan, lower by storeys from west to east, turning between two floors, every other one the other way. */
function growHouses(own: () => Scheme, quay: string, levelNamed: Named, useNamed: Named, materialNamed: Named): void {
  const dials = [
    ['columns', 'number', 4, 1, 6, 1],
    ['inset', 'length', 3.3, 1.5, 6, 0.1],
    ['turn', 'angle', 36, 0, 90, 1],
    ['tallest', 'number', 9, 3, 10, 1],
    ['lower', 'number', 1, 0, 3, 1],
  ] as const
  const ids = Object.fromEntries(dials.map(([name]) => [name, mint()]))
  const dial = (name: string) => ({ formula: `{${ids[name] ?? ''}}` })
  dials.forEach(([name, quantity, value, least, most, step], order) =>
    change({
      edit: 'dial.add',
      scheme: own().id,
      thing: { id: ids[name] as string, order, name, quantity, value, least, most, step },
    }),
  )
  change(newRule(project, own(), mint, { use: useNamed('homes'), level: quay, at: [28, 27] }, null))
  const rule = Object.values(own().rules)[0]
  if (!rule) throw new Error('no rule')
  const [sense, count, front, west] = [mint(), mint(), mint(), mint()]
  const move = (made: Move): Step => newStep('move', mint, { move: made })
  const steps: Step[] = [
    newStep('plan', mint, { shape: { kind: 'rectangle', width: 88, depth: 38 } }),
    newStep('divide', mint, { columns: dial('columns'), rows: 2 }),
    { ...newStep('number', mint, { name: 'sense' }), id: sense },
    {
      ...newStep('number', mint, {
        name: 'floors',
        how: 'columns',
        a: dial('tallest'),
        b: { formula: `0 - ${dial('lower').formula}` },
      }),
      id: count,
    },
    move({ id: 'm', move: 'inset', on: true, by: dial('inset') }),
    { ...newStep('side', mint, { found: 8 }), id: front },
    newStep('strips', mint, {
      side: front,
      count: 7,
      materials: [materialNamed('larch'), materialNamed('glass')],
      ends: 'alike',
    }),
    newStep('storeys', mint, { count: { formula: `max({${count}}, 2)` } }),
    move({
      id: 'm',
      move: 'twist',
      on: true,
      angle: { formula: `${dial('turn').formula} * {${sense}}` },
      from: { formula: `{${levelNamed('First')}}` },
      to: null,
    }),
    { ...newStep('choose', mint, { how: 'columns', numbers: [1] }), id: west },
    { ...newStep('dress', mint, { use: useNamed('studios'), material: materialNamed('brick') }), of: west },
  ]
  change({ edit: 'rule.change', scheme: own().id, id: rule.id, set: { name: 'Kiln houses', steps } })
}

/** A soft form, nine of it along the quay. */
function canopies(own: () => Scheme, quay: string, useNamed: Named, materialNamed: Named): void {
  const drawn = newMass(own(), mint, {
    name: 'Canopy',
    use: useNamed('market'),
    level: quay,
    height: 0.9,
    shape: { kind: 'rectangle', from: [-14, 0], to: [-8.4, 4.2] },
  })
  const soft: Move = { id: mint(), move: 'soft', on: true, edges: 'smooth', steps: 3, own: [], open: [], thick: 0.2 }
  const thing = {
    ...drawn,
    base: { level: quay, above: 3.3 },
    material: materialNamed('zinc'),
    projecting: 'apart' as const,
    recipe: [...drawn.recipe, soft],
  }
  change({ edit: 'mass.add', scheme: own().id, thing })
  const repeat = newRepeat(project, own(), mint, [thing.id], 'line')
  change({
    ...repeat,
    thing: { ...repeat.thing, name: 'Quay canopies', way: { way: 'line', count: 12, apart: 7.6, direction: 0 } },
  })
}

/** A tower of fourteen sides, with a band on each storey and fins at its corners. */
function lookout(own: () => Scheme, quay: string, levelNamed: Named, useNamed: Named, materialNamed: Named): void {
  const shape: OutlineShape = {
    kind: 'polygon',
    corners: Array.from({ length: 14 }, (_, i) => {
      const a = (2 * Math.PI * i) / 14
      const [x, y] = [6.4 * Math.cos(a), 6.4 * Math.sin(a)].map((v) => Math.round(v * 1e6) / 1e6) as Vec2
      return { id: `e${i + 1}`, x, y, bulge: 0 }
    }),
  }
  const drawn = newMass(own(), mint, {
    name: 'Lookout',
    use: useNamed('ferry'),
    level: quay,
    height: 30,
    shape: { kind: 'rectangle', from: [88, 14], to: [89, 15] },
  })
  const recipe = drawn.recipe.map((m): Move => {
    if (m.move === 'outline') return { ...m, shape }
    return m.move === 'raise' ? { ...m, upTo: { level: levelNamed('Tenth'), above: 0 } } : m
  })
  const thing = { ...drawn, recipe, place: { x: 88, y: 14, turn: 0 }, material: materialNamed('plaster') }
  change({ edit: 'mass.add', scheme: own().id, thing })
  for (const what of ['bands', 'fins'] as const) change(trimRule(own(), mint, thing.id, what))
}

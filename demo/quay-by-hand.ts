import { newMass } from '@geotome/core/form'
import type { Move, OutlineShape } from '@geotome/core/moves'
import type { Mass, Scheme } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { change, mint, project, scheme } from './quay-work'

type Named = (name: string) => string

/**
 * The third scheme, shaped by hand: a bar that steps back as it rises, studios under a sawtooth that is drawn on its end wall and carried
 * along a line, the old kiln's hopper, a hipped boat shed, and a house that turns and narrows. Levels keep their ids.
 */
export function byHand(levelNamed: Named, useNamed: Named, materialNamed: Named): void {
  const id = mint()
  // It ends at the sixth floor: what lies above, and below the quay, is not of it.
  const without = ['Undercroft', 'Mezzanine', 'Seventh', 'Eighth', 'Ninth', 'Tenth'].map(levelNamed)
  const kept = Object.values(scheme().levels).filter((l) => !without.includes(l.id))
  const levels = Object.fromEntries(
    kept.map((l) => [l.id, l.id === levelNamed('Sixth') ? { ...l, kind: 'mark' as const } : l]),
  )
  change({
    edit: 'scheme.add',
    thing: { ...scheme(), id, name: 'By hand', order: 2, levels, masses: {}, parts: {}, views: {}, mutes: {} },
  })
  const quay = levelNamed('Quay')
  const add = (
    name: string,
    use: string,
    material: string,
    [x, y]: Vec2,
    takes: Mass['takes'],
    recipe: (base: Move[]) => Move[],
    size: Vec2 = [1, 1],
  ) => {
    const shape = { kind: 'rectangle' as const, from: [x, y] as Vec2, to: [x + size[0], y + size[1]] as Vec2 }
    const drawn = newMass(project.schemes[id] as Scheme, mint, {
      name,
      use: useNamed(use),
      level: quay,
      height: 5.4,
      shape,
    })
    const thing = { ...drawn, material: materialNamed(material), takes, recipe: recipe(drawn.recipe) }
    change({ edit: 'mass.add', scheme: id, thing })
  }
  const at = (level: string) => ({ level: levelNamed(level), above: 0 })
  const raisedTo = (level: string) => (m: Move) => (m.move === 'raise' ? { ...m, upTo: at(level) } : m)
  const all = { kind: 'all-but' as const, levels: [] }
  const corners = (points: Vec2[]): OutlineShape => ({
    kind: 'polygon',
    corners: points.map(([x, y], i) => ({ id: `e${i + 1}`, x, y, bulge: 0 })),
  })
  add(
    'Stepping bar',
    'homes',
    'brick',
    [0, 30],
    all,
    (r) => [
      ...r.map(raisedTo('Sixth')),
      ...['Second', 'Fourth', 'Fifth'].map((level, i): Move => ({
        id: mint(),
        move: 'step-back',
        on: true,
        side: 'east',
        by: 7.2 * (i + 1),
        from: 0,
        level: at(level),
      })),
    ],
    [72, 14.4],
  )
  const teeth: Vec2[] = [
    [0, 0],
    [19.2, 0],
    [19.2, 6.9],
    [12.8, 5.1],
    [12.8, 6.9],
    [6.4, 5.1],
    [6.4, 6.9],
    [0, 5.1],
  ]
  add('Sawtooth studios', 'studios', 'larch', [14.4, 22.8], { kind: 'only', levels: [quay] }, () => [
    {
      id: mint(),
      move: 'sweep',
      on: true,
      section: corners(teeth),
      across: 0,
      up: 0,
      path: [
        { id: 'p1', x: 0, y: 0, round: 0 },
        { id: 'p2', x: 28.8, y: 0, round: 0 },
      ],
      ends: 'open',
    },
  ])
  add('Old kiln', 'market', 'plaster', [91.5, 8], { kind: 'only', levels: [quay] }, () => [
    {
      id: mint(),
      move: 'revolve',
      on: true,
      points: [
        { id: 'p1', r: 1.45, z: 0, turn: 0 },
        { id: 'p2', r: 1.45, z: 6.1, turn: -90 },
        { id: 'p3', r: 4.65, z: 9.3, turn: 0 },
        { id: 'p4', r: 6, z: 9.3, turn: 0 },
      ],
      by: 360,
      from: 0,
      thick: 0.26,
      side: 'axis',
    },
  ])
  add(
    'Boat shed',
    'ferry',
    'larch',
    [80, 24],
    { kind: 'only', levels: [quay] },
    (r) => [
      ...r.map((m) => (m.move === 'raise' ? { ...m, height: 4.2 } : m)),
      { id: mint(), move: 'hip', on: true, angle: 32, edges: [], breaks: null, upper: 20 },
    ],
    [11.4, 7.8],
  )
  add(
    'Harbour house',
    'homes',
    'zinc',
    [-20, 4],
    all,
    ([outline]) => [
      outline as Move,
      {
        id: mint(),
        move: 'loft',
        on: true,
        sections: [
          {
            id: 's1',
            z: 0,
            level: at('Fourth'),
            x: 0,
            y: 0,
            shape: corners([
              [0, 1.8],
              [12.6, 4.2],
              [12.6, 10.8],
              [0, 12.6],
            ]),
          },
        ],
        faces: 'warped',
      },
    ],
    [14.4, 12.6],
  )
}

import { beforeAll, describe, expect, it } from 'vitest'
import { build, cutArea, plainNumbers } from '../testing/recipes'
import { isWhole, openKernel, volumeOf } from '../solid'
import { buildRecipe, checkRecipe, type Move } from './index'

beforeAll(() => openKernel())

/** An old kiln's hopper: a shaft, a tangent arc outwards, and a level rim. */
const HOPPER = [
  { id: 'p1', r: 1.45, z: -3.9, turn: 0 },
  { id: 'p2', r: 1.45, z: 2.2, turn: -90 },
  { id: 'p3', r: 4.65, z: 5.4, turn: 0 },
  { id: 'p4', r: 6, z: 5.4, turn: 0 },
]
const revolve = (more: Partial<Extract<Move, { move: 'revolve' }>> = {}): Move => ({
  id: 'k',
  move: 'revolve',
  on: true,
  points: HOPPER,
  by: 360,
  from: 0,
  thick: null,
  side: 'axis',
  ...more,
})
const numbers = {
  ...plainNumbers,
  heights: new Map([
    ['a', 0],
    ['b', 3.3],
    ['c', 4.68],
  ]),
}

describe('a turn about an axis', () => {
  it.each([
    [360, 91.318, [6.605, 8.501, 21.692]],
    [270, 68.489, [4.954, 6.376, 16.269]],
  ] as const)('the hopper turned by %d degrees', (by, volume, plates) => {
    for (const from of [0, 37]) {
      const recipe = [revolve({ by, from })]
      checkRecipe(recipe, 'Kiln', numbers)
      const { solid, notes } = buildRecipe(recipe, numbers, 'Kiln')
      expect(isWhole(solid)).toBe(true)
      expect(volumeOf(solid)).toBeCloseTo(volume, 3)
      for (const [i, z] of [0, 3.3, 4.68].entries()) expect(cutArea(solid, z)).toBeCloseTo(plates[i] as number, 3)
      expect(notes[0]?.say).toMatch(/encloses nothing between 4.65 m, 5.40 m and 6.00 m, 5.40 m/)
    }
  })
  it('thickened to the axis it is a ring with a rim; away from it a wider one', () => {
    const ring = buildRecipe([revolve({ thick: 0.26 })], numbers, 'Kiln')
    expect(isWhole(ring.solid)).toBe(true)
    expect(ring.notes).toEqual([])
    expect(cutArea(ring.solid, 0)).toBeCloseTo(2.156, 3)
    expect(cutArea(ring.solid, 5.5)).toBeGreaterThan(Math.PI * (36 - 4.9 ** 2) * 0.95)
    const outer = buildRecipe([revolve({ thick: 0.26, side: 'away' })], numbers, 'Kiln').solid
    expect(cutArea(outer, 0)).toBeCloseTo(Math.PI * (1.71 ** 2 - 1.45 ** 2), 6)
    const part = buildRecipe([revolve({ thick: 0.26, by: 200, from: 15 })], numbers, 'Kiln').solid
    expect(isWhole(part)).toBe(true)
    expect(volumeOf(part) / volumeOf(ring.solid)).toBeCloseTo(200 / 360, 6)
  })
  it('has one face for each edge of its profile, and cuts with arcs', () => {
    const { faces } = build(revolve({ by: 270 }))
    expect(faces.map((f) => f.name).sort()).toEqual(['k/base', 'k/end', 'k/p1', 'k/p2', 'k/start', 'k/top'])
    expect(faces.find((f) => f.name === 'k/p1')?.surface?.kind).toBe('cylinder')
    expect(faces.find((f) => f.name === 'k/p2')?.surface?.kind).toBe('turned')
    expect(faces.find((f) => f.name === 'k/p1')?.area).toBeCloseTo(2 * Math.PI * 1.45 * 6.1 * 0.75, 1)
  })
  it('a sphere has its volume, a ball joint its axis', () => {
    const ball = build(
      revolve({
        points: [
          { id: 'a', r: 0, z: 0, turn: 180 },
          { id: 'b', r: 0, z: 4, turn: 0 },
        ],
      }),
    )
    expect(isWhole(ball.solid)).toBe(true)
    expect(ball.volume).toBeCloseTo((4 / 3) * Math.PI * 8, 6)
  })
  it.each([
    [{ points: [HOPPER[0], { id: 'p2', r: -1, z: 2, turn: 0 }] }, /"from the axis"/],
    [
      {
        points: [
          { id: 'a', r: 0.5, z: 0, turn: -180 },
          { id: 'b', r: 0.5, z: 4, turn: 0 },
        ],
      },
      /crosses its axis/,
    ],
    [
      {
        points: [
          { id: 'a', r: 1, z: 0, turn: 0 },
          { id: 'b', r: 3, z: 0, turn: 0 },
        ],
      },
      /encloses nothing/,
    ],
    [
      {
        points: [
          { id: 'a', r: 1, z: 0, turn: 0 },
          { id: 'b', r: 3, z: 4, turn: 0 },
          { id: 'c', r: 3, z: 1, turn: 0 },
          { id: 'd', r: 1, z: 3, turn: 0 },
        ],
      },
      /profile of "Kiln"/,
    ],
  ] as [Partial<Extract<Move, { move: 'revolve' }>>, RegExp][])(
    'says what is wrong with a profile: %#',
    (more, what) => {
      expect(() => checkRecipe([revolve(more)], 'Kiln', numbers)).toThrow(what)
    },
  )
})

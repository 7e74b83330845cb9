import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { build, cutArea, plainNumbers } from '../testing/recipes'
import { bodyFault, isWhole, openKernel } from '../solid'
import { checkRecipe, type Move, type OutlineShape } from './index'

beforeAll(() => openKernel())

type Sweep = Extract<Move, { move: 'sweep' }>
const sweep = (path: [number, number, number][], more: Partial<Sweep> = {}): Move => ({
  id: 's',
  move: 'sweep',
  on: true,
  section: { kind: 'rectangle', width: 2, depth: 3 },
  across: -1,
  up: 0,
  path: path.map(([x, y, round], i) => ({ id: `p${i + 1}`, x, y, round })),
  ends: 'open',
  ...more,
})
/** Three teeth, each rising to the right. */
const TEETH: OutlineShape = {
  kind: 'polygon',
  corners: (
    [
      [0, 0],
      [18, 0],
      [18, 5],
      [12, 3.5],
      [12, 5],
      [6, 3.5],
      [6, 5],
      [0, 3.5],
    ] as [number, number][]
  ).map(([x, y], i) => ({ id: `e${i + 1}`, x, y, bulge: 0 })),
}

describe('a section along a path', () => {
  it('a sawtooth drawn on an end wall and carried along a line is its section times the length', () => {
    const form = build(
      sweep(
        [
          [0, 0, 0],
          [24, 10, 0],
        ],
        { section: TEETH, across: 0 },
      ),
    )
    expect(isWhole(form.solid)).toBe(true)
    expect(form.volume).toBeCloseTo(18 * 4.25 * 26, 8)
    expect(form.faces).toHaveLength(10)
    expect(cutArea(form.solid, 0)).toBeCloseTo(18 * 26, 8)
  })
  it('mitres its corners: the middle line times the section; rounded ones go by their radius', () => {
    const corner: [number, number, number][] = [
      [0, 0, 0],
      [10, 0, 0],
      [10, 8, 0],
    ]
    expect(build(sweep(corner)).volume).toBeCloseTo(6 * 18, 8)
    const round = corner.map(([x, y], i): [number, number, number] => [x, y, i === 1 ? 3 : 0])
    const turned = build(sweep(round))
    expect(isWhole(turned.solid)).toBe(true)
    expect(turned.volume).toBeCloseTo(6 * (7 + 5 + 1.5 * Math.PI), 8)
    const cylinders = turned.faces.filter((f) => f.surface?.kind === 'cylinder')
    expect(cylinders.map((f) => f.name).sort()).toEqual(['s/east/p2-round', 's/west/p2-round'])
    expect(cylinders.reduce((sum, f) => sum + f.area, 0)).toBeCloseTo(3 * 1.5 * Math.PI * 2, 2)
    // Turned to the right it is the same, seen in a mirror.
    const right = build(sweep(round.map(([x, y, r]) => [x, -y, r])))
    expect(right.volume).toBeCloseTo(turned.volume, 8)
  })
  it('comes back to its beginning', () => {
    const ring = build(
      sweep(
        [
          [0, 0, 0],
          [10, 0, 2],
          [10, 8, 0],
          [0, 8, 4],
        ],
        { ends: 'closed' },
      ),
    )
    expect(isWhole(ring.solid)).toBe(true)
    expect(ring.volume).toBeCloseTo(6 * (36 - 2 * 6 + (6 * Math.PI) / 2), 8)
  })
  it.each([
    [
      sweep([
        [0, 0, 0],
        [5, 0, 0.5],
        [5, 5, 0],
      ]),
      /radius of 0.5 m, more tightly than its section allows. Type at least 1.01 m/,
    ],
    [
      sweep([
        [0, 0, 0],
        [5, 0, 0],
        [5.5, 0.5, 0],
        [5, 5, 0],
      ]),
      /shorter than its section needs/,
    ],
    [
      sweep([
        [0, 0, 0],
        [5, 0, 0],
        [0, 0, 0],
      ]),
      /turns back on itself|crosses or touches itself/,
    ],
    [
      sweep([
        [0, 0, 0],
        [9, 0, 0],
        [9, 9, 0],
        [4, -9, 0],
      ]),
      /crosses or touches itself/,
    ],
    [
      sweep([
        [0, 0, 0],
        [0, 0, 0],
      ]),
      /lie together/,
    ],
  ] as [Move, RegExp][])('says what is wrong with a path: %#', (move, what) => {
    expect(() => checkRecipe([move], 'Bar', plainNumbers)).toThrow(what)
  })
  it('is a sound body along any path that is taken', () => {
    const leg = fc.tuple(
      fc.integer({ min: 60, max: 200 }),
      fc.integer({ min: -110, max: 110 }),
      fc.constantFrom(0, 0, 2, 3),
    )
    fc.assert(
      fc.property(fc.array(leg, { minLength: 1, maxLength: 6 }), (legs) => {
        let [x, y, a] = [0, 0, 0]
        const path: [number, number, number][] = [[0, 0, 0]]
        for (const [long, turn, round] of legs) {
          x += (long / 10) * Math.cos(a)
          y += (long / 10) * Math.sin(a)
          path.push([Math.round(x * 1000) / 1000, Math.round(y * 1000) / 1000, round])
          a += (turn * Math.PI) / 180
        }
        const move = sweep(path)
        try {
          checkRecipe([move], 'Bar', plainNumbers)
        } catch {
          return
        }
        const { solid, volume } = build(move)
        expect(isWhole(solid)).toBe(true)
        expect(volume).toBeGreaterThan(0)
        const fault = bodyFault(solid)
        // Legs may come near one another: that is a finding, not an error.
        expect(fault === null || fault.fault === 'crossing').toBe(true)
      }),
      { numRuns: 100 },
    )
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { areaOf, inside, type Region, type Vec2 } from '@geotome/core/solid'
import type { PlateView } from '../worker/protocol'
import { middleOf, placeLabels, type PlacedLabel, type Wanted } from './label-places'

const size: Vec2 = [760, 560]
const label = (anchor: Vec2, text: string, asked = false): Wanted => ({ mass: text, asked, anchor, say: () => text })
/** px: left, top, right, bottom of what is drawn */
const boxOf = ({ at, width }: PlacedLabel) => [at[0] - width / 2, at[1] - 11, at[0] + width / 2, at[1] + 11] as const
const wanted = fc.array(
  fc
    .tuple(
      fc.integer({ min: -200, max: 960 }),
      fc.integer({ min: -200, max: 760 }),
      fc.integer({ min: 1, max: 24 }),
      fc.boolean(),
    )
    .map(([x, y, long, asked]) => label([x, y], 'n'.repeat(long), asked)),
  { maxLength: 60 },
)

describe('labels of plates', () => {
  it('never lie over one another or over the edge of the pane, however many are wanted', () => {
    fc.assert(
      fc.property(wanted, (all) => {
        const placed = placeLabels(all, size)
        const boxes = placed.map(boxOf)
        for (const [i, [l, t, r, b]] of boxes.entries()) {
          // At the foot are the verbs.
          expect(l >= 0 && t >= 0 && r <= size[0] && b <= size[1] - 90).toBe(true)
          for (const [l2, t2, r2, b2] of boxes.slice(0, i)) expect(r <= l2 || r2 <= l || b <= t2 || b2 <= t).toBe(true)
        }
      }),
    )
  })
  it('are only of what is in sight, and lead back to it by a line where they had to move', () => {
    fc.assert(
      fc.property(wanted, (all) => {
        for (const { anchor, at, moved } of placeLabels(all, size)) {
          expect(anchor[0] >= 0 && anchor[0] <= size[0] && anchor[1] >= 0 && anchor[1] <= size[1]).toBe(true)
          expect(moved).toBe(Math.hypot(at[0] - anchor[0], at[1] - anchor[1]) > 12)
        }
      }),
    )
  })
  it('of two pieces at one spot both stand, one moved aside', () => {
    const twice = placeLabels([label([300, 300], 'homes 100'), label([300, 300], 'homes 100')], size)
    expect(twice.map((p) => p.moved)).toEqual([false, true])
  })
  it('stand where they are wanted while there is room; in a crowd eight do, and each that is asked for besides', () => {
    const grid = (n: number, asked: (i: number) => boolean = () => false) =>
      Array.from({ length: n }, (_, i) => label([60 + 120 * (i % 6), 40 + 60 * Math.floor(i / 6)], `${i}`, asked(i)))
    const few = placeLabels(grid(12), size)
    expect(few.map((l) => l.at)).toEqual(few.map((l) => l.anchor))
    expect(few).toHaveLength(12)
    expect(placeLabels(grid(36), size).map((l) => l.text)).toEqual(['0', '1', '2', '3', '4', '5', '6', '7'])
    expect(
      placeLabels(
        grid(36, (i) => i === 20 || i === 31),
        size,
      ).map((l) => l.text),
    ).toEqual(['0', '1', '2', '3', '4', '5', '6', '7', '20', '31'])
  })
})

describe('where a label stands in a piece of floor', () => {
  const plate = (region: Region) => ({ mass: 'm', use: 'u', region, area: areaOf(region) }) as PlateView
  const turned = (region: Region, by: number, [ox, oy]: Vec2): Region =>
    region.map((loop) =>
      loop.map(([x, y]): Vec2 => [ox + Math.cos(by) * x - Math.sin(by) * y, oy + Math.sin(by) * x + Math.cos(by) * y]),
    )
  const court: Region = [
    [
      [0, 0],
      [20, 0],
      [20, 20],
      [0, 20],
    ],
    [
      [3, 3],
      [3, 17],
      [17, 17],
      [17, 3],
    ],
  ]
  const ell: Region = [
    [
      [0, 0],
      [14, 0],
      [14, 3],
      [3, 3],
      [3, 14],
      [0, 14],
    ],
  ]
  const dart: Region = [
    [
      [0, 0],
      [10, 2],
      [0, 4],
      [4, 2],
    ],
  ]
  it('lies in it: a ring, an L, a dart, turned as they may be', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(court, ell, dart),
        fc.double({ min: 0, max: 7, noNaN: true }),
        fc.integer({ min: -900, max: 900 }),
        (region, by, off) => {
          const [outer = [], ...holes] = turned(region, by, [off, -off])
          const at = middleOf(plate([outer, ...holes]))
          expect(inside(outer, at)).toBe(true)
          for (const hole of holes) expect(inside(hole, at)).toBe(false)
        },
      ),
    )
  })
  it('is the middle of a rectangle, and is found once for a piece', () => {
    const piece = plate([
      [
        [2, 2],
        [10, 2],
        [10, 6],
        [2, 6],
      ],
    ])
    expect(middleOf(piece)).toEqual([6, 4])
    expect(middleOf(piece)).toBe(middleOf(piece))
  })
})

import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { moveLevel } from '../levels'
import { changeRecipe } from '../form'
import type { Move } from '../moves'
import { areaOf, bulgeAlong, bulgeThrough, openKernel, volumeOf, type Vec2 } from '../solid'
import { bodyVolume } from '../fabric'
import {
  apply,
  changeMass,
  converted,
  massNamed,
  projectWith,
  schemeOf,
  studied,
  withMass,
  withMoves,
} from '../testing/make'

beforeAll(() => openKernel())

const twist = (angle: number, to: number | null = null): Move => ({
  id: 'tw',
  move: 'twist',
  on: true,
  angle,
  from: 0,
  to,
})
const toScale = (scale: number): Move => ({ id: 'ta', move: 'taper', on: true, by: { kind: 'scale', scale } })
const toLean = (angle: number): Move => ({ id: 'ta', move: 'taper', on: true, by: { kind: 'lean', angle } })
const storeys = (top: number, each: number) => Array.from({ length: Math.ceil(top / each) }, (_, i) => i * each)
const floorOf = (project: ReturnType<typeof projectWith>, level = 0) => studied(project).floors[level]

describe('a round outline keeps its true form', () => {
  it("as a circle: area, perimeter and volume are the circle's", () => {
    const floor = floorOf(withMass(projectWith([0]), { circle: [3, -2, 6.3], height: 3 }))
    expect(floor?.area).toBeCloseTo(124.69, 3)
    expect(floor?.perimeter).toBeCloseTo(39.584, 3)
    expect(studied(withMass(projectWith([0]), { circle: [0, 0, 6.3], height: 3 })).totals.volume).toBeCloseTo(
      Math.PI * 6.3 ** 2 * 3,
      6,
    )
  })
  it('with an outward semicircle on one side, however it was drawn', () => {
    const corners: Vec2[] = [
      [0, 0],
      [12, 0],
      [12, 8],
      [0, 8],
    ]
    const shown = (points: Vec2[], bulges: number[]) =>
      floorOf(withMass(projectWith([0]), { points, bulges, height: 3 }))
    for (const floor of [shown(corners, [0, 1, 0, 0]), shown([...corners].reverse(), [0, -1, 0, 0])]) {
      expect(floor?.area).toBeCloseTo(121.133, 3)
      expect(floor?.perimeter).toBeCloseTo(44.566, 3)
    }
  })
  it("of any arc: its area is the chord's polygon and the segment's together, at map coordinates too", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -60, max: 140 }).map((n) => n / 100),
        fc.constantFrom(0, 5_600_000),
        (bulge, far) => {
          const floor = floorOf(
            withMass(projectWith([0]), {
              points: [
                [far, far],
                [far + 20, far],
                [far + 20, far + 14],
                [far, far + 14],
              ],
              bulges: [0, 0, bulge, 0],
              height: 3,
            }),
          )
          const sweep = 4 * Math.atan(Math.abs(bulge))
          const r = bulge ? (10 * (1 + bulge * bulge)) / (2 * Math.abs(bulge)) : 1
          const segment = bulge ? ((r * r * (sweep - Math.sin(sweep))) / 2) * Math.sign(bulge) : 0
          expect(floor?.area).toBeCloseTo(280 + segment, 4)
          expect(floor?.perimeter).toBeCloseTo(48 + (bulge ? r * sweep : 20), 3)
        },
      ),
      { numRuns: 25 },
    )
  })
  it('through three points, and along a tangent', () => {
    expect(bulgeThrough([0, 0], [4, -4], [8, 0])).toBeCloseTo(1, 12)
    expect(bulgeThrough([0, 0], [4, 2], [8, 0])).toBeCloseTo(-Math.tan(Math.atan2(2, 4)), 12)
    expect(bulgeThrough([0, 0], [4, 0], [8, 0])).toBe(0)
    expect(bulgeAlong([0, 0], [0, -1], [8, 0])).toBeCloseTo(1, 12)
  })
  it('with a hole: the hole is taken off', () => {
    const project = withMass(projectWith([0]), { box: [0, 0, 20, 16], height: 3, name: 'A' })
    const holed = apply(
      project,
      changeRecipe(schemeOf(project), massNamed(project, 'A'), (r) =>
        r.map((m) =>
          m.move === 'outline' ? { ...m, holes: [{ id: 'h1', x: 10, y: 8, shape: { kind: 'circle', radius: 3 } }] } : m,
        ),
      ),
    )
    expect(floorOf(holed)?.area).toBeCloseTo(320 - Math.PI * 9, 6)
    expect(floorOf(holed)?.perimeter).toBeCloseTo(72 + 6 * Math.PI, 6)
  })
})

describe('a tapered form', () => {
  it("of two circles is a cone's frustum", () => {
    const project = withMoves(
      withMass(projectWith([0, 6]), { circle: [0, 0, 9], height: 12, name: 'Cone' }),
      'Cone',
      toScale(5 / 9),
    )
    expect(studied(project).totals.volume).toBeCloseTo(1897.522, 3)
    expect(floorOf(project, 1)?.area).toBeCloseTo(153.938, 3)
    expect(floorOf(project, 1)?.perimeter).toBeCloseTo(2 * Math.PI * 7, 4)
  })
  it('square to a scale', () => {
    const project = withMoves(
      withMass(projectWith([0, 15]), { box: [0, 0, 20, 20], height: 30, name: 'A' }),
      'A',
      toScale(0.6),
    )
    expect(studied(project).floors.map((f) => f.area)).toEqual([400, expect.closeTo(256, 9)])
  })
  it('by an angle leans all sides alike, arcs too', () => {
    const project = withMoves(
      withMass(projectWith([0, 10]), { box: [0, 0, 20, 12], height: 20, name: 'A' }),
      'A',
      toLean(5),
    )
    const off = Math.tan((5 * Math.PI) / 180) * 10
    expect(floorOf(project, 1)?.area).toBeCloseTo((20 - 2 * off) * (12 - 2 * off), 6)
    const round = withMoves(
      withMass(projectWith([0, 10]), { circle: [0, 0, 9], height: 20, name: 'A' }),
      'A',
      toLean(5),
    )
    expect(floorOf(round, 1)?.area).toBeCloseTo(Math.PI * (9 - off) ** 2, 4)
    expect(() =>
      withMoves(withMass(projectWith([0]), { box: [0, 0, 20, 4], height: 40, name: 'A' }), 'A', toLean(5)),
    ).toThrow()
  })
  it('comes to a point at scale zero', () => {
    const project = withMoves(withMass(projectWith([0]), { box: [0, 0, 6, 6], height: 9, name: 'A' }), 'A', toScale(0))
    expect(studied(project).totals.volume).toBeCloseTo(108, 9)
  })
})

describe('a twisted form', () => {
  it('has the same area at every level, and its volume', () => {
    const project = withMoves(
      withMass(projectWith(storeys(38.1, 3.15)), { box: [0, 0, 12, 12], height: 38.1, name: 'Tower' }),
      'Tower',
      twist(60),
    )
    const floors = studied(project).floors.filter((f) => f.level.height < 36.1)
    expect(floors).toHaveLength(12)
    for (const floor of floors) expect(Math.abs(floor.area - 144)).toBeLessThan(0.0144)
    expect(studied(project).totals.volume).toBeCloseTo(144 * 38.1, 4)
  })
  it('covers on the ground what its corners pass over', () => {
    const project = withMoves(
      withMass(projectWith([0, 6]), { box: [0, 0, 12, 12], height: 38.1, name: 'Tower' }),
      'Tower',
      twist(60),
    )
    // Four sectors of 60 degrees at the corners' radius, and between them what the first and the last outline leave.
    expect(studied(project).totals.footprint).toBeCloseTo(
      (2 / 3) * Math.PI * 72 + 4 * 36 * (1 - Math.tan(Math.PI / 6)),
      0,
    )
  })
  it('is cut as its outline turned, at any storey, whatever the outline; joined to another body too', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -180, max: 180 }),
        fc.integer({ min: 1, max: 9 }),
        fc.boolean(),
        (angle, at, round) => {
          const plain = withMass(
            projectWith([0, at, 9.5]),
            round
              ? {
                  points: [
                    [0, 0],
                    [12, 0],
                    [12, 8],
                    [0, 8],
                  ],
                  bulges: [0, 1, 0, 0],
                  height: 12,
                  name: 'A',
                }
              : {
                  points: [
                    [0, 0],
                    [12, 1],
                    [9, 8],
                    [4, 6],
                    [0, 9],
                  ],
                  height: 12,
                  name: 'A',
                },
          )
          const project = withMoves(plain, 'A', twist(angle))
          const ground = studied(plain).floors[0]?.plates[0]
          for (const floor of studied(project).floors) expect(floor.plates[0]?.area).toBeCloseTo(ground?.area ?? 0, 5)
          const { solid } = studied(project).forms[0]?.body ?? {}
          expect(solid && volumeOf(solid)).toBeCloseTo((ground?.area ?? 0) * 12, 4)
        },
      ),
      { numRuns: 8 },
    )
  })
  it('may twist between two heights only', () => {
    const project = withMoves(
      withMass(projectWith([0, 5, 10]), { box: [0, 0, 12, 6], height: 15, name: 'A' }),
      'A',
      twist(90, 5),
    )
    const widths = studied(project).floors.map((f) => {
      const xs = f.plates[0]?.region.flat().map((p) => p[0]) ?? []
      return Math.max(...xs) - Math.min(...xs)
    })
    expect(widths).toEqual([expect.closeTo(12, 6), expect.closeTo(6, 6), expect.closeTo(6, 6)])
  })
})

describe('a mass raised up to a level', () => {
  const raised = () =>
    converted(withMass(projectWith([0, 3, 6, 9]), { box: [0, 0, 10, 8], height: 1, upTo: 'L3', name: 'A' }))
  it('follows the level, its walls too, and nothing drifts', () => {
    const project = raised()
    const higher = apply(project, moveLevel(project, schemeOf(project), 'L3', 9.6, 'carried'))
    const study = studied(higher)
    expect(study.forms[0]?.top).toBeCloseTo(9.6, 9)
    expect(study.parts.every((p) => p.bond.status === 'bonded')).toBe(true)
    const upper = study.parts.filter((p) => p.role === 'wall' && p.part.base?.level === 'L2')
    expect(upper.map((p) => p.body && bodyVolume(p.body) / p.area)).toHaveLength(4)
    for (const wall of upper) expect(wall.area).toBeCloseTo((wall.length ?? 0) * 3.6, 6)
  })
  it('and changed in its form besides drifts only where it changed', () => {
    const project = raised()
    const higher = apply(project, moveLevel(project, schemeOf(project), 'L3', 9.6, 'carried'))
    const changed = apply(
      higher,
      changeRecipe(schemeOf(higher), massNamed(higher, 'A'), (r) =>
        r.map((m) =>
          m.move === 'outline' && m.shape.kind === 'rectangle' ? { ...m, shape: { ...m.shape, width: 12 } } : m,
        ),
      ),
    )
    const walls = studied(changed).parts.filter((p) => p.role === 'wall')
    expect(
      walls
        .filter((w) => w.bond.status === 'drifted')
        .map((w) => w.part.host.face.split('/')[1])
        .sort(),
    ).toEqual(['east', 'east', 'east', 'north', 'north', 'north', 'south', 'south', 'south'])
    expect(walls.filter((w) => w.bond.status === 'bonded')).toHaveLength(3)
  })
  it('twisted by five degrees: its side walls and its ground slab drift, the neighbour does not', () => {
    const two = converted(
      withMass(withMass(projectWith([0, 3, 6, 9]), { box: [0, 0, 10, 8], height: 1, upTo: 'L3', name: 'A' }), {
        box: [30, 0, 10, 8],
        height: 6,
        name: 'B',
      }),
    )
    const status = (name: string) =>
      studied(withMoves(two, 'A', twist(5)))
        .parts.filter((p) => p.part.host.mass === massNamed(two, name).id)
        .map((p) => [p.role, p.bond.status])
    expect(
      status('A')
        .filter(([role]) => role === 'wall' || role === 'ground slab')
        .map(([, s]) => s),
    ).toEqual(Array.from({ length: 13 }, () => 'drifted'))
    expect(new Set(status('B').map(([, s]) => s))).toEqual(new Set(['bonded']))
    expect(
      new Set(
        studied(changeMass(two, 'A', { place: { x: 0, y: 0, turn: 5 } }))
          .parts.filter((p) => p.part.host.mass === massNamed(two, 'A').id)
          .map((p) => p.bond.status),
      ),
    ).toEqual(new Set(['drifted']))
  })
})

describe('a round wall', () => {
  it('inside a circle is one wall of its true radii', () => {
    const project = converted(withMass(projectWith([0, 3.15]), { circle: [0, 0, 6.3], height: 6.3, name: 'Hall' }))
    const brick = Object.values(project.buildUps).find((b) => b.name === 'Brick wall 280')
    const thick = apply(project, {
      edit: 'build-up.change',
      id: brick?.id ?? '',
      set: { layers: [{ id: 'only', name: 'wall', material: 'clay', thickness: 0.3 }] },
    })
    const walls = studied(thick).parts.filter((p) => p.part.base?.level === 'L0' && p.role === 'curved wall')
    expect(walls).toHaveLength(1)
    const [wall] = walls
    expect(areaOf(wall?.plan ?? [])).toBeCloseTo(11.592, 3)
    expect(wall?.volume).toBeCloseTo(33.039, 2)
    expect(wall?.body?.kind === 'prism' && [wall.body.z0, wall.body.z1]).toEqual([0, 2.85])
    expect(wall?.length).toBeCloseTo(39.584, 3)
    expect(studied(thick).floors[0]?.net).toBeCloseTo(Math.PI * 36, 4)
  })
})

import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { box, build, byPlates, outline, raise, turned as turnedBy } from '../testing/recipes'
import { isWhole, openKernel, type Vec2 } from '../solid'
import type { Move } from './index'

beforeAll(() => openKernel())

const face = (name: string, out: number, along = 0, up = 0): Move => ({
  id: 's',
  move: 'shift-face',
  on: true,
  face: name,
  out,
  along,
  up,
})
const corner = (a: string, b: string, c: string | null, x: number, y: number, z: number): Move => ({
  id: 'k',
  move: 'shift-corner',
  on: true,
  a,
  b,
  c,
  x,
  y,
  z,
})
const turned = (points: Vec2[], degrees: number) => turnedBy(points, degrees, [31.7, -12.3])

describe('a shift of a face', () => {
  it('goes out and in square to it, at any turn and in either sense; no face changes its name', () => {
    for (const points of [box(10, 8), turned(box(10, 8), 27.3), turned(box(10, 8), 200).reverse()])
      for (const [name, area] of [
        ['r/top', 80],
        ['r/base', 80],
        ['r/e1', null],
      ] as const)
        for (const out of [1.25, -1.25]) {
          const before = build(outline(points), raise(4))
          const after = build(outline(points), raise(4), face(name, out))
          expect(after.leftOut).toEqual([])
          const own = area ?? before.faces.find((f) => f.name === name)?.area ?? 0
          expect(after.volume).toBeCloseTo(320 + own * out, 8)
          expect(after.faces.map((f) => f.name).sort()).toEqual(before.faces.map((f) => f.name).sort())
          expect(isWhole(after.solid)).toBe(true)
        }
  })
  it('lets the faces beside it keep their planes: a cut-off pyramid grows narrower as its top goes up', () => {
    const taper: Move = { id: 't', move: 'taper', on: true, by: { kind: 'scale', scale: 0.5 } }
    const up = build(outline(box(10, 8)), raise(4), taper, face('r/top', 2))
    expect(up.leftOut).toEqual([])
    // Its sides meet at 8 m: at 6 the top is a quarter of the foot's lengths.
    expect(up.faces.find((f) => f.name === 'r/top')?.area).toBeCloseTo(80 / 16, 8)
    expect(up.volume).toBeCloseTo((80 * 8) / 3 - (5 * 2) / 3, 8)
    expect(build(outline(box(10, 8)), raise(4), taper, face('r/top', 5)).leftOut[0]?.say).toMatch(
      /cross|turned over|itself/,
    )
  })
  it('slides within its plane, and the sides lean along', () => {
    const { volume, solid, faces } = build(outline(box(10, 8)), raise(4), face('r/top', 0, 3, 1))
    expect(volume).toBeCloseTo(320, 8)
    expect(byPlates(solid)).toBeCloseTo(320, 8)
    expect(faces).toHaveLength(6)
    expect(faces.find((f) => f.name === 'r/top')?.plane.d).toBeCloseTo(4, 10)
  })
  it('of a round body: its top, and a side of its hole', () => {
    const round: Move = {
      id: 'o',
      move: 'outline',
      on: true,
      shape: { kind: 'circle', radius: 5 },
      holes: [{ id: 'h1', x: 0, y: 0, shape: { kind: 'rectangle', width: 2, depth: 2 } }],
    }
    const tall = build(round, raise(4), face('r/top', 1))
    expect(tall.leftOut).toEqual([])
    expect(tall.volume).toBeCloseTo((Math.PI * 25 - 4) * 5, 6)
    const wide = build(round, raise(4), face('r/h1/south', -0.5))
    expect(wide.leftOut).toEqual([])
    expect(wide.volume).toBeCloseTo((Math.PI * 25 - 5) * 4, 6)
  })
  it('is left out with a sentence where it would fold over, where its face is curved or gone', () => {
    const says = (m: Move) => build(outline(box(10, 8)), raise(4), m).leftOut[0]?.say ?? ''
    expect(says(face('r/top', -5))).toMatch(/turned over|cross|pass through/)
    expect(says(face('r/e9', 1))).toMatch(/no flat face/)
    // At a hip two walls and another roof meet it: it cannot go up and leave all three in their planes.
    const hip: Move = { id: 'h', move: 'hip', on: true, angle: 40, edges: [], breaks: null, upper: 20 }
    const roof = build(outline(box(10, 8)), raise(4), hip, face('h/e1', 0.5))
    expect(roof.leftOut[0]?.say).toMatch(/leave no way/)
  })
})

describe('a shift of an edge or a corner', () => {
  it('an edge of the top goes up: the top leans, and nothing else changes its plane', () => {
    const { volume, faces, leftOut } = build(outline(box(10, 8)), raise(4), corner('r/top', 'r/e1', null, 0, 0, 2))
    expect(leftOut).toEqual([])
    expect(volume).toBeCloseTo(320 + 80, 8)
    expect(faces).toHaveLength(6)
  })
  it('a corner goes up: the top is folded, said in a note, and its pieces are known by its name', () => {
    const form = build(outline(box(10, 8)), raise(4), corner('r/top', 'r/e1', 'r/e2', 0, 0, 1.5))
    expect(form.leftOut).toEqual([])
    expect(form.notes[0]?.say).toMatch(/could not stay flat/)
    expect(byPlates(form.solid)).toBeCloseTo(form.volume, 8)
    expect(form.faces.filter((f) => f.name.startsWith('r/top'))).toHaveLength(2)
  })
  it('is left out with a sentence where the faces do not meet', () => {
    expect(build(outline(box(10, 8)), raise(4), corner('r/e1', 'r/e3', null, 1, 0, 0)).leftOut[0]?.say).toMatch(
      /do not meet/,
    )
  })
  it('whatever is shifted on a block: it stays closed, its plates are its volume, or a sentence says why not', () => {
    const names = ['r/top', 'r/base', 'r/e1', 'r/e2', 'r/e3', 'r/e4', 'r/e5', 'r/e6']
    const by = fc.integer({ min: -60, max: 60 }).map((v) => v / 10)
    const ell: Vec2[] = [
      [0, 0],
      [12, 0],
      [12, 5],
      [5, 5],
      [5, 9],
      [0, 9],
    ]
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ names: fc.shuffledSubarray(names, { minLength: 1, maxLength: 3 }), x: by, y: by, z: by }),
          { minLength: 1, maxLength: 3 },
        ),
        fc.integer({ min: 0, max: 359 }),
        (shifts, degrees) => {
          const moves = shifts.map((s, i): Move =>
            s.names.length === 1
              ? { ...face(s.names[0] as string, s.x, s.y, s.z), id: `s${i}` }
              : {
                  ...corner(s.names[0] as string, s.names[1] as string, s.names[2] ?? null, s.x, s.y, s.z),
                  id: `k${i}`,
                },
          )
          const form = build(outline(turned(ell, degrees)), raise(6), ...moves)
          expect(isWhole(form.solid)).toBe(true)
          expect(byPlates(form.solid)).toBeCloseTo(form.volume, 5)
          for (const { say, remedy } of form.leftOut) expect(say.length * remedy.length).toBeGreaterThan(0)
        },
      ),
      { numRuns: 300 },
    )
  })
})

describe('a split of a face', () => {
  const split = (name: string, along: number, up: number, direction: number): Move => ({
    id: 'l',
    move: 'split',
    on: true,
    face: name,
    along,
    up,
    direction,
  })
  it('makes two faces of one in its plane, and changes nothing else; however it is turned and the line runs', () => {
    for (const turn of [0, 27.3, 200])
      for (const direction of [90, 0, 33, -120]) {
        const points = turned(box(10, 8), turn)
        const before = build(outline(points), raise(4))
        const after = build(outline(points), raise(4), split('r/e1', 4, 2, direction))
        expect(after.leftOut).toEqual([])
        expect(isWhole(after.solid)).toBe(true)
        expect(after.volume).toBeCloseTo(before.volume, 9)
        expect(after.faces).toHaveLength(7)
        const area = (faces: typeof after.faces, name: string) => faces.find((f) => f.name === name)?.area ?? 0
        expect(area(after.faces, 'r/e1') + area(after.faces, 'l/e1')).toBeCloseTo(area(before.faces, 'r/e1'), 8)
        if (direction === 90) expect(area(after.faces, 'l/e1')).toBeCloseTo(24, 8)
      }
  })
  it('stays through what comes behind it: a cut, a patch on one of its halves, another split', () => {
    const cut: Move = { id: 'c', move: 'cut', on: true, x: 0, y: 0, z: 3, direction: 0, rises: 0, keeps: 'below' }
    const patch: Move = {
      id: 'p',
      move: 'patch',
      on: true,
      face: 'l/e1',
      along: 1,
      up: 1,
      shape: { kind: 'rectangle', width: 1, depth: 1 },
      by: 0.5,
    }
    const again: Move = { ...split('l/e1', 0, 1.5, 0), id: 'l2' } as Move
    const { faces, volume, leftOut, solid } = build(
      outline(box(10, 8)),
      raise(4),
      split('r/e1', 4, 0, 90),
      cut,
      patch,
      again,
    )
    expect(leftOut).toEqual([])
    expect(isWhole(solid)).toBe(true)
    expect(volume).toBeCloseTo(240.5, 8)
    const areas = Object.fromEntries(faces.map((f) => [f.name, Math.round(f.area * 1e6) / 1e6]))
    expect(areas['r/e1']).toBe(12)
    expect((areas['l/e1'] ?? 0) + (areas['l2/e1'] ?? 0)).toBeCloseTo(18 - 1, 6)
  })
  it('is left out with a sentence where the line misses it; a face with a hole is parted around it', () => {
    expect(build(outline(box(10, 8)), raise(4), split('r/e1', 20, 0, 90)).leftOut[0]?.say).toMatch(/does not cross/)
    const holed: Move = {
      id: 'o',
      move: 'outline',
      on: true,
      shape: { kind: 'rectangle', width: 10, depth: 8 },
      holes: [{ id: 'h1', x: 3, y: 3, shape: { kind: 'rectangle', width: 2, depth: 2 } }],
    }
    const top = build(holed, raise(4), split('r/top', 4, 0, 90))
    expect(top.leftOut).toEqual([])
    expect(isWhole(top.solid)).toBe(true)
    expect(top.faces.filter((f) => f.name.endsWith('/top')).reduce((sum, f) => sum + f.area, 0)).toBeCloseTo(76, 8)
  })
})

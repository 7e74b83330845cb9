import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { areaOf, openKernel, uniteRegions, type Region } from '../../solid'
import { build, plainNumbers as numbers, raise } from '../../testing/recipes'
import { checkRecipe, outlinesOf, type Move, type OutlineMove, type OutlineShape } from '../index'

beforeAll(() => openKernel())

type Box = [x: number, y: number, width: number, depth: number]
const joined = (...boxes: Box[]): OutlineShape => ({
  kind: 'joined',
  parts: boxes.map(([x, y, width, depth], i) => ({ id: String.fromCharCode(97 + i), x, y, width, depth })),
})
const outline = (shape: OutlineShape): OutlineMove => ({ id: 'o', move: 'outline', on: true, shape, holes: [] })
const made = (...boxes: Box[]) => build(outline(joined(...boxes)) as Move, raise(1))
const says =
  (...boxes: Box[]) =>
  () =>
    checkRecipe([outline(joined(...boxes)) as Move, raise(1)], 'M', numbers)

describe('joined rectangles', () => {
  it('are one outline whose sides are named by their rectangles; a court is what they enclose', () => {
    const { volume, faces } = made([0, 0, 24, 7.2], [0, 0, 7.2, 18])
    expect(volume).toBeCloseTo(250.56, 8)
    expect(faces.map((f) => f.name.split('/')[1]).sort()).toEqual(
      ['a-east', 'a-north', 'a-south', 'a-west', 'b-east', 'b-north', 'base', 'top'].sort(),
    )
    const ring = made([0, 0, 20, 5], [0, 15, 20, 5], [0, 0, 5, 20], [15, 0, 5, 20])
    expect(ring.volume).toBeCloseTo(400 - 100, 8)
    expect(ring.faces.map((f) => f.name).filter((n) => n.includes('court'))).toHaveLength(4)
  })
  it('keep the names of their sides when a size is changed', () => {
    const names = (w: number) => made([0, 0, w, 7.2], [4, 5, 6, 9]).faces.map((f) => f.name)
    expect(names(24)).toEqual(names(17.3))
  })
  it('say what is wrong: apart, or in a corner only', () => {
    expect(says([0, 0, 4, 4], [9, 0, 4, 4])).toThrow(/do not hang together/)
    expect(says([0, 0, 4, 4], [4, 4, 4, 4])).toThrow(/do not hang together|in a corner only/)
    expect(says([0, 0, 4, 4], [4, 0, 0, 4])).toThrow(/millimetre/)
  })
  it('have the area of the union, whatever they are, where they can be drawn', () => {
    const dm = (min: number, max: number) => fc.integer({ min, max }).map((v) => v / 2)
    let drawn = 0
    fc.assert(
      fc.property(
        fc.array(fc.tuple(dm(0, 20), dm(0, 20), dm(2, 16), dm(2, 16)), { minLength: 1, maxLength: 6 }),
        (boxes) => {
          try {
            says(...boxes)()
          } catch {
            return
          }
          drawn++
          const lines = outlinesOf(outline(joined(...boxes)), numbers)
          const region: Region = boxes.map(([x, y, w, d]) => [
            [x, y],
            [x + w, y],
            [x + w, y + d],
            [x, y + d],
          ])
          const own = lines.reduce((sum, l) => sum + areaOf([l.points]), 0)
          expect(own).toBeCloseTo(areaOf(uniteRegions(region.map((l) => [l]))), 6)
          for (const l of lines) expect(new Set(l.edges).size).toBe(l.edges.length)
        },
      ),
      { numRuns: 200 },
    )
    expect(drawn).toBeGreaterThan(30)
  })
})

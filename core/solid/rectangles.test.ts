import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { areaOf, intersectRegions, openKernel, subtractRegions, uniteRegions, type Region, type Vec2 } from './index'

beforeAll(async () => {
  await openKernel()
})

const tenth = fc.integer({ min: -60, max: 60 }).map((v) => v / 10)
const box = fc
  .tuple(tenth, tenth, fc.integer({ min: 1, max: 80 }), fc.integer({ min: 1, max: 80 }), fc.nat(3))
  .map(([x, y, w, h, from]): Region => {
    const loop: Vec2[] = [
      [x, y],
      [x + w / 10, y],
      [x + w / 10, y + h / 10],
      [x, y + h / 10],
    ]
    return [[...loop.slice(from), ...loop.slice(0, from)]]
  })
/** The same with a corner more on a side, so that the kernel is asked. */
const asked = ([loop]: Region): Region => {
  const [a, b] = [loop?.[0] as Vec2, loop?.[1] as Vec2]
  return [[a, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2 + 0], ...(loop ?? []).slice(1)]]
}

describe('upright rectangles are cut without the kernel', () => {
  it('as the kernel cuts them: areas, and what lies where', () => {
    fc.assert(
      fc.property(box, box, (a, b) => {
        for (const how of [intersectRegions, subtractRegions]) {
          const [plain, kernel] = [how(a, b), how(asked(a), b)]
          expect(areaOf(plain)).toBeCloseTo(areaOf(kernel), 6)
          expect(areaOf(uniteRegions([plain, kernel]))).toBeCloseTo(areaOf(kernel), 6)
        }
      }),
      { numRuns: 300 },
    )
  })
  it('what lies within a tenth of a millimetre of a side lies on it', () => {
    const square: Region = [[[0, 0], [4, 0], [4, 4], [0, 4]]] // prettier-ignore
    const beside = (by: number): Region => [[[4 + by, 0], [6, 0], [6, 4], [4 + by, 4]]] // prettier-ignore
    for (const by of [-5e-5, 0, 5e-5]) {
      expect(intersectRegions(square, beside(by))).toEqual([])
      expect(areaOf(subtractRegions(square, beside(by)))).toBe(16)
    }
  })
})

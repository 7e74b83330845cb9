import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { openKernel } from '../solid'
import { contoursOf, groundAlong, heightAt, packSurvey, triangulateSurvey, unpackSurvey, type Survey } from './index'

beforeAll(() => openKernel())

describe('terrain', () => {
  const slope: Survey = { points: Float64Array.from([0, 0, 0, 10, 0, 1, 10, 10, 3, 0, 10, 2]), lines: [] }
  it('gives the height anywhere on it, and none beside it', () => {
    const tin = triangulateSurvey(slope)
    for (const [x, y] of [
      [0, 0],
      [5, 5],
      [2.5, 7.5],
      [9.9, 0.1],
    ] as const)
      expect(heightAt(tin, x, y)).toBeCloseTo(x / 10 + y / 5, 9)
    expect(heightAt(tin, 11, 5)).toBeNull()
  })
  it('gives lowest, mean and highest ground along a foot', () => {
    const tin = triangulateSurvey(slope)
    const foot = groundAlong(
      (x, y) => heightAt(tin, x, y),
      [
        [
          [2, 2],
          [6, 2],
          [6, 6],
          [2, 6],
        ],
      ],
    )
    expect(foot?.lowest).toBeCloseTo(0.6, 9)
    expect(foot?.mean).toBeCloseTo(1.2, 6)
    expect(foot?.highest).toBeCloseTo(1.8, 9)
    expect(
      groundAlong(
        (x, y) => heightAt(tin, x, y),
        [
          [
            [12, 2],
            [16, 2],
            [16, 6],
          ],
        ],
      ),
    ).toBeNull()
  })
  it('keeps lines as sides: a ridge stays a ridge, lines that cross are cut there', () => {
    const points = [0, 0, 0, 10, 0, 0, 10, 10, 0, 0, 10, 0, 5, 0.5, 4, 5, 9.5, 4, 0.5, 5, 2, 9.5, 5, 2]
    const tin = triangulateSurvey({
      points: Float64Array.from(points),
      lines: [Uint32Array.of(4, 5), Uint32Array.of(6, 7)],
    })
    expect(tin.lost).toBe(0)
    expect(heightAt(tin, 5, 3)).toBeGreaterThan(3.3)
    expect(heightAt(tin, 5, 5)).toBeCloseTo(3, 6)
  })
  it('is stored and read back to the bit; damage is said', () => {
    const survey = { points: slope.points, lines: [Uint32Array.of(0, 2), Uint32Array.of(1, 2, 3)] }
    const bytes = packSurvey(survey)
    expect(unpackSurvey(bytes)).toEqual(survey)
    expect(() => unpackSurvey(bytes.slice(0, 60))).toThrow('damaged')
  })
  it('has contours where the ground has their height', () => {
    const lines = contoursOf(triangulateSurvey(slope), 0.5)
    expect(lines.length).toBeGreaterThan(0)
    for (let i = 0; i < lines.length; i += 3)
      expect(lines[i + 2]).toBeCloseTo((lines[i] as number) / 10 + (lines[i + 1] as number) / 5, 4)
  })
  it('refuses what is no ground', () => {
    expect(() => triangulateSurvey({ points: Float64Array.from([0, 0, 1, 0, 0, 2]), lines: [] })).toThrow(
      'at least three',
    )
    expect(() => triangulateSurvey({ points: Float64Array.from([0, 0, 1, 1, 1, 2, 2, 2, 0]), lines: [] })).toThrow(
      'in a line',
    )
  })
  it('any cloud of points: heights lie between the lowest and the highest, and every point has its own', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.integer({ min: 0, max: 50 }), fc.integer({ min: 0, max: 50 }), fc.integer({ min: -5, max: 20 })),
          { minLength: 6, maxLength: 60 },
        ),
        (cloud) => {
          const once = [...new Map(cloud.map((p) => [`${p[0]} ${p[1]}`, p])).values()]
          if (
            once.length < 4 ||
            once.every(
              ([x, y]) =>
                (x - (once[0]?.[0] ?? 0)) * ((once[1]?.[1] ?? 0) - (once[0]?.[1] ?? 0)) ===
                (y - (once[0]?.[1] ?? 0)) * ((once[1]?.[0] ?? 0) - (once[0]?.[0] ?? 0)),
            )
          )
            return
          const tin = triangulateSurvey({ points: Float64Array.from(once.flat()), lines: [] })
          for (const [x, y, z] of once) expect(heightAt(tin, x, y) ?? z).toBeCloseTo(z, 6)
        },
      ),
      { numRuns: 60 },
    )
  })
})

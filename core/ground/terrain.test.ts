import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { openKernel } from '../solid'
import {
  alongGround,
  contoursOf,
  groundAlong,
  heightAt,
  packSurvey,
  triangulateSurvey,
  unpackSurvey,
  type Survey,
} from './index'

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
    const foot = groundAlong(tin, [
      [
        [2, 2],
        [6, 2],
        [6, 6],
        [2, 6],
      ],
    ])
    expect(foot?.lowest).toBeCloseTo(0.6, 9)
    expect(foot?.mean).toBeCloseTo(1.2, 6)
    expect(foot?.highest).toBeCloseTo(1.8, 9)
    expect(
      groundAlong(tin, [
        [
          [12, 2],
          [16, 2],
          [16, 6],
        ],
      ]),
    ).toBeNull()
  })
  it('takes the very top of a ridge, and the bottom of a ditch, that a foot crosses', () => {
    // A ridge of 2 m at x = 3.333, 0.02 m wide, and a ditch of -1 m at x = 7.777.
    const rows = [0, 3.32, 3.333, 3.346, 7.76, 7.777, 7.79, 20].map(
      (x) => [x, x === 3.333 ? 2 : x === 7.777 ? -1 : 0] as const,
    )
    const tin = triangulateSurvey({
      points: Float64Array.from([-10, 10].flatMap((y) => rows.flatMap(([x, z]) => [x, y, z]))),
      lines: rows.map((_, i) => Uint32Array.of(i, i + rows.length)),
    })
    const foot = groundAlong(tin, [[[1, -2], [12, -2], [12, 4], [1, 4]]]) // prettier-ignore
    expect([foot?.lowest, foot?.highest]).toEqual([expect.closeTo(-1, 9), expect.closeTo(2, 9)])
    // Each of the two long sides has a ridge and a ditch: two triangles under the line.
    expect(foot?.mean).toBeCloseTo((2 * (0.026 - (0.017 + 0.013) / 2)) / 34, 9)
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

describe('a line laid on the ground', () => {
  const surveys = fc
    .record({
      from: fc.constantFrom<[number, number]>([0, 0], [2_612_345.5, 1_201_234.25]),
      points: fc.array(fc.tuple(fc.nat(1000), fc.nat(1000), fc.nat(300)), { minLength: 6, maxLength: 60 }),
    })
    .map(({ from: [x0, y0], points }) => ({
      from: [x0, y0] as const,
      survey: {
        points: Float64Array.from(points.flatMap(([x, y, z]) => [x0 + x / 10, y0 + y / 10, z / 10])),
        lines: [],
      },
    }))
  const places = fc.tuple(fc.integer({ min: -200, max: 1200 }), fc.integer({ min: -200, max: 1200 }))

  it('lies on it all along, wherever it goes: between two of its places it is straight, and so is the ground', () => {
    let on = 0
    fc.assert(
      fc.property(surveys, places, places, ({ from: [x0, y0], survey }, p, q) => {
        let tin
        try {
          tin = triangulateSurvey(survey)
        } catch {
          return
        }
        const [a, b] = [p, q].map(([x, y]) => [x0 + x / 10, y0 + y / 10] as [number, number])
        if (!a || !b) return
        const line = alongGround(tin, a, b)
        const far = ({ at }: { at: readonly [number, number] }) => Math.hypot(at[0] - a[0], at[1] - a[1])
        expect(line.map(far)).toEqual(line.map(far).sort((m, n) => m - n))
        line.forEach((one, i) => {
          const next = line[i + 1]
          if (!next) return
          for (const f of [0.25, 0.5, 0.75]) {
            const height = heightAt(
              tin,
              one.at[0] + f * (next.at[0] - one.at[0]),
              one.at[1] + f * (next.at[1] - one.at[1]),
            )
            if (height === null || one.z === null || next.z === null) continue
            on++
            expect(one.z + f * (next.z - one.z)).toBeCloseTo(height, 4)
          }
        })
      }),
      { numRuns: 200 },
    )
    expect(on).toBeGreaterThan(1000)
  })
  it('says where it leaves the survey, and where it goes along a side', () => {
    const slope = triangulateSurvey({ points: Float64Array.from([0, 0, 0, 10, 0, 1, 10, 10, 3, 0, 10, 2]), lines: [] })
    const out = alongGround(slope, [5, 5], [25, 5])
    expect(out.map(({ z }) => z)).toEqual([expect.closeTo(1.5, 9), expect.closeTo(2, 9), null])
    expect(out[1]?.at[0]).toBeCloseTo(10, 9)
    expect(alongGround(slope, [0, 0], [0, 10]).map(({ z }) => z)).toEqual([0, 2])
  })
})

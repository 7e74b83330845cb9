import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { numbersOf, type Site } from '../project'
import { areaOf, intersectRegions, loopArea, openKernel, subtractRegions, type Vec2 } from '../solid'
import { projectWith, standingPlan, studied, withMass } from '../testing/make'
import {
  buildable,
  envelopeOf,
  fitOf,
  planFit,
  readLegs,
  sayBearing,
  siteFigures,
  towardSide,
  triangulateSurvey,
  heightAt,
  walk,
} from './index'
import { splitLines } from './break-lines'

beforeAll(() => openKernel())

/** What must hold of any site, walk, envelope and ground. */
const numbers = numbersOf(projectWith([0]), null)
const star = fc
  .array(fc.integer({ min: 8, max: 30 }), { minLength: 3, maxLength: 10 })
  .map((radii) =>
    radii.map((r, i): Vec2 => [
      r * Math.cos((2 * Math.PI * i) / radii.length),
      r * Math.sin((2 * Math.PI * i) / radii.length),
    ]),
  )
const siteOf = (points: Vec2[], setbacks: number[], limit: number | null): Site => ({
  limit,
  corners: points.map(([x, y], i) => ({ id: `c${i}`, x, y, setback: setbacks[i] ?? 0, slope: null })),
})

describe('any site', () => {
  it('has angles that add up to those of its polygon, whichever way round it goes', () => {
    fc.assert(
      fc.property(star, fc.boolean(), (ring, turned) => {
        const { sides, area, perimeter } = siteFigures(turned ? [...ring].reverse() : ring)
        expect(sides.reduce((sum, s) => sum + s.angle, 0)).toBeCloseTo((ring.length - 2) * 180, 4)
        expect(area).toBeCloseTo(Math.abs(loopArea(ring)), 9)
        expect(perimeter).toBeCloseTo(
          sides.reduce((sum, s) => sum + s.length, 0),
          9,
        )
      }),
    )
  })
  it('walked side by side by its own lengths and bearings closes where it began, but for rounding', () => {
    fc.assert(
      fc.property(star, (ring) => {
        const { sides } = siteFigures(ring)
        const legs = readLegs(sides.map((s) => `${s.length} ${s.bearing}°`).join('\n'), Number)
        const walked = walk(ring[0] as Vec2, legs)
        expect(walked.closing).toBeNull()
        expect(walked.area).toBeCloseTo(Math.abs(loopArea(ring)), 4)
        // Without its last leg the closing segment is that leg.
        const open = walk(ring[0] as Vec2, legs.slice(0, -1))
        expect(open.closing?.length).toBeCloseTo(legs.at(-1)?.length ?? 0, 4)
        expect((((open.closing?.bearing ?? 0) - (legs.at(-1)?.bearing ?? 0) + 540) % 360) - 180).toBeCloseTo(0, 3)
      }),
    )
  })
  it('says bearings in words where there are words', () => {
    expect([0, 90, 180, 270, 12.5].map(sayBearing)).toEqual(['north', 'east', 'south', 'west', '12.50°'])
  })
})

describe('any setbacks', () => {
  const wide = fc.array(fc.integer({ min: 0, max: 30 }), { minLength: 10, maxLength: 10 })
  it('leave a part of the site, less with wider ones, all of it with none', () => {
    fc.assert(
      fc.property(star, wide, (ring, tenths) => {
        const setbacks = tenths.map((t) => t / 10)
        const left = buildable(ring, setbacks)
        expect(areaOf(subtractRegions(left, [ring]))).toBeLessThan(1e-3)
        expect(
          areaOf(
            buildable(
              ring,
              setbacks.map((s) => s + 0.5),
            ),
          ),
        ).toBeLessThanOrEqual(areaOf(left) + 1e-6)
        expect(areaOf(buildable(ring, []))).toBeCloseTo(areaOf([ring]), 6)
      }),
      { numRuns: 60 },
    )
  })
  it('keep every spot of what is left at least that far from every side', () => {
    fc.assert(
      fc.property(star, wide, (ring, tenths) => {
        const setbacks = tenths.map((t) => t / 10)
        for (const p of buildable(ring, setbacks).flat())
          ring.forEach((a, i) => {
            const b = ring[(i + 1) % ring.length] as Vec2
            const [dx, dy] = [b[0] - a[0], b[1] - a[1]]
            const t = ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / (dx * dx + dy * dy)
            if (t > 0.001 && t < 0.999)
              expect(Math.abs((p[0] - a[0]) * dy - (p[1] - a[1]) * dx) / Math.hypot(dx, dy)).toBeGreaterThan(
                (setbacks[i] ?? 0) - 1e-3,
              )
          })
      }),
      { numRuns: 60 },
    )
  })
})

describe('any mass in an envelope', () => {
  it('what is over and what is inside are the whole; nothing is over where no limit is passed', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -6, max: 24 }),
        fc.integer({ min: -6, max: 24 }),
        fc.integer({ min: 2, max: 12 }),
        fc.integer({ min: 3, max: 14 }),
        (x, y, size, height) => {
          const form = studied(withMass(projectWith([0]), { box: [x, y, size, size], height })).forms[0]
          if (!form) throw new Error('no form')
          const envelope = envelopeOf(
            siteOf(
              [
                [0, 0],
                [28, 0],
                [31, 19],
                [2, 22],
              ],
              [2, 1, 3, 1.5],
              9,
            ),
            numbers,
          )
          const fit = fitOf(form.body.solid, form.at, form.top, form.rect, envelope, () =>
            planFit(envelope, standingPlan(form), form.rect),
          )
          const inside =
            areaOf(
              intersectRegions(
                [
                  [
                    [x, y],
                    [x + size, y],
                    [x + size, y + size],
                    [x, y + size],
                  ],
                ],
                envelope.region,
              ),
            ) * Math.min(height, 9)
          expect(fit.over).toBeCloseTo(size * size * height - inside, 1)
          // A corner may be some centimetres over, and hardly any volume with it.
          const isOver = fit.limits.some((l) => l.over > 1e-3)
          if (isOver) expect(fit.over).toBeGreaterThan(0)
          else expect(fit.over).toBeLessThan(0.05)
        },
      ),
      { numRuns: 50 },
    )
  })
  it('is brought to the distance that was typed', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 3 }), fc.integer({ min: 5, max: 60 }), (side, tenths) => {
        const envelope = envelopeOf(
          siteOf(
            [
              [0, 0],
              [28, 0],
              [31, 19],
              [2, 22],
            ],
            [],
            null,
          ),
          numbers,
        )
        const at = (x: number, y: number) => {
          const form = studied(withMass(projectWith([0]), { box: [x, y, 6, 5], height: 3 })).forms[0]
          if (!form) throw new Error('no form')
          return fitOf(form.body.solid, form.at, form.top, form.rect, envelope, () =>
            planFit(envelope, standingPlan(form), form.rect),
          ).clear
        }
        const [dx, dy] = towardSide(envelope, side, at(11, 8)[side] ?? 0, tenths / 10)
        expect(at(11 + dx, 8 + dy)[side]).toBeCloseTo(tenths / 10, 3)
      }),
      { numRuns: 30 },
    )
  })
})

it("any lines on the ground: each piece is a side of triangles, and the ground along it is the line's", () => {
  const cell = fc.tuple(
    fc.integer({ min: 0, max: 20 }),
    fc.integer({ min: 0, max: 20 }),
    fc.integer({ min: 0, max: 5 }),
  )
  fc.assert(
    fc.property(
      fc.array(cell, { minLength: 4, maxLength: 12 }),
      fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 3 }),
      (cloud, lines) => {
        const height = new Map<string, number>()
        const put = ([x, y, z]: readonly [number, number, number]) => {
          const key = `${x} ${y}`
          if (!height.has(key)) height.set(key, z)
          return [x, y, height.get(key) ?? z] as const
        }
        const all = [[-1, -1, 0], [21, -1, 0], [21, 21, 0], [-1, 21, 0], ...cloud.map(put)] as const
        const points = all.flatMap((p) => [...p])
        const runs = lines
          .filter(([a, b]) => a[0] !== b[0] || a[1] !== b[1])
          .map(([a, b]) =>
            Uint32Array.from([put(a), put(b)], (p) => {
              points.push(...p)
              return points.length / 3 - 1
            }),
          )
        const survey = { points: Float64Array.from(points), lines: runs }
        const tin = triangulateSurvey(survey)
        expect(tin.lost).toBe(0)
        const { points: split, segments } = splitLines(survey)
        for (let i = 0; i < segments.length; i += 2) {
          const [a, b] = [(segments[i] ?? 0) * 3, (segments[i + 1] ?? 0) * 3]
          for (const t of [0.25, 0.5, 0.8])
            expect(
              heightAt(
                tin,
                (split[a] ?? 0) + t * ((split[b] ?? 0) - (split[a] ?? 0)),
                (split[a + 1] ?? 0) + t * ((split[b + 1] ?? 0) - (split[a + 1] ?? 0)),
              ),
            ).toBeCloseTo((split[a + 2] ?? 0) + t * ((split[b + 2] ?? 0) - (split[a + 2] ?? 0)), 5)
        }
      },
    ),
    { numRuns: 60 },
  )
})

import fc from 'fast-check'
import { expect, it } from 'vitest'
import { spineScale, spreadLabels } from './layout'

const level = (height: number, i: number) => ({
  id: `l${i}`,
  name: `Level ${i}`,
  kind: 'storey' as const,
  height,
  floorBuildUp: 0,
  slab: 0,
})

it('the spine is to scale, and what is dragged by pixels comes back as metres', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -20, max: 300 }), { minLength: 1, maxLength: 40 }),
      fc.integer({ min: 200, max: 1200 }),
      (heights, length) => {
        const scale = spineScale(heights.map(level), Math.max(...heights) + 4, length)
        for (const h of heights) {
          expect(scale.z(scale.y(h))).toBeCloseTo(h, 9)
          expect(scale.y(h)).toBeGreaterThan(0)
          expect(scale.y(h)).toBeLessThan(length)
        }
        expect(scale.y(0) - scale.y(3)).toBeCloseTo(3 / scale.perPixel, 6)
      },
    ),
  )
})

it('labels of close levels move apart and never overprint; the level that is shown keeps its label', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 20, max: 580 }), { minLength: 1, maxLength: 120 }),
      fc.nat(200),
      (ys, chosen) => {
        const items = ys.map((y, i) => ({ id: `l${i}`, y }))
        const keep = `l${chosen % ys.length}`
        const spread = spreadLabels(items, 15, 14, 594, new Set([keep]))
        const sorted = [...spread.values()].sort((a, b) => a - b)
        for (let i = 1; i < sorted.length; i++)
          expect((sorted[i] ?? 0) - (sorted[i - 1] ?? 0)).toBeGreaterThanOrEqual(15 - 1e-9)
        expect(spread.has(keep)).toBe(true)
      },
    ),
  )
})

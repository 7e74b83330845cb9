import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { setPitch, moveMasses } from '../form'
import type { Project } from '../project'
import { areaOf, tierAt, cutAt, loopArea, openKernel, type Vec2 } from '../solid'
import { joinedShed } from '../testing/boat-shed'
import { apply, changeMass, massNamed, minter, projectWith, schemeOf, studied, withMass } from '../testing/make'
import { ledgerOf } from '../study'

beforeAll(() => openKernel())

/** A star-shaped outline: never crosses itself, whatever the radii. */
const star = fc.array(fc.double({ min: 4, max: 12, noNaN: true }), { minLength: 3, maxLength: 9 }).map((radii) =>
  radii.map((r, i): Vec2 => {
    const a = (2 * Math.PI * i) / radii.length
    return [Math.round(r * Math.cos(a) * 1000) / 1000, Math.round(r * Math.sin(a) * 1000) / 1000]
  }),
)

describe('the cut of a body', () => {
  it('integrated over the height is the volume, whatever the outline, pitch and turn', () => {
    fc.assert(
      fc.property(
        star,
        fc.double({ min: 1, max: 9, noNaN: true }),
        fc.option(fc.tuple(fc.double({ min: 5, max: 60, noNaN: true }), fc.integer({ min: 0, max: 180 })), {
          nil: null,
        }),
        fc.integer({ min: 0, max: 359 }),
        (points, height, pitch, turn) => {
          let project = withMass(projectWith([0]), { name: 'M', points, height })
          if (pitch)
            project = apply(
              project,
              setPitch(schemeOf(project), massNamed(project, 'M'), minter('p'), {
                angle: pitch[0],
                direction: pitch[1],
              }),
            )
          project = apply(
            project,
            moveMasses(project, schemeOf(project), [massNamed(project, 'M').id], [3, 4], turn, [1, 2]),
          )
          const form = studied(project).forms[0]
          if (!form) throw new Error('no form')
          const { heights } = form.body.tiers()
          // Between two heights of change the area is a polynomial of degree two at most: two points of Gauss are exact.
          const area = (z: number) => cutAt(form.body.solid, z).reduce((s, l) => s + loopArea(l.points), 0)
          let sum = 0
          for (let i = 1; i < heights.length; i++) {
            const [a, b] = [heights[i - 1] as number, heights[i] as number]
            const [middle, off] = [(a + b) / 2, (b - a) / 2 / Math.sqrt(3)]
            sum += ((b - a) / 2) * (area(middle - off) + area(middle + off))
          }
          expect(Math.abs(sum - form.body.volume) / form.body.volume).toBeLessThan(2e-5)
        },
      ),
      { numRuns: 60 },
    )
  })
  it('is closed and names the face that each edge was cut from', () => {
    const form = studied(joinedShed()).forms[0]
    const loops = cutAt(
      form?.body.solid ??
        (() => {
          throw new Error()
        })(),
      1,
    )
    expect(loops).toHaveLength(1)
    expect(loops[0]?.points).toHaveLength(8)
    expect(new Set(loops[0]?.faces).size).toBe(7)
  })
  it('is one and the same within a tier in which the form stands upright', () => {
    const study = studied(joinedShed())
    const form = study.forms[0]
    if (!form) throw new Error('no form')
    const tiers = form.body.tiers()
    for (let i = 1; i < tiers.heights.length; i++) {
      const [a, b] = [tiers.heights[i - 1] as number, tiers.heights[i] as number]
      if (b - a < 1e-3) continue
      const cuts = [0.2, 0.8].map((t) => areaOf(cutAt(form.body.solid, a + t * (b - a)).map((l) => l.points)))
      if (tiers.constant[i]) expect(cuts[0]).toBeCloseTo(cuts[1] ?? 0, 9)
      else expect(Math.abs((cuts[0] ?? 0) - (cuts[1] ?? 0))).toBeGreaterThan(0.1)
      expect(tierAt(tiers, (a + b) / 2)).toBe(i)
    }
  })
})

describe('a floor', () => {
  it('counts what several masses share once: the union of boxes against a count of unit squares', () => {
    const box = fc.tuple(fc.nat(12), fc.nat(12), fc.integer({ min: 2, max: 9 }), fc.integer({ min: 2, max: 9 }))
    fc.assert(
      fc.property(fc.array(box, { minLength: 1, maxLength: 6 }), (boxes) => {
        let project = projectWith([0])
        boxes.forEach((b, i) => {
          project = withMass(project, { name: `B${i}`, box: b, height: 3, use: i % 2 ? 'homes' : 'market' })
        })
        const squares = new Set<string>()
        for (const [x, y, w, d] of boxes)
          for (let i = x; i < x + w; i++) for (let j = y; j < y + d; j++) squares.add(`${i},${j}`)
        const { levels, totals } = ledgerOf(studied(project))
        expect(levels[0]?.area).toBeCloseTo(squares.size, 4)
        expect(Object.values(levels[0]?.uses ?? {}).reduce((a, b) => a + b, 0)).toBeCloseTo(squares.size, 4)
        expect(totals.volume).toBeCloseTo(squares.size * 3, 3)
        expect(totals.footprint).toBeCloseTo(squares.size, 4)
      }),
      { numRuns: 60 },
    )
  })
  it('is the same in whatever order the masses stand, and wherever the site lies', () => {
    const build = (order: number[], far: number): Project => {
      let project = projectWith([0, 3])
      const boxes = [
        [0, 0, 20, 10],
        [15, 2, 20, 10],
        [30, -3, 6, 30],
      ] as const
      for (const i of order) {
        const b = boxes[i] ?? boxes[0]
        project = withMass(project, { name: `B${i}`, box: [b[0] + far, b[1] + far, b[2], b[3]], height: 6 })
      }
      return project
    }
    const [one, ...others] = [build([0, 1, 2], 0), build([2, 0, 1], 0), build([0, 1, 2], 400000)].map((p) =>
      ledgerOf(studied(p)),
    )
    for (const other of others) {
      expect(other.totals.area).toBeCloseTo(one?.totals.area ?? 0, 3)
      expect(other.totals.volume).toBeCloseTo(one?.totals.volume ?? 0, 2)
      expect(other.levels[0]?.perimeter).toBeCloseTo(one?.levels[0]?.perimeter ?? 0, 3)
    }
  })
  it('leaves out pieces below the smallest area, and says so', () => {
    let project = withMass(projectWith([0]), { name: 'Big', box: [0, 0, 10, 10], height: 3 })
    project = withMass(project, { name: 'Shaft', box: [20, 0, 1.2, 1.2], height: 3 })
    const study = studied(project)
    expect(study.totals.area).toBeCloseTo(100, 6)
    expect(study.findings.map((f) => [f.kind, f.area?.toFixed(2)])).toEqual([['sliver', '1.44']])
    expect(studied({ ...project, smallestArea: 1 }).totals.area).toBeCloseTo(101.44, 6)
  })
  it('is low where the mass above it is lower than the headroom, unless another mass goes on there', () => {
    const base = withMass(projectWith([0, 3]), { name: 'Podium', box: [0, 0, 20, 10], height: 4 })
    expect(ledgerOf(studied(base)).levels[1]).toMatchObject({ area: 0, low: 200 })
    const stacked = changeMass(withMass(base, { name: 'Tower', box: [0, 0, 8, 10], height: 20 }), 'Tower', {
      base: { level: 'L1', above: 1 },
    })
    expect(ledgerOf(studied(stacked)).levels[1]).toMatchObject({ area: 80, low: 120 })
    const short = changeMass(withMass(base, { name: 'Tower', box: [0, 0, 8, 10], height: 0.5 }), 'Tower', {
      base: { level: 'L1', above: 1 },
    })
    expect(ledgerOf(studied(short)).levels[1]).toMatchObject({ area: 0, low: 200 })
  })
  it('at the top of a mass is none, at its foot there is one, also when the mass stands off its level', () => {
    const project = changeMass(withMass(projectWith([0, 3, 6]), { name: 'M', box: [0, 0, 10, 10], height: 3 }), 'M', {
      base: { level: 'L0', above: 3 },
    })
    expect(ledgerOf(studied(project)).levels.map((l) => l.area)).toEqual([0, 100, 0])
  })
  it('that no mass takes is found, and the remedy deletes the level', () => {
    const project = withMass(projectWith([0, 3, 9]), { box: [0, 0, 10, 10], height: 6 })
    const found = studied(project).findings.find((f) => f.kind === 'level cuts nothing')
    expect(found?.level).toBe('L2')
    expect(studied(apply(project, found?.fix?.edit(minter()) ?? { edit: 'batch', edits: [] })).findings).toEqual([])
  })
})

import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { joinMasses, moveMasses, setPitch } from '../form'
import { bodyMesh } from './index'
import { openKernel, volumeOf, type Vec2 } from '../solid'
import { apply, converted, massNamed, minter, projectWith, schemeOf, studied, withMass } from '../testing/make'

beforeAll(() => openKernel())

const outline = fc
  .array(fc.tuple(fc.integer({ min: 4, max: 14 }), fc.integer({ min: -25, max: 25 })), { minLength: 3, maxLength: 7 })
  .map((spokes) =>
    spokes.map(([r, off], i): Vec2 => {
      const a = (2 * Math.PI * (i + off / 100)) / spokes.length
      return [Math.round(r * Math.cos(a) * 100) / 100, Math.round(r * Math.sin(a) * 100) / 100]
    }),
  )
const mass = fc.record({
  points: outline,
  height: fc.integer({ min: 20, max: 120 }).map((h) => h / 10),
  pitch: fc.option(fc.tuple(fc.integer({ min: 8, max: 55 }), fc.integer({ min: 0, max: 17 })), { nil: null }),
  turn: fc.integer({ min: 0, max: 23 }),
  at: fc.tuple(fc.integer({ min: -12, max: 12 }), fc.integer({ min: -12, max: 12 })),
})

it('every form becomes a building: no face is a dead end, every part is a closed body in line with its face', () => {
  fc.assert(
    fc.property(mass, mass, fc.boolean(), (a, b, joined) => {
      let project = projectWith([0, 3, 6, 9])
      for (const [name, m] of [
        ['A', a],
        ['B', b],
      ] as const) {
        project = withMass(project, { name, points: m.points, height: m.height })
        if (m.pitch)
          project = apply(
            project,
            setPitch(schemeOf(project), massNamed(project, name), minter(`${name}pitch`), {
              angle: m.pitch[0],
              direction: m.pitch[1] * 10,
            }),
          )
        project = apply(
          project,
          moveMasses(project, schemeOf(project), [massNamed(project, name).id], m.at, m.turn * 15, [0, 0]),
        )
      }
      if (joined)
        project = apply(
          project,
          joinMasses(project, schemeOf(project), minter('j'), massNamed(project, 'A').id, massNamed(project, 'B').id),
        )
      const study = studied(converted(project, 0.4))
      expect(study.parts.length).toBeGreaterThan(3)
      for (const part of study.parts) {
        expect([part.part.name, part.bond.status, part.bond.why]).toEqual([part.part.name, 'bonded', null])
        expect([part.part.name, part.body !== null]).toEqual([part.part.name, true])
        if (!part.body) continue
        const mesh = bodyMesh(part.body)
        const volume = volumeOf({ ...mesh, facetOf: new Uint32Array(), facets: [] })
        expect(Math.abs(volume - part.volume)).toBeLessThan(1e-3)
        expect(part.volume).toBeGreaterThan(0)
        expect(part.area).toBeGreaterThan(0)
      }
      for (const floor of study.floors)
        if (floor.net !== null) {
          expect(floor.net).toBeGreaterThanOrEqual(0)
          expect(floor.net).toBeLessThan(floor.area + 1e-6)
        }
    }),
    { numRuns: 60 },
  )
})

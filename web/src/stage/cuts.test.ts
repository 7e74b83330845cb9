import fc from 'fast-check'
import { expect, it } from 'vitest'
import { cutsOf, PANES } from './cuts'
import { STAGE } from './shows'

const levels = [
  { id: 'cellar', name: 'Cellar', kind: 'storey' as const, height: -3.3, floorBuildUp: 0, slab: 0 },
  { id: 'first', name: 'First', kind: 'storey' as const, height: 4.2, floorBuildUp: 0, slab: 0 },
]
const plain = { section: null, plane: null }

it('the blade cuts 3D and plan at the Slice desk, the plan alone at others, and nothing where no level is looked at', () => {
  const view = { levels, origin: [0, 0] as [number, number] }
  const cut = (at: (typeof STAGE)[keyof typeof STAGE], level: string | null) =>
    cutsOf(PANES.both, at, view, level, plain).cuts.map((c) => c.cut)
  expect(cut(STAGE.slice, 'first')).toEqual([4.2, 4.2])
  expect(cut(STAGE.fabric, 'first')).toEqual([null, 4.2 + 1.2])
  expect(cut(STAGE.slice, null)).toEqual([null, null])
  expect(cutsOf(PANES.both, STAGE.slice, view, 'cellar', plain)).toMatchObject({ z: -3.3, buried: true })
})

it('a plane that is drawn on comes before the level; a section stays where it is in the world, whatever the origin of the view', () => {
  const of = (origin: [number, number], azimuth: number, toward: number) =>
    cutsOf(PANES.section, STAGE.form, { levels, origin }, 'first', { section: { azimuth, toward }, plane: 0 })
  expect(of([0, 0], 0, 5)).toMatchObject({ z: 0, buried: false })
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 359 }),
      fc.integer({ min: -400, max: 400 }),
      fc.tuple(fc.integer({ min: -4_000_000, max: 4_000_000 }), fc.integer({ min: -4_000_000, max: 4_000_000 })),
      (azimuth, toward, origin) => {
        const [here, there] = [of([0, 0], azimuth, toward), of(origin, azimuth, toward)].map((c) => c.cuts[0]?.upright)
        const a = (azimuth * Math.PI) / 180
        const along = origin[0] * Math.cos(a) + origin[1] * Math.sin(a)
        expect((here?.toward ?? 0) - (there?.toward ?? 0)).toBeCloseTo(along, 3)
      },
    ),
  )
})

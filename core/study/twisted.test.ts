import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { applyEdit } from '../edits'
import { changeRecipe, newMass } from '../form'
import { addStoreys, levelHeights, moveLevel } from '../levels'
import { blankProject, inOrder, Refusal, type Project } from '../project'
import { plateOf } from '../slice'
import { gapOf, openKernel } from '../solid'
import { firstScheme, StudyCache, studyScheme } from './index'

beforeAll(async () => {
  await openKernel()
})

/** A twisted tower of eight storeys and a box that touches it, turned by an odd angle, at a place. */
function tower(at: [number, number], turn: number, angle: number): Project {
  const mint = () => crypto.randomUUID()
  let p = blankProject(mint, 'Quay', 'm', null)
  const s = () => firstScheme(p)
  const ground = Object.keys(s().levels)[0] ?? ''
  const storeys = { on: ground, count: 7, each: 3.3, pattern: 'Storey {n}', first: 1 }
  p = applyEdit(p, addStoreys(p, s(), mint, storeys, 'held')).project
  for (const [name, x, w, height] of [
    ['Twist', 0, 14, 26.4],
    ['Box', 14, 6, 9.9],
  ] as const) {
    const thing = newMass(s(), mint, {
      name,
      use: inOrder(p.uses)[0]?.id ?? '',
      level: ground,
      height,
      shape: { kind: 'rectangle', from: [at[0] + x, at[1]], to: [at[0] + x + w, at[1] + 11] },
    })
    p = applyEdit(p, { edit: 'mass.add', scheme: s().id, thing: { ...thing, place: { ...thing.place, turn } } }).project
    const mass = s().masses[thing.id]
    if (name === 'Twist' && mass)
      p = applyEdit(
        p,
        changeRecipe(s(), mass, (r) => [...r, { id: 'twist', move: 'twist', on: true, angle, from: 0, to: null }]),
      ).project
  }
  return p
}

it('a twisted tower whose levels move is what a study from nothing says, wherever and however it stands', () => {
  fc.assert(
    fc.property(
      fc.constantFrom<[number, number]>([0, 0], [3.7, -12.4], [456_789.12, 5_432_109.87]),
      fc.constantFrom(0, 17.3, 122.9),
      fc.constantFrom(90, -33.7),
      fc.array(fc.tuple(fc.nat(6), fc.integer({ min: 1, max: 80 }), fc.boolean()), { minLength: 3, maxLength: 5 }),
      (at, turn, angle, moves) => {
        let project = tower(at, turn, angle)
        const cache = new StudyCache()
        const id = firstScheme(project).id
        studyScheme(project, id, cache)
        for (const [i, tenths, held] of moves) {
          const levels = levelHeights(project, firstScheme(project))
          const level = levels[i + 1]
          if (!level) continue
          try {
            const to = level.height - 2 + tenths / 20
            const edit = moveLevel(project, firstScheme(project), level.id, to, held ? 'held' : 'carried')
            project = applyEdit(project, edit).project
          } catch (e) {
            if (!(e instanceof Refusal)) throw e
          }
          const [warm, cold] = [studyScheme(project, id, cache), studyScheme(project, id)]
          expect(warm.totals).toEqual(cold.totals)
          // And each cut is the cut of the body as it is now, made by itself.
          for (const floor of warm.floors)
            for (const plate of floor.plates) {
              const form = warm.forms.find((f) => f.id === plate.mass)
              const cut = form && plateOf(form, floor.level.height)
              const off = plate.region
                .flat()
                .map((p) => Math.min(...(cut?.region.flat() ?? []).map((q) => gapOf(p, q))))
              expect(Math.max(...off)).toBeLessThan(1e-6)
            }
          expect(warm.floors.map((f) => [f.area, f.low, f.perimeter])).toEqual(
            cold.floors.map((f) => [f.area, f.low, f.perimeter]),
          )
        }
      },
    ),
    { numRuns: 12 },
  )
})

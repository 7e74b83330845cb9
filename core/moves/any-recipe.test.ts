import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { blankProject, numbersOf, Refusal } from '../project'
import { byPlates } from '../testing/recipes'
import { facesOf, isWhole, openKernel, rawName, volumeOf, type Vec3 } from '../solid'
import { buildRecipe, checkRecipe, placeFor, type Move, type OutlineShape } from './index'

beforeAll(() => openKernel())

/** What must hold of any recipe, whatever moves it has and wherever they fit. */
let n = 0
const numbers = {
  ...numbersOf(
    blankProject(() => `m${++n}`, 'T', 'm', null),
    null,
  ),
  base: 0,
  heights: new Map([['L1', 4.5]]),
}
const dm = (min: number, max: number) => fc.integer({ min, max }).map((v) => v / 10)
const shape: fc.Arbitrary<OutlineShape> = fc.oneof(
  fc.record({ kind: fc.constant('rectangle' as const), width: dm(60, 300), depth: dm(60, 200) }),
  fc
    .record({ form: fc.constantFrom('L', 'T', 'U', 'H', 'cross'), width: dm(120, 300), depth: dm(120, 200) })
    .map((s) => ({ kind: 'footprint' as const, ...s, a: 4.3, b: 4.1 })) as fc.Arbitrary<OutlineShape>,
  fc.record({
    kind: fc.constant('regular' as const),
    sides: fc.integer({ min: 3, max: 9 }),
    by: fc.constant('corners' as const),
    size: dm(50, 120),
  }),
  fc.record({ kind: fc.constant('circle' as const), radius: dm(40, 120) }),
)
const span = fc.oneof(
  { weight: 3, arbitrary: fc.constant(undefined) },
  { weight: 1, arbitrary: fc.constant({ of: 'storeys', levels: ['L1'] }) },
  {
    weight: 1,
    arbitrary: fc.record({
      of: fc.constant('heights'),
      from: dm(-10, 50),
      fromLevel: fc.constant(null),
      to: fc.option(dm(52, 80)),
      toLevel: fc.constant(null),
    }),
  },
)
const further: fc.Arbitrary<Move> = fc.oneof(
  fc.record({ move: fc.constant('inset'), by: dm(-15, 10) }),
  fc.record({ move: fc.constant('scale'), by: dm(7, 14) }),
  fc.record({
    move: fc.constant('pitch'),
    angle: fc.integer({ min: 10, max: 50 }),
    direction: fc.integer({ min: 0, max: 179 }),
  }),
  fc.record({
    move: fc.constant('cut'),
    x: dm(0, 100),
    y: dm(0, 60),
    z: dm(10, 80),
    direction: fc.integer({ min: 0, max: 359 }),
    rises: fc.integer({ min: -60, max: 90 }),
    keeps: fc.constantFrom('below', 'above'),
    span,
  }),
  fc.record({
    move: fc.constant('pull'),
    side: fc.constantFrom('south', 'east', 'e1', 'e2', 'e3', 'round'),
    by: dm(-12, 15),
    from: dm(0, 50),
    fromLevel: fc.constant(null),
    to: fc.option(dm(55, 70)),
    toLevel: fc.constant(null),
    span,
  }),
  fc.record({
    move: fc.constant('step-back'),
    side: fc.constantFrom(null, 'north', 'e1', 'e2'),
    by: dm(2, 15),
    from: dm(20, 60),
    level: fc.constantFrom(null, { level: 'L1', above: 0 }),
    span,
  }),
  fc.record({
    move: fc.constant('shift-face'),
    face: fc.constantFrom('r/top', 'r/south', 'r/e1', 'r/e2'),
    out: dm(-12, 15),
    along: fc.constantFrom(0, 0, 1.1),
    up: fc.constantFrom(0, 0, -0.7),
  }),
  fc.record({
    move: fc.constant('split'),
    face: fc.constantFrom('r/top', 'r/south', 'r/e1', 'r/e2'),
    along: dm(5, 80),
    up: dm(5, 40),
    direction: fc.integer({ min: 0, max: 179 }),
  }),
  fc.record({
    move: fc.constant('shift-corner'),
    a: fc.constantFrom('r/top', 'r/south'),
    b: fc.constantFrom('r/e1', 'r/e2', 'r/east'),
    c: fc.constantFrom(null, 'r/e3', 'r/south'),
    x: dm(-12, 15),
    y: dm(-12, 15),
    z: dm(-12, 15),
  }),
  fc.record({ move: fc.constant('taper'), by: fc.record({ kind: fc.constant('scale'), scale: dm(5, 13) }), span }),
  fc.record({
    move: fc.constant('twist'),
    angle: fc.integer({ min: -60, max: 60 }),
    from: fc.constant(0),
    to: fc.constant(null),
    span,
  }),
  fc.record({
    move: fc.constantFrom('lean', 'bend'),
    by: fc.integer({ min: 1, max: 30 }),
    towards: fc.integer({ min: 0, max: 359 }),
    span,
  }),
  fc.record({
    move: fc.constant('hip'),
    angle: fc.integer({ min: 15, max: 60 }),
    edges: fc.constantFrom([], [{ id: 'g', side: 'e1', rises: 'gable', angle: 45 }]),
    breaks: fc.option(dm(5, 20)),
    upper: fc.integer({ min: 10, max: 40 }),
  }),
  fc.record({
    move: fc.constant('slope'),
    side: fc.constantFrom('e1', 'south'),
    angle: fc.integer({ min: 2, max: 20 }),
  }),
  fc.record({ move: fc.constant('upstand'), height: dm(5, 15), thick: dm(1, 4) }),
) as unknown as fc.Arbitrary<Move>

/** A recipe of moves wherever they fit, without those that are refused. */
function recipeOf(outline: OutlineShape, height: number, moves: readonly Move[]): Move[] {
  let recipe: Move[] = [
    { id: 'o', move: 'outline', on: true, shape: outline, holes: [] },
    { id: 'r', move: 'raise', on: true, height, upTo: null },
  ]
  for (const [i, move] of moves.entries()) {
    const made = { ...move, id: `x${i}`, on: true } as Move
    const at = placeFor(recipe, made)
    if (at === null) continue
    const next = [...recipe.slice(0, at), made, ...recipe.slice(at)]
    try {
      checkRecipe(next, 'M', numbers)
      recipe = next
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
    }
  }
  return recipe
}

describe('any recipe', () => {
  it('makes a closed body whose plates add up to its volume, or says of each move that it leaves out why', () => {
    fc.assert(
      fc.property(shape, dm(60, 120), fc.array(further, { maxLength: 5 }), (outline, height, moves) => {
        const recipe = recipeOf(outline, height, moves)
        const { solid, leftOut } = buildRecipe(recipe, numbers, 'M')
        for (const l of leftOut) expect(`${l.say} ${l.remedy}`).toMatch(/^\S.*\. \S.*\.$/)
        expect(isWhole(solid)).toBe(true)
        const volume = volumeOf(solid)
        expect(volume).toBeGreaterThan(0)
        // Within the last digits where all is flat; cuts between the rows of what is bent are off by a hair. A chip has neither.
        const isFlat = solid.facets.every((f) => !f.surface)
        if (volume > 0.01) expect(byPlates(solid) / volume).toBeCloseTo(1, isFlat ? 6 : 4)
        // And it is the same when it is built from nothing.
        expect(buildRecipe(structuredClone(recipe), numbers, 'M').solid.positions).toEqual(solid.positions)
      }),
      { numRuns: Number(process.env.RUNS ?? 40) },
    )
  })
  it('keeps the names of its faces when a size of it is changed a little', () => {
    let [same, kept] = [0, 0]
    const middle = (loops: { points: Vec3[] }[]): Vec3 => {
      const all = loops.flatMap((l) => l.points)
      return [0, 1, 2].map((k) => all.reduce((sum, p) => sum + (p[k] as number), 0) / all.length) as Vec3
    }
    fc.assert(
      fc.property(
        shape,
        dm(60, 120),
        fc.array(further, { maxLength: 4 }),
        fc.integer({ min: 1, max: 5 }),
        (outline, height, moves, cm) => {
          const before = recipeOf(outline, height, moves)
          const after = before.map((m) => (m.move === 'raise' ? { ...m, height: height + cm / 100 } : m))
          try {
            checkRecipe(after, 'M', numbers)
          } catch {
            return
          }
          const [a, b] = [before, after].map((r) => buildRecipe(r, numbers, 'M'))
          if (!a || !b || a.leftOut.length !== b.leftOut.length) return
          const there = facesOf(b.solid)
          for (const face of facesOf(a.solid)) {
            const at = middle(face.loops)
            const like = there.filter((f) => {
              const to = middle(f.loops)
              return (
                rawName(f.name) === rawName(face.name) && Math.hypot(at[0] - to[0], at[1] - to[1], at[2] - to[2]) < 0.1
              )
            })
            if (like.length === 0) continue
            same++
            if (like.some((f) => f.name === face.name)) kept++
          }
        },
      ),
      { numRuns: Number(process.env.RUNS ?? 40) },
    )
    expect(same).toBeGreaterThan(100)
    expect(kept / same).toBeGreaterThan(0.99)
  })
})

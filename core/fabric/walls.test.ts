import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { joinMasses } from '../form'
import type { Project } from '../project'
import { areaOf, intersectRegions, openKernel, uniteRegions, type Vec2 } from '../solid'
import {
  apply,
  changeMass,
  choicesOf,
  converted,
  massNamed,
  minter,
  projectWith,
  schemeOf,
  studied,
  withMass,
} from '../testing/make'
import { addParts, bodyMesh, partsFrom, propose } from './index'

beforeAll(() => openKernel())

const wallsOf = (project: Project, level = 'L0') =>
  studied(project).parts.filter((p) => p.role === 'wall' && p.part.base?.level === level)
const overlapping = (regions: Vec2[][][]) =>
  regions.reduce((sum, r) => sum + areaOf(r), 0) - areaOf(uniteRegions(regions))

describe('walls of a storey', () => {
  const corners = fc
    .array(fc.tuple(fc.integer({ min: 5, max: 12 }), fc.double({ min: -0.3, max: 0.3, noNaN: true })), {
      minLength: 4,
      maxLength: 8,
    })
    .map((spokes) =>
      spokes.map(([r, off], i): Vec2 => {
        const a = (2 * Math.PI * (i + off)) / spokes.length
        return [r * Math.cos(a), r * Math.sin(a)].map((c) => Math.round(c * 1000) / 1000) as Vec2
      }),
    )
  it('meet in mitres: together with the net floor they are the gross floor, and no two of them share a spot', () => {
    fc.assert(
      fc.property(corners, (points) => {
        const project = converted(withMass(projectWith([0]), { name: 'M', points, height: 3 }))
        const study = studied(project)
        const walls = study.parts.filter((p) => p.role === 'wall')
        const gross = study.floors[0]?.area ?? 0
        // Corners sharper than 45 degrees run their mitre past the neighbour: they are not what this is about.
        const sharp = points.some((p, i) => {
          const [a, b] = [points.at(i - 1) as Vec2, points[(i + 1) % points.length] as Vec2]
          const [u, w] = [
            [a[0] - p[0], a[1] - p[1]],
            [b[0] - p[0], b[1] - p[1]],
          ] as [Vec2, Vec2]
          return (u[0] * w[0] + u[1] * w[1]) / Math.hypot(...u) / Math.hypot(...w) > 0.7
        })
        fc.pre(!sharp)
        expect(walls).toHaveLength(points.length)
        expect(overlapping(walls.map((w) => w.plan))).toBeLessThan(1e-3)
        expect(walls.reduce((sum, w) => sum + areaOf(w.plan), 0) + (study.floors[0]?.net ?? 0)).toBeCloseTo(gross, 3)
      }),
      {
        numRuns: 80,
        examples: [
          [
            [
              [5, 0],
              [3.117, 3.909],
              [-1.113, 4.875],
              [-8.109, 3.905],
              [-8.109, -3.905],
              [-1.113, -4.875],
              [3.117, -3.909],
            ],
          ],
        ],
      },
    )
  })
  const ell: Vec2[] = [
    [0, 0],
    [20, 0],
    [20, 8],
    [8, 8],
    [8, 20],
    [0, 20],
  ]
  it('turn an inner corner as cleanly as an outer one: an L of 8 wide arms', () => {
    const project = converted(withMass(projectWith([0, 3]), { name: 'L', points: ell, height: 6 }))
    expect(wallsOf(project)).toHaveLength(6)
    const inner = 256 - (20 - 0.56) * (8 - 0.56) - (8 - 0.56) * 12
    expect(wallsOf(project).reduce((s, w) => s + areaOf(w.plan), 0)).toBeCloseTo(inner, 6)
    expect(studied(project).floors[0]?.net).toBeCloseTo(256 - inner, 6)
  })
  it('are the same whichever way round the outline was drawn', () => {
    const [one, other] = [ell, [...ell].reverse()].map((points) =>
      wallsOf(converted(withMass(projectWith([0]), { name: 'L', points, height: 3 })))
        .map((w) => w.volume.toFixed(6))
        .sort(),
    )
    expect(other).toEqual(one)
  })
  it('lie outside the face when told so, and the floor keeps its area', () => {
    const base = withMass(projectWith([0]), { name: 'Box', box: [0, 0, 10, 6], height: 3 })
    const { context } = studied(base)
    const project = apply(
      base,
      addParts(
        context,
        partsFrom(context, minter('p'), propose(context).candidates, { ...choicesOf(base), wallSide: 'outside' }),
      ),
    )
    const study = studied(project)
    expect(study.parts.filter((p) => p.role === 'wall').reduce((s, w) => s + areaOf(w.plan), 0)).toBeCloseTo(
      10.56 * 6.56 - 60,
      6,
    )
    expect(study.floors[0]?.net).toBeCloseTo(60, 6)
  })
  it('of a hall with a gable are closed bodies as large as their faces are wide', () => {
    const base = withMass(projectWith([0]), { name: 'Hall', box: [0, 0, 8, 12], height: 4 })
    const mass = massNamed(base, 'Hall')
    const project = converted(
      changeMass(base, 'Hall', {
        recipe: [...mass.recipe, { id: 'pitch', move: 'pitch', on: true, angle: 40, direction: 90 }],
      }),
    )
    const gables = studied(project).parts.filter((p) => p.role === 'wall' && p.body?.kind === 'mesh')
    expect(gables).toHaveLength(2)
    const area = 8 * 4 + (8 * Math.tan((40 * Math.PI) / 180) * 4) / 2
    for (const g of gables) {
      expect(g.area).toBeCloseTo(area, 6)
      // The mitre takes half a thickness squared off each upright end, up to the eaves.
      expect(g.volume).toBeCloseTo(area * 0.28 - 0.28 * 0.28 * 4 - (0.28 ** 3 * Math.tan((40 * Math.PI) / 180)) / 3, 3)
    }
  })
})

describe('joined masses', () => {
  const two = (order: 'ab' | 'ba') => {
    let project = withMass(projectWith([0, 3]), { name: 'A', box: [0, 0, 20, 10], height: 6 })
    project = withMass(project, { name: 'B', box: [12, 4, 14, 12], height: 3 })
    const [a, b] = order === 'ab' ? ['A', 'B'] : ['B', 'A']
    return apply(
      project,
      joinMasses(project, schemeOf(project), minter('j'), massNamed(project, a).id, massNamed(project, b).id),
    )
  }
  it('give the same walls whichever was picked first: none stands inside', () => {
    const facts = (['ab', 'ba'] as const).map((order) => {
      const built = converted(two(order))
      return {
        below: wallsOf(built)
          .map((w) => w.area.toFixed(4))
          .sort(),
        above: wallsOf(built, 'L1')
          .map((w) => w.area.toFixed(4))
          .sort(),
        floors: studied(built).floors.map((f) => [f.area.toFixed(4), f.net?.toFixed(4)]),
      }
    })
    expect(facts[0]).toEqual(facts[1])
    expect(facts[0]?.below).toHaveLength(8)
    expect(facts[0]?.above).toHaveLength(4)
    expect(facts[0]?.floors[0]?.[0]).toBe((200 + 168 - 8 * 6).toFixed(4))
  })
  it('keep the flat roof of the lower part clear of the higher one', () => {
    const roofs = studied(converted(two('ab')))
      .parts.filter((p) => p.role === 'flat roof')
      .map((p) => p.area.toFixed(2))
      .sort()
    expect(roofs).toEqual(['120.00', '200.00'])
  })
})

it('every part is a closed body inside or on the form, and parts of one kind never share a spot', () => {
  const project = converted(
    withMass(
      withMass(projectWith([0, 3, 6]), {
        name: 'A',
        points: [
          [0, 0],
          [18, 2],
          [16, 14],
          [3, 12],
        ],
        height: 9,
      }),
      { name: 'B', box: [30, 0, 6, 6], height: 6 },
    ),
  )
  const study = studied(project)
  for (const part of study.parts) {
    const mesh = part.body ? bodyMesh(part.body) : null
    const edges = new Map<string, number>()
    for (let t = 0; t < (mesh?.triangles.length ?? 0); t += 3)
      for (let k = 0; k < 3; k++) {
        const [a, b] = [mesh?.triangles[t + k] ?? 0, mesh?.triangles[t + ((k + 1) % 3)] ?? 0]
        edges.set(
          `${Math.min(a, b)},${Math.max(a, b)}`,
          (edges.get(`${Math.min(a, b)},${Math.max(a, b)}`) ?? 0) + (a < b ? 1 : -1),
        )
      }
    expect([...edges.values()].every((n) => n === 0)).toBe(true)
    expect(part.volume).toBeGreaterThan(0)
  }
  const walls = study.parts.filter((p) => p.role === 'wall' && p.part.base?.level === 'L1')
  for (const a of walls)
    for (const b of walls) if (a.id < b.id) expect(areaOf(intersectRegions(a.plan, b.plan))).toBeLessThan(1e-3)
})

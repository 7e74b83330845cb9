import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { changeRecipe } from '../form'
import type { Move } from '../moves'
import type { Project } from '../project'
import { areaOf, bodyFault, openKernel } from '../solid'
import {
  apply,
  converted,
  massNamed,
  minter,
  projectWith,
  schemeOf,
  studied,
  withMass,
  withMoves,
} from '../testing/make'
import { bodyMesh, bringInLine, propose, USUAL, faceKey } from './index'

beforeAll(() => openKernel())

const twist = (angle: number): Move => ({ id: 'tw', move: 'twist', on: true, angle, from: 0, to: null })
const taper = (scale: number): Move => ({ id: 'ta', move: 'taper', on: true, by: { kind: 'scale', scale } })
const wallsOf = (project: Project, level = 'L0') =>
  studied(project).parts.filter((p) => p.part.kind === 'wall' && p.part.base?.level === level)
const T = 0.28

describe('leaning faces become sloping walls', () => {
  const tapered = () =>
    withMoves(withMass(projectWith([0, 3, 6]), { box: [0, 0, 12, 9], height: 9, name: 'A' }), 'A', taper(0.8))
  it('whose storey is the outer form less the inner one, mitred at its corners', () => {
    const walls = wallsOf(converted(tapered()))
    expect(walls.map((w) => w.role)).toEqual(['sloping wall', 'sloping wall', 'sloping wall', 'sloping wall'])
    // From the floor to under the slab of 0.30: the level cut of the outer form less that of the inner, by Simpson's rule.
    const cut = (z: number) => {
      const k = 1 - (0.2 * z) / 9
      const [w, d] = [12 * k, 9 * k]
      const [tx, ty] = [T * Math.hypot(1, (0.2 * 6) / 9), T * Math.hypot(1, (0.2 * 4.5) / 9)]
      return w * d - (w - 2 * tx) * (d - 2 * ty)
    }
    expect(walls.reduce((s, w) => s + w.volume, 0)).toBeCloseTo((2.7 / 6) * (cut(0) + 4 * cut(1.35) + cut(2.7)), 3)
  })
  it('may be overruled: left out, or taken as a roof', () => {
    const project = tapered()
    const { context } = studied(project)
    const mass = massNamed(project, 'A').id
    const [first, second] = propose(context).faces.filter((f) => f.slope === 'leaning')
    const found = propose(context, undefined, {
      ...USUAL,
      overrule: { [faceKey(mass, first?.face ?? '')]: 'nothing', [faceKey(mass, second?.face ?? '')]: 'roof' },
    })
    expect(found.candidates.filter((c) => c.role === 'sloping wall')).toHaveLength(6)
    expect(found.candidates.filter((c) => c.role === 'pitched roof')).toHaveLength(1)
    expect(found.leftOut.map((l) => l.why)).toContain('was left out on purpose')
  })
  it('by an overhanging form become soffit slabs where they look down', () => {
    const project = converted(
      withMoves(withMass(projectWith([0]), { box: [0, 0, 6, 6], height: 3, name: 'A' }), 'A', taper(2.5)),
    )
    const soffits = studied(project).parts.filter((p) => p.role === 'soffit slab')
    expect(soffits).toHaveLength(4)
    for (const s of soffits) {
      expect(s.body && bodyFault(bodyMesh(s.body))).toBeNull()
      expect(s.volume).toBeCloseTo(s.area * 0.3, 6)
    }
  })
})

describe('twisted faces', () => {
  const tower = (angle = 40) =>
    withMoves(withMass(projectWith([0, 3, 6, 9]), { box: [0, 0, 12, 12], height: 12, name: 'T' }), 'T', twist(angle))
  it('become upright walls storey by storey, and it is said how far they are off', () => {
    const { candidates, faces } = propose(studied(tower()).context)
    const walls = candidates.filter((c) => c.part.kind === 'wall')
    expect(walls).toHaveLength(16)
    // The corners lie 8.485 m from the axis at 45 degrees, and turn by a quarter of 40 within the storey.
    expect(Math.max(...walls.map((w) => w.off ?? 0))).toBeCloseTo(6 - 8.485281 * Math.cos((55 * Math.PI) / 180), 3)
    expect(faces.filter((f) => f.bent).map((f) => f.as)).toEqual([
      'upright walls',
      'upright walls',
      'upright walls',
      'upright walls',
    ])
    const made = wallsOf(converted(tower()), 'L1')
    expect(areaOf(made.flatMap((w) => w.plan))).toBeCloseTo(12 * 12 - (12 - 2 * T) ** 2, 5)
  })
  it('or facets, which lie nearer, are closed, and meet at their corners', () => {
    const by = (bent: 'facets' | 'upright walls') =>
      propose(studied(tower()).context, undefined, { ...USUAL, bent }).candidates.reduce(
        (most, c) => Math.max(most, c.off ?? 0),
        0,
      )
    expect(by('facets')).toBeLessThan(by('upright walls') / 2)
    const walls = wallsOf(converted(tower(), 0, minter('f'), { bent: 'facets' }), 'L1')
    expect(walls.map((w) => w.role)).toEqual(['facet wall', 'facet wall', 'facet wall', 'facet wall'])
    for (const w of walls) {
      expect(w.body && bodyFault(bodyMesh(w.body))?.fault).not.toBe('open')
      expect(w.volume).toBeGreaterThan(0)
    }
  })
  it('of a cone become round walls storey by storey', () => {
    const cone = withMoves(withMass(projectWith([0, 3]), { circle: [0, 0, 9], height: 6, name: 'C' }), 'C', taper(0.8))
    const walls = wallsOf(converted(cone), 'L1')
    expect(walls.map((w) => w.role)).toEqual(['curved wall'])
    expect(areaOf(walls[0]?.plan ?? [])).toBeCloseTo(Math.PI * (8.1 ** 2 - (8.1 - T) ** 2), 4)
  })
  it('of a cone that twists can be facets too, all round and closed', () => {
    const cone = withMoves(
      withMass(projectWith([0, 3]), { circle: [0, 0, 9], height: 6, name: 'C' }),
      'C',
      taper(0.8),
      twist(30),
    )
    const walls = wallsOf(converted(cone, 0, minter('f'), { bent: 'facets' }), 'L1')
    expect(walls.map((w) => w.role)).toEqual(['facet wall'])
    for (const w of walls) {
      expect(w.body && bodyFault(bodyMesh(w.body))?.fault).not.toBe('open')
      expect(w.volume).toBeCloseTo(T * 3 * 2 * Math.PI * (7.65 - T / 2), 0)
    }
  })
  it('come of flat ones that are twisted afterwards: the walls that stood there are brought in line as upright ones', () => {
    const plain = converted(withMass(projectWith([0, 3, 6, 9]), { box: [0, 0, 12, 12], height: 12, name: 'T' }))
    const twisted = withMoves(plain, 'T', twist(40))
    const study = studied(twisted)
    expect(study.parts.filter((p) => p.bond.status === 'drifted').length).toBeGreaterThan(17)
    const after = studied(apply(twisted, bringInLine(study.context, study.parts)))
    expect(after.parts.filter((p) => p.bond.status !== 'bonded').map((p) => [p.part.name, p.bond.why])).toEqual([])
    expect(after.parts.map((p) => p.part.name)).toEqual(study.parts.map((p) => p.part.name))
    expect(
      areaOf(after.parts.filter((p) => p.part.kind === 'wall' && p.part.base?.level === 'L2').flatMap((w) => w.plan)),
    ).toBeCloseTo(144 - (12 - 2 * T) ** 2, 5)
  })
  it('move with their levels and do not drift; twisted further they do, and come in line', () => {
    const project = converted(tower())
    const moved = apply(project, {
      edit: 'level.change',
      scheme: schemeOf(project).id,
      id: 'L1',
      set: { tie: { kind: 'stacked', on: 'L0', above: 3.4 } },
    })
    expect(
      studied(moved)
        .parts.filter((p) => p.bond.status !== 'bonded')
        .map((p) => p.part.name),
    ).toEqual([])
    const further = apply(
      project,
      changeRecipe(schemeOf(project), massNamed(project, 'T'), (r) =>
        r.map((m) => (m.move === 'twist' ? { ...m, angle: 45 } : m)),
      ),
    )
    const study = studied(further)
    expect(
      study.parts
        .filter((p) => p.part.kind === 'wall' && p.part.base?.level !== 'L0')
        .every((p) => p.bond.status === 'drifted'),
    ).toBe(true)
    const straight = studied(apply(further, bringInLine(study.context, study.parts)))
    expect(straight.parts.every((p) => p.bond.status === 'bonded')).toBe(true)
    expect(
      areaOf(
        straight.parts.filter((p) => p.part.kind === 'wall' && p.part.base?.level === 'L2').flatMap((w) => w.plan),
      ),
    ).toBeCloseTo(144 - (12 - 2 * T) ** 2, 5)
  })
})

describe('round walls join straight ones', () => {
  it('on their true lines: ring and corners together are the outline less the inner outline', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 10, max: 100 }).map((n) => n / 100),
        (bulge) => {
          const project = converted(
            withMass(projectWith([0, 3]), {
              points: [
                [0, 0],
                [12, 0],
                [12, 8],
                [0, 8],
              ],
              bulges: [0, bulge, 0, 0],
              height: 6,
              name: 'A',
            }),
          )
          const walls = wallsOf(project)
          expect(walls.map((w) => w.role).sort()).toEqual(['curved wall', 'wall', 'wall', 'wall'])
          const floor = studied(project).floors[0]
          // The wall's plan is what the net area lacks: nothing overlaps, nothing is left open.
          expect(areaOf(walls.flatMap((w) => w.plan))).toBeCloseTo((floor?.area ?? 0) - (floor?.net ?? 0), 2)
          for (const w of walls) expect(w.volume).toBeCloseTo(areaOf(w.plan) * 2.7, 6)
        },
      ),
      { numRuns: 12 },
    )
  })
  it('and are cut by a roof above them as one closed body', () => {
    const points: [number, number][] = [
      [0, 0],
      [12, 0],
      [12, 8],
      [0, 8],
    ]
    const plain = withMass(projectWith([0]), { points, bulges: [0, 1, 0, 0], height: 3, name: 'A' })
    const project = converted(withMoves(plain, 'A', { id: 'p', move: 'pitch', on: true, angle: 30, direction: 0 }))
    const curved = studied(project).parts.filter((p) => p.role === 'curved wall')
    expect(curved).toHaveLength(1)
    const [wall] = curved
    expect(wall?.body?.kind).toBe('mesh')
    expect(wall?.body && bodyFault(bodyMesh(wall.body))?.fault).not.toBe('open')
    expect(wall?.volume).toBeGreaterThan(areaOf(wall?.plan ?? []) * 3 * 0.99)
  })
})

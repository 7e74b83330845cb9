import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { joinMasses } from '../form'
import type { Project } from '../project'
import { bodyFault, loopArea, openKernel, type Vec2 } from '../solid'
import {
  apply,
  converted,
  massNamed,
  minter,
  projectWith,
  schemeOf,
  studied,
  thick,
  withMass,
  withMoves,
} from '../testing/make'
import { cutByLine, rect, turned } from '../testing/plans'

beforeAll(() => openKernel())

const joined = (project: Project, a: string, b: string) =>
  apply(
    project,
    joinMasses(project, schemeOf(project), minter(`join${b}`), massNamed(project, a).id, massNamed(project, b).id),
  )

describe('what touches is one, at any angle', () => {
  it.each([0, 60.6, 17.3, 211.7])(
    'a wing joined to a bar, turned by %d degrees, has no wall in the joint',
    (degrees) => {
      let project = thick(projectWith([0, 3]), { wall: 0.3 })
      project = withMass(project, { name: 'Bar', height: 3, points: turned(rect(0, 0, 11.93, 15.66), degrees) })
      project = withMass(project, { name: 'Wing', height: 3, points: turned(rect(11.93, 6.52, 6.98, 5.53), degrees) })
      const study = studied(converted(joined(project, 'Bar', 'Wing')))
      expect(study.floors[0]?.perimeter).toBeCloseTo(69.14, 6)
      expect(study.floors[0]?.net).toBeCloseTo(205.041, 3)
      expect(study.parts.filter((p) => p.role === 'wall')).toHaveLength(8)
    },
  )
  it('two masses that are not joined have the outline of both', () => {
    let project = withMass(projectWith([0, 3]), { height: 3, points: turned(rect(0, 0, 9.25, 21.45), 17.3) })
    project = withMass(project, { height: 3, points: turned(rect(9.25, 4.1, 6.38, 6.49), 17.3) })
    expect(studied(project).floors[0]?.perimeter).toBeCloseTo(74.16, 6)
  })
  it('a gap of more than the tolerance stays a gap', () => {
    let project = withMass(projectWith([0, 3]), { height: 3, points: turned(rect(0, 0, 10, 10), 33) })
    project = withMass(project, { height: 3, points: turned(rect(10.001, 0, 10, 10), 33) })
    expect(studied(project).floors[0]?.perimeter).toBeCloseTo(80, 6)
  })
  it("a plan cut into pieces by random lines, turned by a random angle, has the plan's area, perimeter, walls and net", () => {
    const dice = fc.record({
      width: fc.double({ min: 8, max: 30, noNaN: true }),
      depth: fc.double({ min: 8, max: 30, noNaN: true }),
      turn: fc.double({ min: 0, max: 360, noNaN: true }),
      at: fc.tuple(fc.integer({ min: -500, max: 500 }), fc.integer({ min: -500, max: 500 })),
      cuts: fc.array(
        fc.tuple(
          fc.double({ min: 0.3, max: 0.7, noNaN: true }),
          fc.double({ min: 0.3, max: 0.7, noNaN: true }),
          fc.double({ min: 0, max: 180, noNaN: true }),
        ),
        { minLength: 1, maxLength: 2 },
      ),
    })
    fc.assert(
      fc.property(dice, ({ width, depth, turn, at, cuts }) => {
        let pieces = [rect(0, 0, width, depth)]
        for (const [u, v, angle] of cuts)
          pieces = pieces
            .flatMap((p) => cutByLine(p, [u * width, v * depth], angle))
            .filter((p) => p.length >= 3 && Math.abs(loopArea(p)) > 1e-9)
        // A piece of a few centimetres is thinner than its walls: what becomes of those is another matter.
        fc.pre(
          pieces.every(
            (p) =>
              loopArea(p) > 0.5 &&
              p.every((a, i) => {
                const b = p[(i + 1) % p.length] as Vec2
                return Math.hypot(a[0] - b[0], a[1] - b[1]) > 1
              }),
          ),
        )
        let project = thick(projectWith([0, 3]), { wall: 0.3 })
        pieces.forEach((points, i) => {
          project = withMass(project, { name: `P${i}`, height: 3, points: turned(points, turn, at) })
        })
        const [apart] = studied(project).floors
        expect(apart?.area).toBeCloseTo(width * depth, 4)
        expect(apart?.perimeter).toBeCloseTo(2 * (width + depth), 4)
        pieces.slice(1).forEach((_, i) => {
          project = joined(project, 'P0', `P${i + 1}`)
        })
        const study = studied(converted(project))
        expect(study.findings.filter((f) => f.kind !== 'level cuts nothing')).toEqual([])
        expect(bodyFault((study.forms[0] as (typeof study.forms)[0]).body.solid, 'edges')).toBeNull()
        expect(study.floors[0]?.area).toBeCloseTo(width * depth, 4)
        expect(study.floors[0]?.perimeter).toBeCloseTo(2 * (width + depth), 4)
        expect(study.floors[0]?.net).toBeCloseTo((width - 0.6) * (depth - 0.6), 4)
        expect(study.parts.filter((p) => p.role === 'wall').reduce((sum, w) => sum + w.area, 0)).toBeCloseTo(
          6 * (width + depth),
          3,
        )
      }),
      { numRuns: 60 },
    )
  })
})

describe('bodies are closed, or said not to be', () => {
  it('a twisted triangle counts a box within it once', () => {
    const twisted = withMoves(
      withMass(projectWith([0, 3.1, 6.2]), {
        name: 'Tower',
        height: 7.69,
        points: [
          [11.814, 0],
          [-4.305, 7.456],
          [-4.347, -7.528],
        ],
      }),
      'Tower',
      { id: 'twist', move: 'twist', on: true, angle: 23.1, from: 0, to: null },
    )
    const volume = studied(twisted).totals.volume
    expect(volume).toBeCloseTo(929.876, 3)
    expect(studied(withMass(twisted, { height: 3, box: [-1, -1, 2, 2] })).totals.volume).toBeCloseTo(volume, 6)
  })
  it('any four-sided outline, twisted and tapered, gives a closed body', () => {
    const corner = fc.tuple(fc.double({ min: 0, max: 0.8, noNaN: true }), fc.double({ min: 3, max: 15, noNaN: true }))
    fc.assert(
      fc.property(
        fc.tuple(corner, corner, corner, corner),
        fc.double({ min: -180, max: 180, noNaN: true }),
        fc.double({ min: 0, max: 1.5, noNaN: true }),
        (corners, angle, scale) => {
          const points = corners.map(([turn, r], i): Vec2 => [
            r * Math.cos(((i + turn) * Math.PI) / 2),
            r * Math.sin(((i + turn) * Math.PI) / 2),
          ])
          const project = withMoves(
            withMass(projectWith([0, 3.3, 6.1]), { name: 'T', height: 9, points }),
            'T',
            { id: 'taper', move: 'taper', on: true, by: { kind: 'scale', scale } },
            { id: 'twist', move: 'twist', on: true, angle, from: 1, to: null },
          )
          expect(
            bodyFault((studied(project).forms[0] as { body: { solid: Parameters<typeof bodyFault>[0] } }).body.solid),
          ).toBeNull()
        },
      ),
      { numRuns: 40 },
    )
  })
  it.each([55, -55])(
    'the footprint of a tower twisted by %d degrees is what it passes over, in either sense',
    (angle) => {
      const tower = withMoves(
        withMass(projectWith([0, 3.25, 6.5]), { name: 'T', height: 68.25, box: [-6.9, -6.4, 13.8, 12.8] }),
        'T',
        { id: 'twist', move: 'twist', on: true, angle, from: 9.75, to: 61.75 },
      )
      // By polar coordinates: the sum over all radii of the angles that the turning rectangle covers there.
      expect(studied(tower).totals.footprint).toBeCloseTo(254.469, 3)
    },
  )
  it('a move that the form does not allow is left out and said, and all else is computed', () => {
    const open = {
      id: 'open',
      move: 'body' as const,
      on: true,
      file: 'open.obj',
      corners: [0, 0, 0, 4, 0, 0, 0, 4, 0, 0, 0, 4],
      faces: [
        { name: 'f1', triangles: [0, 2, 1] },
        { name: 'f2', triangles: [0, 1, 3] },
      ],
    }
    let project = withMass(projectWith([0, 3]), { name: 'Bar', height: 3, box: [0, 0, 10, 10] })
    project = withMass(project, { name: 'Other', height: 3, box: [30, 0, 10, 10] })
    project = withMoves(project, 'Bar', {
      id: 'join',
      move: 'join',
      on: true,
      name: 'Open',
      place: { x: 5, y: 0, turn: 0 },
      lift: 0,
      recipe: [open],
    })
    const study = studied(project)
    expect(study.totals.area).toBeCloseTo(200, 6)
    const found = study.findings.find((f) => f.kind === 'cannot be built')
    expect(found?.say).toMatch(/A move of Bar is left out: The form is not a closed body, near/)
    expect(
      studied(apply(project, found?.fix?.edit(minter()) ?? { edit: 'project.change', set: {} })).findings.filter(
        (f) => f.kind === 'cannot be built',
      ),
    ).toEqual([])
  })
  it('with a site, an open body is a finding on its mass; the others are measured against the envelope', () => {
    let project = withMass(projectWith([0, 3]), { name: 'Bar', height: 12, box: [0, 0, 10, 10] })
    project = withMass(project, { name: 'Shell', height: 3, box: [30, 0, 10, 10] }, (m) => ({
      ...m,
      recipe: [
        {
          id: 'open',
          move: 'body',
          on: true,
          file: 'open.obj',
          corners: [0, 0, 0, 4, 0, 0, 0, 4, 0, 0, 0, 4],
          faces: [
            { name: 'f1', triangles: [0, 2, 1] },
            { name: 'f2', triangles: [0, 1, 3] },
          ],
        },
      ],
    }))
    project = apply(project, {
      edit: 'project.change',
      set: {
        site: {
          limit: 9,
          corners: [
            [-9, -9],
            [60, -9],
            [60, 40],
            [-9, 40],
          ].map(([x = 0, y = 0], i) => ({ id: `c${i}`, x, y, setback: 0, slope: null })),
        },
      },
    })
    const study = studied(project)
    expect(study.findings.map((f) => f.kind)).toEqual(
      expect.arrayContaining(['open or self-crossing body', 'over the envelope']),
    )
    expect([...study.ground.fits.keys()]).toEqual([massNamed(project, 'Bar').id])
  })
})

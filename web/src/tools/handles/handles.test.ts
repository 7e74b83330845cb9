import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { applyEdit } from '@geotome/core/edits'
import { moveMasses } from '@geotome/core/form'
import { levelHeights } from '@geotome/core/levels'
import type { Project } from '@geotome/core/project'
import { areaOf, gapOf, openKernel, type Vec2, type Vec3 } from '@geotome/core/solid'
import { massNamed, projectWith, schemeOf, standingPlan, studied, withMass } from '../../../../core/testing/make'
import { toPane, type View } from '../../stage/camera'
import { stageGeometry } from '../../stage/geometry-store'
import { facesDrawn } from '../../stage/spots'
import { nothingSent, viewOf } from '../../worker/view'
import type { World } from '../kind'
import { corner } from './corner'
import { face } from './face'
import { height } from './height'
import { levelGrip } from './level'
import type { MassHandle, OnMass } from './kind'
import { massesMoved, placeGrip } from './place'
import { sectionGrip } from './section'
import { turn } from './turn'

/** Handles, dragged: a mass far out on the map, turned oddly, in a scheme that was duplicated, seen from anywhere. */
const size: Vec2 = [900, 640]
/** px of the pane in the window */
const pane: Vec2 = [248, 42]
const MAP: Vec2 = [2_612_345.5, 1_201_234.25]
/** m: half a stride either way, along both axes */
const STRIDE = 0.1
const NEAR = STRIDE * Math.SQRT1_2 + 1e-6

const ELL: Vec2[] = [
  [0, 0],
  [14, 0],
  [14, 6],
  [5, 6],
  [5, 11],
  [0, 11],
]
const SHAPES = {
  box: { box: [0, 0, 12, 8] as [number, number, number, number] },
  ell: { points: ELL },
  clockwise: { points: [...ELL].reverse() },
  circle: { circle: [3, 4, 6] as [number, number, number] },
}
const placed = (shape: keyof typeof SHAPES, turned: number, upTo?: string): Project => {
  const drawn = withMass(projectWith([0, 3, 6, 9]), {
    name: 'Tower',
    height: 9,
    ...(upTo ? { upTo } : {}),
    ...SHAPES[shape],
  })
  return applyEdit(drawn, moveMasses(drawn, schemeOf(drawn), [massNamed(drawn, 'Tower').id], MAP, turned)).project
}

/** The picked mass as handles hang on it, seen so; where points of the model lie in the window; and what becomes of a drag. */
function hand(project: Project, { azimuth, elevation }: Pick<View, 'azimuth' | 'elevation'>) {
  const scheme = schemeOf(project)
  const study = stageGeometry.keep(
    viewOf(
      studied(project),
      { scheme: scheme.id, preview: null, compare: null, section: null, proposal: null },
      nothingSent(),
      0,
    ),
  )
  const mass = massNamed(project, 'Tower')
  const shown = study.masses.find((m) => m.id === mass.id)
  if (!shown) throw new Error('not shown')
  const view: View = { target: [5, 4, 3], azimuth, elevation, scale: 21.7 }
  const world: World = { project, scheme, level: 'L0', edges: [], marks: [], id: () => 'new' }
  const on: OnMass = { mass, world, study, shown, view, size, spots: [], storeys: [], corner: pane }
  const inWindow = ([x, y, z]: Vec3): Vec2 => {
    const p = toPane(view, size, [x - study.origin[0], y - study.origin[1], z])
    return [p[0] + pane[0], p[1] + pane[1]]
  }
  const drag = (handle: MassHandle, spot: number, from: Vec2, to: Vec2, more: Partial<OnMass> = {}) => {
    const answer = handle.begin({ ...on, ...more }, spot, from).answer({ at: to, alt: false, shift: false })
    return { say: answer?.say[0] ?? '', after: answer?.edit ? applyEdit(project, answer.edit(world)).project : project }
  }
  /** where a spot of a handle lies in the window */
  const spotAt = (handle: MassHandle, i = 0, more: Partial<OnMass> = {}): Vec2 => {
    const spot = handle.spots({ ...on, ...more })[i]
    if (!spot) throw new Error(`no ${handle.name}`)
    return [spot.at[0] + pane[0], spot.at[1] + pane[1]]
  }
  return { on, world, view, inWindow, drag, spotAt }
}
const formOf = (project: Project) => {
  const form = studied(project).forms[0]
  if (!form) throw new Error('no form')
  return form
}
/** The outline where it stands, its corners in the order in which they were drawn. */
const outlineOf = (project: Project) => standingPlan(formOf(project))[0] ?? []
/** m from a point to the nearest of others */
const nearest = (p: Vec2, all: readonly Vec2[]) => Math.min(...all.map((q) => gapOf(p, q)))
const middleOf = (plan: readonly Vec2[]): Vec2 => [
  plan.reduce((s, p) => s + p[0], 0) / plan.length,
  plan.reduce((s, p) => s + p[1], 0) / plan.length,
]

const seen = fc.record({
  azimuth: fc.integer({ min: -180, max: 180 }),
  elevation: fc.oneof(fc.integer({ min: 20, max: 85 }), fc.constant(90)),
})
const turned = fc.integer({ min: -1800, max: 1800 }).map((tenths) => tenths / 10)
const cornered = fc.constantFrom('box' as const, 'ell' as const, 'clockwise' as const)
const step = fc.integer({ min: -40, max: 40 }).map((n) => n / 10)

beforeAll(() => openKernel())

describe('a handle of a mass', () => {
  it('corner: goes where the pointer is, to the stride along the sides; no other corner moves', () => {
    fc.assert(
      fc.property(turned, seen, fc.nat(3), step, step, (by, from, i, dx, dy) => {
        const project = placed('box', by)
        const { drag, spotAt, inWindow } = hand(project, from)
        const plan = outlineOf(project)
        // Which corner hangs under the spot is read from the screen.
        const held = plan.reduce((a, b) =>
          gapOf(inWindow([...b, 0]), spotAt(corner, i)) < gapOf(inWindow([...a, 0]), spotAt(corner, i)) ? b : a,
        )
        const to: Vec2 = [held[0] + dx, held[1] + dy]
        const others = plan.filter((p) => p !== held)
        const { after } = drag(corner, i, spotAt(corner, i), inWindow([...to, 0]))
        const now = outlineOf(after)
        expect(nearest(to, now)).toBeLessThan(NEAR)
        for (const other of others) expect(nearest(other, now)).toBeLessThan(1e-6)
      }),
      { numRuns: 30 },
    )
  })
  it('corner of an L, drawn either way round: one goes along, five stay', () => {
    for (const shape of ['ell', 'clockwise'] as const)
      for (let i = 0; i < 6; i++) {
        const project = placed(shape, 37.3)
        const { drag, spotAt, inWindow } = hand(project, { azimuth: -60, elevation: 35 })
        const plan = outlineOf(project)
        const at = spotAt(corner, i)
        const held = plan.reduce((a, b) => (gapOf(inWindow([...b, 0]), at) < gapOf(inWindow([...a, 0]), at) ? b : a))
        const to: Vec2 = [held[0] + 0.7, held[1] - 0.4]
        const now = outlineOf(drag(corner, i, at, inWindow([...to, 0])).after)
        expect(now).toHaveLength(6)
        expect(nearest(to, now)).toBeLessThan(NEAR)
        expect(plan.filter((p) => nearest(p, now) < 1e-6)).toHaveLength(5)
      }
  })
  it('rim of a circle: its radius is how far the pointer is from the middle, which stays', () => {
    fc.assert(
      fc.property(
        turned,
        seen,
        fc.integer({ min: 10, max: 120 }),
        fc.integer({ min: 0, max: 359 }),
        (by, from, tenths, way) => {
          const project = placed('circle', by)
          const { drag, spotAt, inWindow } = hand(project, from)
          const middle = middleOf(outlineOf(project))
          const [r, a] = [tenths / 10, (way * Math.PI) / 180]
          const to = inWindow([middle[0] + r * Math.cos(a), middle[1] + r * Math.sin(a), 0])
          const { after, say } = drag(corner, 0, spotAt(corner), to)
          expect(gapOf(middleOf(outlineOf(after)), middle)).toBeLessThan(1e-3)
          expect(Number.parseFloat(say)).toBeCloseTo(r, 6)
          expect(areaOf(standingPlan(formOf(after)))).toBeGreaterThan(0.98 * Math.PI * r * r)
        },
      ),
      { numRuns: 20 },
    )
  })
  it('height: the top goes with the pointer; where it reaches to a level it stays tied, so much above', () => {
    fc.assert(
      fc.property(fc.boolean(), turned, seen, step, (tied, by, from, rise) => {
        fc.pre(from.elevation !== 90)
        const project = placed('box', by, tied ? 'L3' : undefined)
        const { drag, spotAt, on, view } = hand(project, from)
        const at = spotAt(height)
        const up = rise * view.scale * Math.cos((view.elevation * Math.PI) / 180)
        const { after } = drag(height, 0, at, [at[0], at[1] - up])
        // Seen nearly from above the arrow is not let run away.
        if (Math.cos((view.elevation * Math.PI) / 180) > 0.2)
          expect(formOf(after).top).toBeCloseTo(on.shown.top + rise, 6)
        expect(formOf(after).base).toBe(formOf(project).base)
        const raise = massNamed(after, 'Tower').recipe.find((m) => m.move === 'raise')
        expect(raise?.move === 'raise' && raise.upTo !== null).toBe(tied)
      }),
      { numRuns: 20 },
    )
    expect(height.spots(hand(placed('box', 20), { azimuth: 0, elevation: 90 }).on)).toEqual([])
  })
  it('turn: about its middle, by strides, the shorter way round, which is what it says', () => {
    fc.assert(
      fc.property(cornered, turned, seen, fc.integer({ min: -12, max: 11 }), (shape, by, from, strides) => {
        const project = placed(shape, by)
        const { drag, spotAt, inWindow } = hand(project, from)
        const plan = outlineOf(project)
        const middle = middleOf(plan)
        const angle = strides * 15
        const held = spotAt(turn)
        // The pointer goes round the middle: from where the ring is to where it is when so much is turned.
        const start = angleUnder(held, middle, inWindow)
        const a = start + (angle * Math.PI) / 180
        const { after, say } = drag(
          turn,
          0,
          held,
          inWindow([middle[0] + 20 * Math.cos(a), middle[1] + 20 * Math.sin(a), 0]),
        )
        const now = outlineOf(after)
        expect(gapOf(middleOf(now), middle)).toBeLessThan(1e-6)
        const { cos, sin } = { cos: Math.cos((angle * Math.PI) / 180), sin: Math.sin((angle * Math.PI) / 180) }
        for (const [x, y] of plan) {
          const [u, v] = [x - middle[0], y - middle[1]]
          expect(nearest([middle[0] + cos * u - sin * v, middle[1] + sin * u + cos * v], now)).toBeLessThan(1e-5)
        }
        expect(say).toBe(angle === 0 ? '' : `${angle}°`)
      }),
      { numRuns: 30 },
    )
  })
  it('place: goes along with the pointer, in strides of the map', () => {
    fc.assert(
      fc.property(turned, seen, step, step, (by, from, dx, dy) => {
        const project = placed('ell', by)
        const { inWindow, view, world, on } = hand(project, from)
        const plan = outlineOf(project)
        const [p] = plan as [Vec2]
        const grip = placeGrip(
          massesMoved([on.mass.id]),
          inWindow([...p, 0]),
          { view, size, corner: pane, ground: 0 },
          world,
          undefined,
        )
        const answer = grip.answer({ at: inWindow([p[0] + dx, p[1] + dy, 0]), alt: false, shift: false })
        const after = answer?.edit ? applyEdit(project, answer.edit(world)).project : project
        for (const [x, y] of plan) expect(nearest([x + dx, y + dy], outlineOf(after))).toBeLessThan(1e-5)
      }),
      { numRuns: 20 },
    )
  })
})

/** rad, of what lies under a place of the window on the ground, from a point: read back from the screen by halving */
function angleUnder(at: Vec2, middle: Vec2, inWindow: (p: Vec3) => Vec2): number {
  const [o, ex, ey] = [
    inWindow([...middle, 0]),
    inWindow([middle[0] + 1, middle[1], 0]),
    inWindow([middle[0], middle[1] + 1, 0]),
  ]
  const [a, b, c, d] = [ex[0] - o[0], ey[0] - o[0], ex[1] - o[1], ey[1] - o[1]]
  const [u, v] = [at[0] - o[0], at[1] - o[1]]
  const det = a * d - b * c
  return Math.atan2((a * v - c * u) / det, (d * u - b * v) / det)
}

describe('a handle of what is picked of a mass', () => {
  it('face: pulled along its normal by what the pointer goes along it, out or in', () => {
    fc.assert(
      fc.property(turned, fc.nat(), step, (by, n, out) => {
        const project = placed('box', by)
        const { drag, spotAt, inWindow, on } = hand(project, { azimuth: -60, elevation: 35 })
        const faces = [...facesDrawn(on.shown).values()].filter((f) => Math.abs(f.normal[2]) < 0.1)
        const pulled = faces[n % faces.length]
        if (!pulled) throw new Error('no face')
        const spots = [{ kind: 'face' as const, mass: on.mass.id, faces: [pulled.name] }]
        const [x, y, z] = pulled.middle
        const middle: Vec3 = [x + on.study.origin[0], y + on.study.origin[1], z]
        const far: Vec3 = [middle[0] + out * pulled.normal[0], middle[1] + out * pulled.normal[1], z]
        const { after, say } = drag(face, 0, inWindow(middle), inWindow(far), { spots })
        expect(spotAt(face, 0, { spots })[0]).toBeCloseTo(inWindow(middle)[0], 3)
        const [before, now] = [project, after].map((p) => areaOf(standingPlan(formOf(p))))
        // A side of 12 m or of 8.
        const grown = ((now ?? 0) - (before ?? 0)) / (out || 1)
        if (out === 0) expect(grown).toBe(0)
        else expect(Math.min(Math.abs(grown - 12), Math.abs(grown - 8))).toBeLessThan(1e-4)
        expect(say.startsWith(out === 0 ? '' : out > 0 ? 'out' : 'in')).toBe(true)
      }),
      { numRuns: 20 },
    )
  })
})

describe('what stands at an odd number', () => {
  const ODD: Vec2[] = [
    [0.123, 0.456],
    [12.789, 0.456],
    [12.789, 8.321],
    [0.123, 8.321],
  ]
  const odd = () =>
    applyEdit(withMass(projectWith([0, 3.17, 6.49]), { name: 'Tower', height: 7.43, points: ODD }), {
      edit: 'project.change',
      set: { name: 'Odd' },
    }).project
  const seen = { azimuth: -60, elevation: 35 }

  it('a corner or a height dragged back is as it was, and nothing is made of it', () => {
    const { on, spotAt, view } = hand(odd(), seen)
    const hair = 0.2 * STRIDE * view.scale
    for (const [handle, i] of [
      [corner, 0],
      [corner, 2],
      [height, 0],
    ] as const) {
      const at = spotAt(handle, i)
      const grip = handle.begin(on, i, at)
      const to = (x: number, y: number) => grip.answer({ at: [at[0] + x, at[1] + y], alt: false, shift: false })
      expect(to(40, -60)?.edit).toBeDefined()
      expect([to(0, 0)?.edit, to(0, -hair)?.edit], handle.name).toEqual([undefined, undefined])
      expect(to(0, 0)?.say).toEqual([handle === height ? '7.430 m' : showsCorner(ODD[i] as Vec2)])
    }
  })
  it('a corner that is dragged along one axis keeps its number on the other', () => {
    const { drag, inWindow, spotAt } = hand(odd(), seen)
    const at = spotAt(corner, 2)
    const { after } = drag(corner, 2, at, inWindow([14, ODD[2]?.[1] ?? 0, 0]))
    expect(nearest([0.123 + 13.9, 8.321], outlineOf(after))).toBeLessThan(1e-6)
  })
  it('a level that is dragged back, or by less than half a stride, is not moved; else it goes to the stride', () => {
    const { world } = hand(odd(), seen)
    const grip = levelGrip('L1', [0, 300], 0.05, world, { click: () => {}, done: [] })
    const made = (y: number) => {
      const edit = grip.answer({ at: [0, y], alt: false, shift: false })?.edit
      return edit ? heightsIn(applyEdit(world.project, edit(world)).project) : null
    }
    expect(made(280)).toEqual([0, 4.2, 7.52])
    expect([made(300), made(300.9), made(299.1)]).toEqual([null, null, null])
    expect(grip.answer({ at: [0, 300], alt: false, shift: false })?.say[0]).toBe('3.170')
  })
})
/** as it is said: from the outline's first corner */
const showsCorner = ([x, y]: Vec2) => `${(x - 0.123).toFixed(3)} m, ${(y - 0.456).toFixed(3)} m`
const heightsIn = (p: Project) => levelHeights(p, schemeOf(p)).map((l) => l.height)

describe('the section', () => {
  it('goes toward whom it looks with the pointer, and back to where it was', () => {
    for (const azimuth of [-90, 0, 37, 180]) {
      const put: number[] = []
      const section = { azimuth, toward: 12.3 } as Parameters<typeof sectionGrip>[0]
      const grip = sectionGrip(section, [400, 300], 20, STRIDE, (s) => void put.push(s.toward))
      const a = (azimuth * Math.PI) / 180
      grip.answer({ at: [400 + 40 * Math.cos(a), 300 - 40 * Math.sin(a)], alt: false, shift: false })?.look?.()
      grip.undone?.()
      expect(put).toEqual([14.3, 12.3])
    }
  })
})

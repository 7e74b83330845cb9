import { beforeAll, describe, expect, it } from 'vitest'
import { changeMass, massNamed, minter, projectWith, schemeOf, studied, withMass, apply } from '../testing/make'
import { arcPoints, facetsFor, loopArea, openKernel, type Vec2 } from '../solid'
import { numbersOf, type Project } from '../project'
import { groovePitches, profileOf, type RevolveMove } from './revolve'

beforeAll(() => openKernel())

const mint = minter('groove')
const hopper = (set: Partial<RevolveMove> = {}): RevolveMove => ({
  id: 'turn',
  move: 'revolve',
  on: true,
  points: [
    { id: 'p1', r: 1.45, z: -3.9, turn: 0 },
    { id: 'p2', r: 1.45, z: 2.2, turn: -90 },
    { id: 'p3', r: 4.65, z: 5.4, turn: 0 },
    { id: 'p4', r: 6, z: 5.4, turn: 0 },
  ],
  by: 360,
  from: 0,
  thick: 0.26,
  side: 'axis',
  grooves: 'pitch',
  pitch: 0.18,
  wide: 0.02,
  deep: 0.02,
  ...set,
})
const plain = () => withMass(projectWith([0, 3], mint), { name: 'Hopper', height: 3, box: [0, 0, 1, 1] })
const numbers = () => numbersOf(plain(), schemeOf(plain()))

/** m2 that a profile encloses, its arcs in so many bits that it is exact to a few digits. */
function area(m: RevolveMove, of = numbers()): number {
  const { loop } = profileOf(m, of, 'Hopper')
  const points = loop.flatMap((e): Vec2[] => {
    if (!e.arc) return [e.a]
    const { r, z, radius, from, sweep } = e.arc
    return arcPoints({ x: r, y: z, r: radius, from, sweep, n: Math.max(8, facetsFor(radius, sweep)) }).slice(0, -1)
  })
  return Math.abs(loopArea(points))
}

describe('grooves along a profile', () => {
  it('at a pitch of 180 mm along 12.477 m: 69, and 56.5 mm left; spread evenly each has 180.82 mm', () => {
    const fixed = groovePitches(hopper(), numbers())
    expect(fixed?.count).toBe(69)
    expect((fixed?.left ?? 0) * 1000).toBeCloseTo(56.5, 1)
    const even = groovePitches(hopper({ grooves: 'evenly', count: 69 }), numbers())
    expect((even?.pitch ?? 0) * 1000).toBeCloseTo(180.82, 2)
    expect(even?.left).toBeCloseTo(0, 9)
  })
  it('leave one closed region of 3.269 m2 of a layer of 3.297', () => {
    expect(area(hopper({ grooves: 'none' }))).toBeCloseTo(3.297, 3)
    expect(area(hopper())).toBeCloseTo(3.269, 3)
    expect(area(hopper())).toBeCloseTo(area(hopper({ grooves: 'none' })) - 69 * 0.0004, 4)
  })
  it('are kept when the profile is turned: radii on the shaft differ by exactly 0 or 20 mm', () => {
    const project = changeMass(plain(), 'Hopper', { recipe: [hopper() as never] })
    const study = studied(project)
    const form = study.forms[0]
    expect(form?.body.leftOut).toEqual([])
    const { positions } = form?.body.solid ?? { positions: new Float64Array() }
    const radii = new Set<number>()
    for (let i = 0; i < positions.length; i += 3) {
      const [x, y, z] = [positions[i] ?? 0, positions[i + 1] ?? 0, positions[i + 2] ?? 0]
      // Facets lie off the circle by a factor that is the same for all: radii are told by the ratio to the shaft's.
      if (z > -3.8 && z < 2) radii.add(Math.round(Math.hypot(x, y) * 1e6) / 1e6)
    }
    const outer = [...radii].filter((r) => r > 1.4).sort((a, b) => a - b)
    expect(outer).toHaveLength(2)
    expect((outer[1] ?? 0) / (outer[0] ?? 1)).toBeCloseTo(1.45 / 1.43, 5)
    const smooth = studied(changeMass(plain(), 'Hopper', { recipe: [hopper({ grooves: 'none' }) as never] }))
    expect(study.totals.volume).toBeLessThan(smooth.totals.volume)
  })
  it('of a profile that is kept by name follow it, and say so when it is gone', () => {
    const profile = {
      id: 'notch',
      name: 'Notch',
      order: 0,
      shape: {
        kind: 'polygon' as const,
        corners: [
          [0, 0],
          [0.04, 0],
          [0.02, 0.03],
        ].map(([x = 0, y = 0], i) => ({ id: `c${i}`, x, y, bulge: 0 })),
      },
      x: 0.02,
      y: 0,
    }
    const kept: Project = apply(plain(), { edit: 'profile.add', thing: profile })
    const with3 = numbersOf(kept, schemeOf(kept))
    expect(area(hopper({ groove: 'notch' }), with3)).toBeCloseTo(
      area(hopper({ grooves: 'none' })) - (69 * 0.04 * 0.03) / 2,
      4,
    )
    const made = changeMass(kept, 'Hopper', { recipe: [hopper({ groove: 'notch' }) as never] })
    const before = studied(made).totals.volume
    const wider = apply(made, {
      edit: 'profile.change',
      id: 'notch',
      set: { shape: { ...profile.shape, corners: profile.shape.corners.map((c) => ({ ...c, y: c.y * 2 })) } },
    })
    expect(studied(wider).totals.volume).toBeLessThan(before)
    expect(() => apply(wider, { edit: 'profile.remove', id: 'notch' })).toThrow(/profile that it uses is gone/)
    expect(massNamed(wider, 'Hopper').recipe).toHaveLength(1)
  })
  it('that run into one another, or through the layer, are refused with what to do', () => {
    const broken = (set: Partial<RevolveMove>, words: RegExp) =>
      expect(() => changeMass(plain(), 'Hopper', { recipe: [hopper(set) as never] })).toThrow(words)
    broken({ wide: 0.2 }, /run into one another/)
    broken({ deep: 0.3 }, /go through its thickness/)
    broken({ grooves: 'evenly', count: 2.5 }, /number of grooves .* is 2.5/)
  })
})

describe('a layer along a profile', () => {
  /** A flare: an arc from the foot, then straight on, at a corner. */
  const flare = (turn: number, set: Partial<RevolveMove> = {}): RevolveMove =>
    hopper({
      points: [
        { id: 'p1', r: 3, z: 0, turn },
        { id: 'p2', r: 8, z: 4, turn: 0 },
        { id: 'p3', r: 9, z: 6, turn: 0 },
      ],
      thick: 0.5,
      grooves: 'none',
      ...set,
    })
  const study = (m: RevolveMove) => {
    const levels = projectWith([0, 1, 2, 3, 4, 5], mint)
    const mass = withMass(levels, { name: 'Flare', height: 3, box: [0, 0, 1, 1] })
    return studied(changeMass(mass, 'Flare', { recipe: [m as never] }))
  }
  it.each([-60, -30, 20, 45])(
    'turns the corner where an arc (%i degrees) meets a line in the mitre of both',
    (turn) => {
      for (const side of ['axis', 'away'] as const) {
        const { loop } = profileOf(flare(turn, { side }), numbers(), 'Flare')
        const [front, back] = ['turn/p1', 'turn/in/p1'].map((name) => loop.find((e) => e.name === name))
        const arc = front?.arc
        if (!arc || !back?.arc) throw new Error('no arc')
        expect(Math.abs(back.arc.radius - arc.radius)).toBeCloseTo(0.5, 9)
        // The end that meets the line lies half a metre from the line, and on the circle that is set off.
        const joint = back.a[1] > back.b[1] ? back.a : back.b
        expect(Math.hypot(joint[0] - arc.r, joint[1] - arc.z)).toBeCloseTo(back.arc.radius, 9)
        const [dr, dz] = [1 / Math.hypot(1, 2), 2 / Math.hypot(1, 2)]
        expect(Math.abs((joint[0] - 8) * dz - (joint[1] - 4) * dr)).toBeCloseTo(0.5, 9)
        expect(study(flare(turn, { side, by: 30 })).unbuilt).toEqual([])
      }
    },
  )
  it('counts the same floor with grooves of a millimetre as without: the whole surface is wall-like or roof-like', () => {
    for (const turn of [-60, 60])
      for (const side of ['axis', 'away'] as const) {
        const [plain, cut] = [
          study(flare(turn, { side, thick: 1.5, by: 60 })),
          study(flare(turn, { side, thick: 1.5, by: 60, grooves: 'evenly', count: 10, deep: 0.001 })),
        ]
        plain.floors.forEach((floor, i) => expect(Math.abs((cut.floors[i]?.area ?? 0) - floor.area)).toBeLessThan(0.05))
      }
  })
})

import { beforeAll, describe, expect, it } from 'vitest'
import { areaOf, openKernel, type Vec2 } from '../solid'
import type { Project } from '../project'
import { apply, massNamed, minter, projectWith, schemeOf, studied, withMass } from '../testing/make'
import {
  doAgain,
  doneBetween,
  faceAt,
  massFromFace,
  massSetOff,
  moveJoint,
  patchFace,
  pullFace,
  uprightMass,
} from './index'

beforeAll(() => openKernel())

const mint = minter('f')
/** A block of 10 x 8 x 9 on three storeys, turned, wherever it stands. */
const block = (at: Vec2, turn: number): Project =>
  withMass(projectWith([0, 3, 6, 9], mint), { name: 'Block', height: 9, box: [at[0], at[1], 10, 8] }, (mass) => ({
    ...mass,
    place: { ...mass.place, turn },
  }))
const formOf = (project: Project, name = 'Block') => {
  const form = studied(project).forms.find((f) => f.name === name)
  if (!form) throw new Error(name)
  return form
}
const sideOf = (project: Project, side: string) => {
  const face = formOf(project)
    .body.faces()
    .find((f) => f.name.endsWith(`/${side}`))
  return face?.name ?? ''
}
const volumeOf = (project: Project, name = 'Block') => formOf(project, name).body.volume
const changed = (project: Project, edit: (p: Project) => ReturnType<typeof pullFace>) => apply(project, edit(project))

describe.each([
  [[0, 0] as Vec2, 0],
  [[3.7, -2.1] as Vec2, 33.3],
  [[32456789.5, 5534321.25] as Vec2, 201.7],
])('a block at %s, turned by %s degrees', (at, turn) => {
  const id = (p: Project) => massNamed(p, 'Block').id

  it('says of a face its area, tilt, where it looks, and its frame in the world', () => {
    const project = block(at, turn)
    const east = faceAt(formOf(project), sideOf(project, 'east'))
    expect(east.area).toBeCloseTo(72, 5)
    expect(east.tilt).toBeCloseTo(90, 6)
    const off = (((east.looks ?? 0) - turn) * Math.PI) / 180
    expect([Math.cos(off), Math.sin(off)].map((v) => Number(v.toFixed(6)) + 0)).toEqual([1, 0])
    expect(areaOf(east.region)).toBeCloseTo(72, 5)
    // Its left end as seen from outside is the south-east corner.
    const a = (turn * Math.PI) / 180
    expect(east.frame?.origin[0]).toBeCloseTo(at[0] + 10 * Math.cos(a), 5)
    expect(east.frame?.origin[1]).toBeCloseTo(at[1] + 10 * Math.sin(a), 5)
  })
  it('is pulled by its sides and its top, on chosen storeys only where they are said; the next pull goes on from it', () => {
    let project = block(at, turn)
    project = changed(project, (p) => pullFace(p, schemeOf(p), mint, id(p), sideOf(p, 'east'), 2))
    expect(volumeOf(project)).toBeCloseTo(12 * 8 * 9, 4)
    project = changed(project, (p) => pullFace(p, schemeOf(p), mint, id(p), sideOf(p, 'east'), -1.5))
    expect(volumeOf(project)).toBeCloseTo(10.5 * 8 * 9, 4)
    expect(massNamed(project, 'Block').recipe).toHaveLength(3)
    project = changed(project, (p) => pullFace(p, schemeOf(p), mint, id(p), sideOf(p, 'north'), 1, ['L1']))
    expect(volumeOf(project)).toBeCloseTo(10.5 * 8 * 9 + 10.5 * 3, 4)
    // What was pulled on one storey is pulled farther there, whatever has come behind it; and on another storey from where the side stands.
    const pulled = formOf(project)
      .body.faces()
      .find((f) => f.name.endsWith('/north') && !f.name.startsWith(massNamed(project, 'Block').recipe[1]?.id ?? ''))
    const patched = changed(project, (p) =>
      patchFace(schemeOf(p), mint, id(p), sideOf(p, 'west'), { kind: 'rectangle', from: [4, 1], to: [5, 2] }, 0.5),
    )
    const farther = changed(patched, (p) => pullFace(p, schemeOf(p), mint, id(p), pulled?.name ?? '', 0.5))
    expect(volumeOf(farther)).toBeCloseTo(10.5 * 8 * 9 + 10.5 * 3 * 1.5 + 0.5, 4)
    const other = changed(patched, (p) => pullFace(p, schemeOf(p), mint, id(p), pulled?.name ?? '', 0.5, ['L1', 'L2']))
    expect(volumeOf(other)).toBeCloseTo(10.5 * 8 * 9 + 10.5 * 6 * 1.5 + 0.5, 4)
    expect(() => pullFace(project, schemeOf(project), mint, id(project), sideOf(project, 'top'), 1, ['L1'])).toThrow(
      /by its sides only/,
    )
    const plain = changed(block(at, turn), (p) => pullFace(p, schemeOf(p), mint, id(p), sideOf(p, 'top'), 1))
    expect(massNamed(plain, 'Block').recipe[1]).toMatchObject({ move: 'raise', height: 10 })
  })
  it('has its edges and corners moved in the world`s directions', () => {
    const project = changed(block(at, turn), (p) =>
      moveJoint(p, schemeOf(p), mint, id(p), [sideOf(p, 'top'), sideOf(p, 'east')], [0, 0, 2]),
    )
    expect(volumeOf(project)).toBeCloseTo(720 + 80, 4)
    const a = (turn * Math.PI) / 180
    // Outwards by 1 at its head: the east side leans.
    const leant = changed(block(at, turn), (p) =>
      moveJoint(p, schemeOf(p), mint, id(p), [sideOf(p, 'top'), sideOf(p, 'east')], [Math.cos(a), Math.sin(a), 0]),
    )
    expect(volumeOf(leant)).toBeCloseTo(720 + 36, 4)
  })
  it('takes a patch where it was drawn, and is pulled by its front', () => {
    let project = changed(block(at, turn), (p) =>
      patchFace(schemeOf(p), mint, id(p), sideOf(p, 'east'), { kind: 'rectangle', from: [1, 1], to: [4, 3] }, -0.5),
    )
    expect(volumeOf(project)).toBeCloseTo(720 - 3, 4)
    project = changed(project, (p) => pullFace(p, schemeOf(p), mint, id(p), sideOf(p, 'front'), 1))
    expect(volumeOf(project)).toBeCloseTo(720 + 3, 4)
  })
  it('gives its faces as outlines: raised from its top, carried away from a side, set off', () => {
    const from = (name: string, side: string) => {
      const project = block(at, turn)
      const face = faceAt(formOf(project), sideOf(project, side))
      const use = Object.keys(project.uses)[0] ?? ''
      return apply(
        project,
        massFromFace(project, schemeOf(project), mint, { name, use, level: 'L0', levelHeight: 0, face, by: 2 }),
      )
    }
    const top = from('Top', 'top')
    expect(volumeOf(top, 'Top')).toBeCloseTo(160, 4)
    expect(formOf(top, 'Top').base).toBeCloseTo(9, 6)
    const east = from('East', 'east')
    expect(volumeOf(east, 'East')).toBeCloseTo(144, 4)
    // It stands before the face, not behind it.
    const both = studied(east)
    expect(both.floors[0]?.area).toBeCloseTo(80 + 16, 3)
    const project = block(at, turn)
    const wider = apply(project, massSetOff(schemeOf(project), mint, id(project), 1))
    expect(volumeOf(wider, 'Block, set off')).toBeCloseTo(12 * 10 * 9, 4)
  })
  it('has the last thing done again, to itself and to another', () => {
    const first = block(at, turn)
    const project = changed(first, (p) => pullFace(p, schemeOf(p), mint, id(p), sideOf(p, 'east'), 2))
    const done = doneBetween(project, schemeOf(first), schemeOf(project))
    if (!done) throw new Error('nothing done')
    const again = apply(project, doAgain(project, schemeOf(project), mint, [id(project)], done))
    expect(volumeOf(again)).toBeCloseTo(14 * 8 * 9, 4)
    const other = withMass(project, { name: 'Other', height: 3, box: [at[0] + 30, at[1], 4, 5] })
    const two = apply(other, doAgain(other, schemeOf(other), mint, [massNamed(other, 'Other').id], done))
    expect(volumeOf(two, 'Other')).toBeCloseTo(6 * 5 * 3, 4)
  })
})

describe('a mass drawn on an upright plane', () => {
  const profile = {
    kind: 'polygon' as const,
    points: [
      [1.45, -3.9],
      [1.45, 2.2],
      [4.65, 5.4],
      [6, 5.4],
    ] as Vec2[],
    bulges: [0, -Math.tan(Math.PI / 8), 0],
  }
  it.each([0, 41.5, 180])(
    'is carried away from whoever looks at it, and turned as it was drawn; at %s degrees',
    (direction) => {
      const project = projectWith([0, 3], mint)
      const use = Object.keys(project.uses)[0] ?? ''
      const plane = { at: [50, 20] as Vec2, direction, foot: 1 }
      const draw = (
        becomes: Parameters<typeof uprightMass>[3]['becomes'],
        shape: Parameters<typeof uprightMass>[3]['shape'],
      ) =>
        apply(
          project,
          uprightMass(project, schemeOf(project), mint, { name: 'U', use, level: 'L0', plane, shape, becomes }),
        )
      const rect = { kind: 'rectangle' as const, from: [2, 0] as Vec2, to: [6, 3] as Vec2 }
      for (const by of [5, -5]) {
        const form = formOf(draw({ carried: by }, rect), 'U')
        expect(form.body.volume).toBeCloseTo(60, 6)
        expect([form.base, form.top]).toEqual([1, 4])
        // Along the plane from 2 to 6, and behind it (to the left of its direction) where it is above zero.
        const a = (direction * Math.PI) / 180
        const at = ([x, y]: Vec2): Vec2 => [
          50 + Math.cos(a) * x - Math.sin(a) * y,
          20 + Math.sin(a) * x + Math.cos(a) * y,
        ]
        const [p, q] = [at([2, 0]), at([6, by])]
        expect(form.rect.x0).toBeCloseTo(Math.min(p[0], q[0], at([6, 0])[0], at([2, by])[0]), 6)
        expect(form.rect.y1).toBeCloseTo(Math.max(p[1], q[1], at([6, 0])[1], at([2, by])[1]), 6)
      }
      expect(formOf(draw({ turned: 360 }, profile), 'U').body.volume).toBeCloseTo(91.318, 3)
      expect(formOf(draw({ turned: 270 }, profile), 'U').body.volume).toBeCloseTo(68.489, 3)
    },
  )
})

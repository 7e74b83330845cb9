import { beforeAll, describe, expect, it } from 'vitest'
import { bringInLine } from '../fabric'
import { insertCorner, withCorners } from '../moves'
import { numbersOf } from '../project'
import { openKernel, rawName, type Vec2 } from '../solid'
import { ledgerOf } from '../study'
import { apply, converted, massNamed, minter, projectWith, schemeOf, studied, withMass } from '../testing/make'
import { changeRecipe, joinMasses, moveCorner, moveMasses, newMass, removeMass, takeApart } from './index'

beforeAll(() => openKernel())

const two = () => {
  let project = withMass(projectWith([0, 3]), { name: 'A', box: [0, 0, 20, 10], height: 6 })
  project = withMass(project, {
    name: 'B',
    points: [
      [18, 4],
      [30, 4],
      [30, 16],
      [18, 14],
    ],
    height: 3,
    level: 'L1',
  })
  return apply(project, moveMasses(project, schemeOf(project), [massNamed(project, 'B').id], [1, 2], 30, [20, 8]))
}

describe('a drawn rectangle', () => {
  it('is the same mass in whatever direction it was drawn', () => {
    const scheme = schemeOf(projectWith([0]))
    const corners: Vec2[] = [
      [2, 3],
      [12, 3],
      [12, 9],
      [2, 9],
    ]
    const drawn = corners.map((from, i) =>
      newMass(scheme, minter('m'), {
        name: 'M',
        use: 'u',
        level: 'L0',
        height: 3,
        shape: { kind: 'rectangle', from, to: corners[(i + 2) % 4] as Vec2 },
      }),
    )
    for (const mass of drawn) expect(mass).toEqual(drawn[0])
    expect(drawn[0]?.place).toEqual({ x: 2, y: 3, turn: 0 })
  })
})

describe('masses joined', () => {
  it('are one body of the same extent, and taken apart again are what they were', () => {
    const project = two()
    const [a, b] = [massNamed(project, 'A'), massNamed(project, 'B')]
    const joined = apply(project, joinMasses(project, schemeOf(project), minter('j'), a.id, b.id))
    expect(Object.keys(schemeOf(joined).masses)).toEqual([a.id])
    expect(ledgerOf(studied(joined)).levels.map((l) => l.area.toFixed(6))).toEqual(
      ledgerOf(studied(project)).levels.map((l) => l.area.toFixed(6)),
    )
    const apart = apply(joined, takeApart(joined, schemeOf(joined), minter('apart'), a.id, 'j-1'))
    const again = massNamed(apart, 'B')
    expect(again.recipe).toEqual(b.recipe)
    expect(again.place).toEqual(b.place)
    // B stood on level 1; taken apart it stands as high over A's level.
    expect(studied(apart).forms.map((f) => [f.name, f.base, f.top])).toEqual([
      ['A', 0, 6],
      ['B', 3, 6],
    ])
    expect(ledgerOf(studied(apart)).totals).toEqual(ledgerOf(studied(project)).totals)
  })
  it('take their fabric along, and give it back in line; only a face that went inside the other is gone meanwhile', () => {
    const project = converted(two())
    const [a, b] = [massNamed(project, 'A'), massNamed(project, 'B')]
    const loose = (p: typeof project) =>
      studied(p)
        .parts.filter((q) => q.bond.status === 'loose' && q.part.kind !== 'slab')
        .map((q) => q.part.host.face)
    const joined = apply(project, joinMasses(project, schemeOf(project), minter('j'), a.id, b.id))
    const faces = new Set(
      studied(joined)
        .forms[0]?.body.faces()
        .map((f) => rawName(f.name)),
    )
    expect(loose(joined).filter((face) => faces.has(rawName(face)))).toEqual([])
    expect(loose(project)).toEqual([])
    const inLine = apply(joined, bringInLine(studied(joined).context, studied(joined).parts))
    expect(
      studied(inLine)
        .parts.map((p) => p.bond.status)
        .filter((s) => s === 'drifted'),
    ).toEqual([])
    expect(
      studied(inLine)
        .parts.filter((p) => p.bond.status === 'bonded')
        .every((p) => p.body),
    ).toBe(true)
    const apart = apply(joined, takeApart(joined, schemeOf(joined), minter('apart'), a.id, 'j-1'))
    expect(
      studied(apart)
        .parts.filter((p) => p.part.print.kind === 'face')
        .every((p) => p.bond.status === 'bonded'),
    ).toBe(true)
  })
})

describe('corners', () => {
  it('one inserted half-way changes no form and renames no side', () => {
    const project = withMass(projectWith([0]), {
      name: 'M',
      points: [
        [0, 0],
        [10, 0],
        [10, 8],
        [0, 8],
      ],
      height: 3,
    })
    const mass = massNamed(project, 'M')
    const numbers = numbersOf(project, schemeOf(project))
    const after = apply(
      project,
      changeRecipe(schemeOf(project), mass, (r) => withCorners(r, numbers, (c) => insertCorner(c, 'e2', numbers))),
    )
    const names = (p: typeof project) =>
      studied(p)
        .forms[0]?.body.faces()
        .map((f) => f.name) ?? []
    expect(studied(after).totals.area).toBeCloseTo(80, 9)
    for (const name of names(project)) expect(names(after)).toContain(name)
    expect(names(after)).toHaveLength(names(project).length + 1)
  })
  it('one of a rectangle, moved, makes it a polygon with the same sides', () => {
    const project = withMass(projectWith([0]), { name: 'M', box: [0, 0, 10, 8], height: 3 })
    const after = apply(project, moveCorner(project, schemeOf(project), massNamed(project, 'M').id, 'north', [14, 8]))
    expect(studied(after).totals.area).toBeCloseTo(96, 9)
    expect(
      studied(after)
        .forms[0]?.body.faces()
        .map((f) => f.name.split('/')[1])
        .sort(),
    ).toEqual(['base', 'east', 'north', 'south', 'top', 'west'])
  })
})

it('a removed mass leaves its parts loose, or takes them along', () => {
  const project = converted(two())
  const a = massNamed(project, 'A').id
  expect(
    Object.values(schemeOf(apply(project, removeMass(schemeOf(project), a, true))).parts).some(
      (p) => p.host.mass === a,
    ),
  ).toBe(false)
  expect(
    studied(apply(project, removeMass(schemeOf(project), a, false)))
      .parts.filter((p) => p.part.host.mass === a)
      .every((p) => p.bond.status === 'loose'),
  ).toBe(true)
})

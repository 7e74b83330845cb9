import { beforeAll, describe, expect, it } from 'vitest'
import type { Move } from '../moves'
import type { Project } from '../project'
import { openKernel } from '../solid'
import { apply, changeMass, massNamed, minter, projectWith, studied, withMass, withMoves } from '../testing/make'

beforeAll(() => openKernel())

const house = () => withMass(projectWith([0, 3]), { box: [0, 0, 10, 6], height: 6, name: 'House' })
const found = (project: Project, kind: string) => studied(project).findings.filter((f) => f.kind === kind)
const mended = (project: Project, kind: string) =>
  apply(project, found(project, kind)[0]?.fix?.edit(minter('mend')) ?? { edit: 'batch', edits: [] })
const recipe = (project: Project, make: (recipe: Move[]) => Move[]) =>
  changeMass(project, 'House', { recipe: make(massNamed(project, 'House').recipe) })

describe('checks of bodies', () => {
  it('what encloses nothing is said, and thickened in one action', () => {
    const points = [
      { id: 'a', r: 2, z: 0, turn: 0 },
      { id: 'b', r: 2, z: 4, turn: 0 },
      { id: 'c', r: 3, z: 4, turn: 0 },
    ]
    const project = recipe(house(), () => [
      { id: 'k', move: 'revolve', on: true, points, by: 360, from: 0, thick: null, side: 'axis' },
    ])
    expect(found(project, 'worth knowing of a form')[0]?.say).toMatch(
      /encloses nothing between 2.00 m, 4.00 m and 3.00 m, 4.00 m/,
    )
    for (const unit of ['mm', 'ft'] as const) {
      const [note] = found({ ...project, unit, precision: 0 }, 'worth knowing of a form')
      expect(`${note?.say} ${note?.remedy} ${note?.fix?.label}`).not.toMatch(/\d m(?![m\w²³])/)
    }
    const thick = mended(project, 'worth knowing of a form')
    expect(found(thick, 'worth knowing of a form')).toEqual([])
    expect(massNamed(thick, 'House').recipe[0]).toMatchObject({ thick: 0.3 })
  })
  it('warped faces are told with both folds, and folded all in one action', () => {
    const top = [
      [0, 1],
      [9, 2],
      [9, 5],
      [0, 6],
    ].map(([x, y], i) => ({ id: `e${i + 1}`, x: x as number, y: y as number, bulge: 0 }))
    const section = { id: 's', z: 5, level: null, x: 0, y: 0, shape: { kind: 'polygon' as const, corners: top } }
    const project = recipe(house(), ([o]) => [
      o as Move,
      { id: 'l', move: 'loft', on: true, sections: [section], faces: 'warped' },
    ])
    expect(found(project, 'warped face')[0]?.say).toMatch(/2 faces of House are not flat/)
    expect(found(mended(project, 'warped face'), 'warped face')).toEqual([])
  })
  it('what is thinner than a hand, and edges of millimetres; a block has neither', () => {
    expect(found(house(), 'thin body or tiny edge')).toEqual([])
    const slit: Move = {
      id: 'p',
      move: 'patch',
      on: true,
      face: '',
      along: 1,
      up: 1,
      shape: { kind: 'rectangle', width: 3, depth: 2 },
      by: -5.95,
    }
    const face =
      studied(house())
        .forms[0]?.body.faces()
        .find((f) => f.plane.n[1] < -0.5)?.name ?? ''
    expect(found(withMoves(house(), 'House', { ...slit, face }), 'thin body or tiny edge')[0]?.say).toMatch(
      /only 0.050 m thin/,
    )
    const jog = changeMass(house(), 'House', {
      recipe: massNamed(house(), 'House').recipe.map((m) =>
        m.move === 'outline'
          ? {
              ...m,
              shape: {
                kind: 'polygon',
                corners: [
                  [0, 0],
                  [5, 0],
                  [5, 0.003],
                  [10, 0.003],
                  [10, 6],
                  [0, 6],
                ].map(([x, y], i) => ({ id: `e${i + 1}`, x: x as number, y: y as number, bulge: 0 })),
              },
            }
          : m,
      ),
    })
    expect(
      found(jog, 'thin body or tiny edge')
        .map((f) => f.say)
        .join(),
    ).toMatch(/an edge only 0.003 m long/)
  })
  it('a sweep that passes through itself is a finding, and counts by itself', () => {
    const path = [
      [0, 0],
      [20, 0],
      [20, 10],
      [8, 10],
      [8, 1.5],
    ].map(([x, y], i) => ({ id: `p${i}`, x: x as number, y: y as number, round: 0 }))
    const section = { kind: 'rectangle' as const, width: 4, depth: 3 }
    const sweep = (across: number): Move => ({
      id: 's',
      move: 'sweep',
      on: true,
      section,
      across,
      up: 0,
      path,
      ends: 'open',
    })
    expect(
      found(
        recipe(house(), () => [sweep(-2)]),
        'open or self-crossing body',
      )[0]?.say,
    ).toMatch(/passes through itself/)
  })
})

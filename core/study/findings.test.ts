import { beforeAll, describe, expect, it } from 'vitest'
import type { Project } from '../project'
import { openKernel } from '../solid'
import { apply, changeLevel, converted, minter, projectWith, schemeOf, studied, withMass } from '../testing/make'

beforeAll(() => openKernel())

const found = (project: Project, kind: string) => studied(project).findings.filter((f) => f.kind === kind)
/** The project after the remedy of its first finding of a kind. */
const mended = (project: Project, kind: string): Project => {
  const fix = found(project, kind)[0]?.fix
  if (!fix) throw new Error(`no remedy for ${kind}`)
  return apply(project, fix.edit(minter('mend')))
}
const house = (height = 6) => withMass(projectWith([0, 3]), { box: [0, 0, 10, 6], height, name: 'House' })
const withMark = (project: Project, name: string, height: number) =>
  apply(project, {
    edit: 'level.add',
    scheme: schemeOf(project).id,
    thing: { id: 'mark', name, kind: 'mark', tie: { kind: 'fixed', height }, floorBuildUp: 0, slab: 0 },
  })

describe('each finding has a place, a reason, and a remedy in one action', () => {
  it('a wall gap: a storey with walls, but not on one of its faces', () => {
    const project = converted(house())
    expect(found(project, 'wall gap')).toEqual([])
    const wall = studied(project).parts.find((p) => p.role === 'wall' && p.part.base?.level === 'L1')
    const gap = apply(project, { edit: 'part.remove', scheme: schemeOf(project).id, id: wall?.id ?? '' })
    expect(found(gap, 'wall gap').map((f) => [f.level, f.area])).toEqual([['L1', expect.closeTo(wall?.area ?? 0, 0)]])
    expect(found(mended(gap, 'wall gap'), 'wall gap')).toEqual([])
  })
  it('a thin wall is a wall: no gap where it is less than half as thick as the usual one', () => {
    const project = converted(house())
    const usual = studied(project).parts.find((p) => p.role === 'wall')?.part.buildUp ?? ''
    const layers = [{ id: 'only', name: 'skin', material: 'glass', thickness: 0.03 }]
    const skin = { id: 'skin', name: 'Skin', order: 99, for: 'wall' as const, layers }
    const thin = apply(project, {
      edit: 'batch',
      edits: [
        { edit: 'build-up.add', thing: skin },
        ...Object.values(schemeOf(project).parts)
          .filter((p) => p.buildUp === usual)
          .map(({ id }) => ({
            edit: 'part.change' as const,
            scheme: schemeOf(project).id,
            id,
            set: { buildUp: 'skin' },
          })),
      ],
    })
    expect(studied(thin).parts.filter((p) => p.role === 'wall' && p.thickness === 0.03).length).toBe(8)
    expect(found(thin, 'wall gap')).toEqual([])
  })
  it('a storey too low for the headroom, the slab above taken off', () => {
    const project = converted(withMass(projectWith([0, 2.2, 5]), { box: [0, 0, 10, 6], height: 8, name: 'House' }))
    expect(found(project, 'storey too low').map((f) => f.say)).toEqual(['Level 0 is only 1.900 m high in the clear'])
    expect(found(mended(project, 'storey too low'), 'storey too low')).toEqual([])
    // A slab that is only planned counts as well.
    const planned = changeLevel(withMass(projectWith([0, 2.3, 5]), { box: [0, 0, 10, 6], height: 8 }), 'L1', {
      slab: 0.26,
      floorBuildUp: 0.11,
    })
    expect(found(planned, 'storey too low').map((f) => f.say)).toEqual(['Level 0 is only 1.930 m high in the clear'])
  })
  it('a top just above a level', () => {
    const project = house(3.4)
    expect(found(project, 'roof peak just above a level')[0]?.say).toBe(
      'The top of House lies only 0.400 m above Level 1',
    )
    expect(found(mended(project, 'roof peak just above a level'), 'roof peak just above a level')).toEqual([])
  })
  it('a mass over the permitted mark', () => {
    const project = withMark(house(9), 'permitted', 7.5)
    expect(found(project, 'over the permitted mark')[0]?.say).toBe('House rises 1.500 m over permitted')
    expect(studied(mended(project, 'over the permitted mark')).forms[0]?.top).toBeCloseTo(7.5, 9)
    expect(found(withMark(house(9), 'parapet', 7.5), 'over the permitted mark')).toEqual([])
  })
  it('two bodies in one place', () => {
    const project = withMass(house(), { box: [0, 0, 10, 6], height: 6, name: 'Copy' })
    expect(found(project, 'duplicate bodies')[0]?.say).toBe('Copy lies in the same place as House')
    expect(Object.values(schemeOf(mended(project, 'duplicate bodies')).masses).map((m) => m.name)).toEqual(['House'])
  })
  it('and can be left with a reason: it is listed apart, and not counted', () => {
    const project = withMark(house(9), 'permitted', 7.5)
    const [finding] = found(project, 'over the permitted mark')
    const left = apply(project, {
      edit: 'mute.add',
      scheme: schemeOf(project).id,
      thing: { id: 'm', finding: finding?.key ?? '', reason: 'the lantern is exempt' },
    })
    expect(found(left, 'over the permitted mark')).toEqual([])
    expect(studied(left).muted.map((f) => [f.kind, f.mute.reason])).toEqual([
      ['over the permitted mark', 'the lantern is exempt'],
    ])
  })
})

it('context is drawn and never counted: no floors, no figures, no fabric, no findings', () => {
  const project = withMass(house(), { box: [0, 0, 10, 6], height: 30, name: 'Neighbour' }, (m) => ({
    ...m,
    context: true,
  }))
  const [alone, beside] = [studied(house()), studied(project)]
  expect(beside.totals).toEqual(alone.totals)
  expect(beside.findings.map((f) => f.kind)).toEqual(alone.findings.map((f) => f.kind))
  expect(beside.around.map((f) => f.name)).toEqual(['Neighbour'])
  expect(studied(converted(project)).parts).toHaveLength(studied(converted(house())).parts.length)
})

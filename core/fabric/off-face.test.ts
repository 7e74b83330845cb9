import { beforeAll, describe, expect, it } from 'vitest'
import { changeRecipe } from '../form'
import type { Project } from '../project'
import { areaOf, openKernel } from '../solid'
import {
  apply,
  choicesOf,
  converted,
  massNamed,
  minter,
  projectWith,
  schemeOf,
  studied,
  withMass,
} from '../testing/make'
import { attach, bodyVolume, exchange, keepAsIs, letGo, placesFor } from './index'

beforeAll(() => openKernel())

const wallsOf = (project: Project, level = 'L0') =>
  studied(project).parts.filter((p) => p.part.kind === 'wall' && p.part.base?.level === level)
const T = 0.28

describe('walls from base to top', () => {
  it('are one for each face, through all storeys, and slabs keep clear of them', () => {
    const project = converted(
      withMass(projectWith([0, 3, 6]), { box: [0, 0, 10, 6], height: 9, name: 'A' }),
      0,
      minter('t'),
      { reach: 'through' },
    )
    const walls = studied(project).parts.filter((p) => p.role === 'wall')
    expect(walls.map((w) => w.body && bodyVolume(w.body) / areaOf(w.plan))).toEqual(
      [9, 9, 9, 9].map((h) => expect.closeTo(h, 9)),
    )
    const slab = studied(project).parts.find((p) => p.role === 'floor slab')
    expect(slab?.area).toBeCloseTo((10 - 2 * T) * (6 - 2 * T), 6)
  })
})

describe('terraces', () => {
  const stepped = () =>
    withMass(withMass(projectWith([0, 3]), { box: [0, 0, 10, 8], height: 3, name: 'Low' }), {
      box: [10, 0, 10, 8],
      height: 6,
      name: 'High',
    })
  it('are what flat tops beside a storey become, with a parapet where they fall away', () => {
    const project = converted(stepped(), 0, minter('t'), {
      ...choicesOf(stepped()),
      terrace: Object.values(stepped().buildUps).find((b) => b.for === 'terrace')?.id ?? null,
      parapet: Object.values(stepped().buildUps).find((b) => b.for === 'parapet')?.id ?? null,
      rise: 1.1,
    })
    const parts = studied(project).parts
    const terrace = parts.find((p) => p.role === 'terrace')
    expect(terrace?.body?.kind === 'prism' && [terrace.body.z0, terrace.body.z1]).toEqual([expect.closeTo(2.74, 9), 3])
    const parapet = parts.find((p) => p.role === 'parapet')
    expect(parapet?.body?.kind === 'prism' && parapet.body.z1).toBeCloseTo(4.1, 9)
    expect(parts.filter((p) => p.role === 'flat roof')).toHaveLength(1)
  })
})

describe('a part that is off its face', () => {
  const house = () => converted(withMass(projectWith([0, 3]), { box: [0, 0, 10, 6], height: 6, name: 'H' }))
  const wider = (project: Project, width: number) =>
    apply(
      project,
      changeRecipe(schemeOf(project), massNamed(project, 'H'), (r) =>
        r.map((m) =>
          m.move === 'outline' && m.shape.kind === 'rectangle' ? { ...m, shape: { ...m.shape, width } } : m,
        ),
      ),
    )
  it('can be kept as it is, until its face changes again', () => {
    const changed = wider(house(), 12)
    const study = studied(changed)
    const east = study.parts.filter((p) => p.part.host.face.endsWith('/east'))
    const kept = apply(changed, keepAsIs(study.context, east))
    const bondsOf = (project: Project) =>
      studied(project)
        .parts.filter((p) => p.part.host.face.endsWith('/east'))
        .map((p) => [p.bond.status, p.bond.left])
    expect(bondsOf(kept)).toEqual([
      ['drifted', true],
      ['drifted', true],
    ])
    expect(studied(kept).findings.filter((f) => f.kind === 'drifted part')).toHaveLength(
      studied(changed).findings.filter((f) => f.kind === 'drifted part').length - 2,
    )
    expect(bondsOf(wider(kept, 13))).toEqual([
      ['drifted', false],
      ['drifted', false],
    ])
    expect(bondsOf(wider(kept, 10))).toEqual([
      ['bonded', false],
      ['bonded', false],
    ])
  })
  it('can be let go, and stays whatever becomes of the form', () => {
    const project = house()
    const [wall] = wallsOf(project)
    const free = apply(project, letGo(studied(project).context, [wall?.id ?? '']))
    const after = wallsOf(wider(free, 14)).find((p) => p.id === wall?.id)
    expect(after?.bond).toEqual({ status: 'loose', why: 'it was let go on purpose', left: true })
    expect(after?.volume).toBeCloseTo(wall?.volume ?? 0, 9)
  })
  it('and loose finds the likeliest face to stand on again, keeping kind, name and build-up', () => {
    const project = house()
    const gone = apply(
      project,
      changeRecipe(schemeOf(project), massNamed(project, 'H'), (r) =>
        r.map((m) =>
          m.move === 'outline'
            ? {
                ...m,
                shape: {
                  kind: 'polygon' as const,
                  corners: [
                    { id: 'a', x: 0, y: 0, bulge: 0 },
                    { id: 'b', x: 10, y: 0, bulge: 0 },
                    { id: 'c', x: 10, y: 7, bulge: 0 },
                    { id: 'd', x: 0, y: 7, bulge: 0 },
                  ],
                },
              }
            : m,
        ),
      ),
    )
    const study = studied(gone)
    const north = study.parts.find((p) => p.part.host.face.endsWith('/north') && p.part.base?.level === 'L0')
    expect(north?.bond.status).toBe('loose')
    if (!north) return
    const places = placesFor(study.context, north.part)
    expect(places[0]?.face).toMatch(/\/c$/)
    const again = studied(
      apply(gone, attach(study.context, north.part, places[0] ?? { mass: '', face: '' })),
    ).parts.find((p) => p.id === north.id)
    expect([again?.bond.status, again?.part.name, again?.part.buildUp]).toEqual([
      'bonded',
      north.part.name,
      north.part.buildUp,
    ])
  })
})

it('a build-up is exchanged for one, for a storey, for all of a kind, and the number is known before', () => {
  const project = converted(withMass(projectWith([0, 3]), { box: [0, 0, 10, 6], height: 6, name: 'H' }))
  const { context } = studied(project)
  const [wall] = wallsOf(project)
  const timber = Object.values(project.buildUps).find((b) => b.name.startsWith('Timber wall'))
  if (!wall || !timber) throw new Error('no wall')
  for (const [reach, count] of [
    ['one', 1],
    ['storey', 4],
    ['all', 8],
  ] as const) {
    const { edit, count: said } = exchange(context, wall.part, timber, reach)
    expect(said).toBe(count)
    expect(Object.values(schemeOf(apply(project, edit)).parts).filter((p) => p.buildUp === timber.id)).toHaveLength(
      count,
    )
  }
})

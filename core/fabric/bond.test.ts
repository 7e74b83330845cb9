import { beforeAll, describe, expect, it } from 'vitest'
import { bringInLine } from './commands'
import { propose } from './propose'
import { moveCorner, newMass } from '../form'
import { openKernel } from '../solid'
import { StudyCache, studyScheme } from '../study'
import {
  apply,
  changeLevel,
  changeMass,
  converted,
  massNamed,
  minter,
  projectWith,
  schemeOf,
  studied,
  withMass,
} from '../testing/make'

beforeAll(() => openKernel())

const skewed = () =>
  converted(
    withMass(projectWith([0, 3]), {
      points: [
        [0, 0],
        [12, -1.25],
        [12, 9],
        [0, 9],
      ],
      height: 6,
      name: 'House',
    }),
  )
const statuses = (project: ReturnType<typeof projectWith>) =>
  Object.fromEntries(
    studied(project)
      .parts.filter((p) => p.part.base?.level !== 'L1')
      .map((p) => [p.role === 'wall' ? p.part.host.face.split('/')[1] : p.role, p.bond.status]),
  )

describe('a part and its face', () => {
  it('are in line after converting', () => {
    expect(new Set(Object.values(statuses(skewed())))).toEqual(new Set(['bonded']))
  })
  it('drift when a corner moves, also where the face keeps its length or its plane', () => {
    const project = skewed()
    const moved = apply(
      project,
      moveCorner(project, schemeOf(project), massNamed(project, 'House').id, 'e2', [12, 1.25]),
    )
    const study = studied(moved)
    const south = study.parts.find((p) => p.part.host.face.endsWith('/e1'))
    expect(south?.length).toBeCloseTo(12.065, 3)
    expect(statuses(moved)).toEqual({
      e1: 'drifted',
      e2: 'drifted',
      e3: 'bonded',
      e4: 'bonded',
      'ground slab': 'drifted',
      'flat roof': 'drifted',
    })
    expect(study.findings.filter((f) => f.kind === 'drifted part').length).toBeGreaterThan(3)
    const mended = apply(moved, bringInLine(study.context, study.parts))
    expect(new Set(Object.values(statuses(mended)))).toEqual(new Set(['bonded']))
    expect(studied(mended).parts.map((p) => p.part.name)).toEqual(study.parts.map((p) => p.part.name))
  })
  it('drift when the mass moves, and stay where they were until brought in line', () => {
    const project = skewed()
    const moved = changeMass(project, 'House', { place: { x: 5, y: 0, turn: 0 } })
    const wall = studied(moved).parts.find((p) => p.part.host.face.endsWith('/e4') && p.part.base?.level === 'L0')
    expect(wall?.bond).toEqual({ left: false, status: 'drifted', why: 'its face has moved' })
    expect(Math.min(...(wall?.plan[0] ?? []).map((p) => p[0]))).toBeCloseTo(0, 9)
  })
  it('do not drift on lower storeys when the mass grows by a storey on top', () => {
    const project = skewed()
    const house = massNamed(project, 'House')
    const taller = changeMass(project, 'House', {
      recipe: house.recipe.map((m) => (m.move === 'raise' ? { ...m, height: 9 } : m)),
    })
    const lower = studied(taller).parts.filter((p) => p.role === 'wall' && p.part.base?.level === 'L0')
    expect(lower.map((p) => p.bond.status)).toEqual(['bonded', 'bonded', 'bonded', 'bonded'])
  })
  it('do not drift when a corner is inserted elsewhere: faces keep their names', () => {
    const project = skewed()
    const house = massNamed(project, 'House')
    const recipe = house.recipe.map((m) =>
      m.move === 'outline' && m.shape.kind === 'polygon'
        ? {
            ...m,
            shape: {
              ...m.shape,
              corners: [
                ...m.shape.corners.slice(0, 3),
                { id: 'new', x: 6, y: 10, bulge: 0 },
                ...m.shape.corners.slice(3),
              ],
            },
          }
        : m,
    )
    expect(statuses(changeMass(project, 'House', { recipe }))).toMatchObject({
      e1: 'bonded',
      e2: 'bonded',
      e4: 'bonded',
      e3: 'drifted',
    })
  })
  it('are loose where their storey has become a mark, and bonded again when it is one, also in a study that goes on', () => {
    const project = skewed()
    const cache = new StudyCache()
    const slabs = (p: typeof project) =>
      studyScheme(p, schemeOf(p).id, cache)
        .parts.filter((q) => q.role === 'floor slab')
        .map((q) => q.bond.status)
    expect(slabs(project)).toEqual(['bonded'])
    const mark = changeLevel(project, 'L1', { kind: 'mark' })
    expect(slabs(mark)).toEqual(['loose'])
    expect(slabs(project)).toEqual(['bonded'])
  })
  it('are loose when the mass is gone, and the finding offers to remove them', () => {
    const project = skewed()
    const gone = apply(project, {
      edit: 'mass.remove',
      scheme: schemeOf(project).id,
      id: massNamed(project, 'House').id,
    })
    const study = studied(gone)
    expect(new Set(study.parts.map((p) => p.bond.status))).toEqual(new Set(['loose']))
    expect(study.findings[0]?.fix?.label).toBe('Remove')
  })
})

describe('walls of a box of 10 x 6, 280 thick', () => {
  const box = () => converted(withMass(projectWith([0, 3]), { box: [0, 0, 10, 6], height: 6 }))
  it('meet in mitred corners, so that no corner is counted twice or missing', () => {
    const study = studied(box())
    const walls = study.parts.filter((p) => p.role === 'wall' && p.part.base?.level === 'L0')
    const ring = 10 * 6 - (10 - 0.56) * (6 - 0.56)
    expect(walls.reduce((sum, w) => sum + w.volume, 0)).toBeCloseTo(ring * 2.7, 6)
    expect(study.floors[0]?.net).toBeCloseTo((10 - 0.56) * (6 - 0.56), 6)
  })
  it('keep their outer faces when they get thicker', () => {
    const project = box()
    const wallType = Object.values(project.buildUps).find((b) => b.name === 'Brick wall 280')
    const thicker = apply(project, {
      edit: 'build-up.change',
      id: wallType?.id ?? '',
      set: { layers: [{ id: 'only', name: 'wall', material: 'brick', thickness: 0.35 }] },
    })
    const outer = (p: typeof project) =>
      studied(p)
        .parts.filter((w) => w.role === 'wall')
        .map((w) => w.plan[0]?.slice(0, 2))
    expect(outer(thicker)).toEqual(outer(project))
    expect(studied(thicker).floors[0]?.net).toBeCloseTo((10 - 0.7) * (6 - 0.7), 6)
  })
  it('reach from the slab to the underside of the slab above, and the topmost to the top of the face', () => {
    const bodies = studied(box())
      .parts.filter((p) => p.role === 'wall')
      .map((p) => p.body)
    expect(bodies.filter((b) => b?.kind === 'prism' && b.z0 === 0 && Math.abs(b.z1 - 2.7) < 1e-9)).toHaveLength(4)
    expect(bodies.filter((b) => b?.kind === 'prism' && b.z0 === 3 && b.z1 === 6)).toHaveLength(4)
  })
  it('are offered once only', () => {
    const { context } = studied(box())
    const again = propose(context)
    expect(again.candidates).toHaveLength(0)
    expect(new Set(again.leftOut.map((l) => l.why))).toEqual(new Set(['is made already']))
  })
})

describe('masses side by side', () => {
  it('open to one another where they touch, as if they were joined; of different uses they share one wall', () => {
    const project = (use: string) =>
      withMass(withMass(projectWith([0]), { box: [0, 0, 10, 6], height: 3, name: 'A' }), {
        box: [10, 0, 8, 6],
        height: 3,
        name: 'B',
        use,
      })
    const walls = (use: string) => propose(studied(project(use)).context)
    expect(walls('homes').candidates.filter((c) => c.role === 'wall')).toHaveLength(6)
    expect(walls('market').candidates.filter((c) => c.role === 'wall')).toHaveLength(7)
    expect(walls('market').leftOut.filter((l) => l.why.startsWith('stands against'))).toHaveLength(1)
  })
  it('have no roof under another mass, and no wall inside one', () => {
    let project = projectWith([0, 3])
    project = withMass(project, { box: [0, 0, 10, 10], height: 3, name: 'Podium' })
    project = withMass(project, { box: [0, 0, 10, 10], height: 3, name: 'Tower', level: 'L1' })
    const { candidates, leftOut } = propose(studied(project).context)
    expect(candidates.filter((c) => c.role === 'flat roof').map((c) => c.part.host.mass)).toEqual([
      massNamed(project, 'Tower').id,
    ])
    expect(leftOut.some((l) => l.why === 'another mass stands on all of it')).toBe(true)
  })
  it('a storey not taken has no slab, and the wall below runs past it', () => {
    const base = projectWith([0, 3])
    const scheme = schemeOf(base)
    const mass = newMass(scheme, minter('m'), {
      name: 'Hall',
      use: Object.keys(base.uses)[0] ?? '',
      level: 'L0',
      height: 6,
      shape: { kind: 'rectangle', from: [0, 0], to: [10, 6] },
    })
    const project = converted(
      apply(base, {
        edit: 'mass.add',
        scheme: scheme.id,
        thing: { ...mass, takes: { kind: 'all-but', levels: ['L1'] } },
      }),
    )
    const study = studied(project)
    expect(study.parts.filter((p) => p.role === 'floor slab')).toHaveLength(0)
    expect(study.parts.filter((p) => p.role === 'wall').map((p) => p.body)).toHaveLength(4)
    expect(study.parts.filter((p) => p.role === 'wall').every((p) => p.body?.kind === 'prism' && p.body.z1 === 6)).toBe(
      true,
    )
  })
  it('that overlap without being joined are pointed out, with how much of the wall is left out', () => {
    let project = projectWith([0])
    project = withMass(project, { box: [0, 0, 20, 10], height: 3, name: 'A' })
    project = withMass(project, { box: [15, 4, 20, 10], height: 3, name: 'B' })
    const { candidates, remarks } = propose(studied(project).context)
    expect(candidates.filter((c) => c.role === 'wall').map((c) => Math.round(c.area))).toEqual([
      60, 12, 45, 30, 45, 30, 60, 12,
    ])
    expect(remarks.map((r) => r.say)).toEqual(
      ['B', 'B', 'A', 'A'].map(
        (other, i) => `about ${[6, 5, 5, 6][i]}.000 m of it lie inside ${other}, and are left out`,
      ),
    )
  })
})

import { beforeAll, describe, expect, it } from 'vitest'
import { withStep } from '../form'
import { propose, USUAL } from '../fabric'
import { areaOf, openKernel } from '../solid'
import { ruleRun, type Project } from '../project'
import { apply, schemeOf, studied } from '../testing/make'
import { StudyCache, studyScheme } from './index'
import { only, ruled, stepOf, striped, withDial, withTurn } from '../testing/ruled'

beforeAll(() => openKernel())

describe('the tower cluster', () => {
  for (const [turn, x, y] of [
    [0, 0, 0],
    [37.3, 0, 0],
    [-114.6, 32456789.25, 5534321.5],
  ] as const)
    it(`stands on six cells, twisted between 21 and 91, turned by ${turn}`, () => {
      const study = studied(withTurn(ruled('cluster', 31, 3.5), turn, x, y))
      expect(study.findings.filter((f) => f.kind.includes('rule'))).toEqual([])
      expect(study.forms).toHaveLength(6)
      expect(study.totals.area).toBeCloseTo(16434.96, 3)
      expect(new Set(study.forms.map((f) => f.body)).size).toBe(2)
      for (const floor of study.floors) {
        expect(floor.area).toBeCloseTo(6 * 88.36, 5)
        expect(floor.plates).toHaveLength(6)
      }
    })
  it('has plates about (-14|0|14, -7|7), turned by their height, every other one the other way', () => {
    const study = studied(ruled('cluster', 31, 3.5))
    const key = (id: string) => study.growth.from.get(id)?.key ?? ''
    for (const [z, turn] of [
      [0, 0],
      [21, 0],
      [42, 21.6],
      [63, 43.2],
      [91, 72],
      [105, 72],
    ] as const)
      for (const form of study.forms) {
        const [column, row] = key(form.id).split('-').map(Number) as [number, number]
        const sense = (column + row) % 2 === 0 ? 1 : -1
        const [cx, cy] = [14 * (column - 2), 14 * row - 21]
        const region = study.context.plateAt(form, z)?.region ?? []
        expect(areaOf(region)).toBeCloseTo(88.36, 6)
        const corners = [45, 135, 225, 315].map((d) => {
          const a = ((d + sense * turn) * Math.PI) / 180
          return [cx + 4.7 * Math.SQRT2 * Math.cos(a), cy + 4.7 * Math.SQRT2 * Math.sin(a)] as const
        })
        for (const p of region[0] ?? [])
          expect(Math.min(...corners.map(([x, y]) => Math.hypot(x - p[0], y - p[1]))), `${z}`).toBeLessThan(1e-5)
      }
  })
  it('inset by 0.8 only, towers overlap from 31.5 on, counted once', () => {
    const study = studied(withDial(ruled('cluster', 31, 3.5), 'inset', 0.8))
    const summed = study.floors.map((f) => f.plates.reduce((sum, p) => sum + areaOf(p.region), 0))
    const twice = study.floors.map((f, i) => (summed[i] ?? 0) - f.area)
    expect(summed.reduce((a, b) => a + b, 0)).toBeCloseTo(28599.36, 3)
    expect(study.totals.area).toBeCloseTo(27996.78, 2)
    const by = new Map(study.floors.map((f, i) => [f.level.height, twice[i] ?? 0]))
    expect([...by].filter(([z, t]) => z < 31.4 && t > 1e-6)).toEqual([])
    expect(by.get(31.5)).toBeCloseTo(2.414, 3)
    expect(by.get(63)).toBeCloseTo(43.64, 3)
    expect(by.get(66.5)).toBeCloseTo(43.64, 3)
    expect(Math.max(...twice)).toBeCloseTo(43.64, 3)
  })
})

it('while a dial is tried its areas come first; volume and footprint are those of before and said to be so, until it rests', () => {
  const cache = new StudyCache()
  const before = ruled('cluster', 31, 3.5)
  const id = schemeOf(before).id
  const was = studyScheme(before, id, cache)
  const tried = withDial(before, 'inset', 0.8)
  const quick = studyScheme(tried, id, cache, undefined, true)
  expect(quick.totals.area).toBeCloseTo(27996.78, 2)
  expect([quick.totals.pending, quick.totals.volume]).toEqual([true, was.totals.volume])
  const whole = studyScheme(tried, id, cache)
  expect(whole.totals).toEqual(studied(tried).totals)
  expect(whole.totals.pending).toBe(false)
  // Known by then, it is there at once.
  expect(studyScheme(tried, id, cache, undefined, true).totals).toEqual(whole.totals)
})

describe('a side by its meaning', () => {
  const front = (project: Project) => {
    const study = studied(project)
    const id = stepOf(project, 'side').id
    const run = ruleRun(project, schemeOf(project), only(project))
    return run.cells.map((cell) => {
      const [outer] = cell.plan
      const i = (outer ?? []).findIndex((c) => c.id === cell.sides[id])
      const at = (k: number) => outer?.[k % outer.length]?.at ?? [0, 0]
      const [p, q] = [at(i), at(i + 1)]
      return { ys: [cell.y + (p[1] ?? 0), cell.y + (q[1] ?? 0)], study }
    })
  }
  it('is the front of each, also after the twist, its sense or the counts have changed', () => {
    const inset = (project: Project) => {
      // The side is named before the inset: at the foot it lies 2.3 further in.
      const ys = front(project).flatMap((f) => f.ys.map((y) => Math.round((y + 2.3) * 1e6) / 1e6))
      return [...new Set(ys)].sort((a, b) => a - b)
    }
    const project = ruled('cluster', 31, 3.5)
    expect(inset(project)).toEqual([-11.7, 2.3])
    expect(inset(withDial(project, 'twist', 100))).toEqual([-11.7, 2.3])
    expect(inset(withDial(project, 'columns', 5))).toEqual([-11.7, 2.3])
    const drawn = {
      kind: 'polygon',
      corners: [
        [-21, -14],
        [-21, 14],
        [21, 14],
        [21, -14],
      ].map(([x, y], i) => ({ id: `q${i}`, x, y, bulge: 0 })),
    }
    const clockwise = apply(
      project,
      withStep(schemeOf(project), only(project).id, stepOf(project, 'plan').id, { shape: drawn }),
    )
    expect(inset(clockwise)).toEqual([-11.7, 2.3])
  })
  it('says how many it found, where these are others than before', () => {
    const project = ruled('cluster', 31, 3.5)
    const looked = apply(
      project,
      withStep(schemeOf(project), only(project).id, stepOf(project, 'side').id, { found: 6 }),
    )
    expect(studied(looked).findings.filter((f) => f.kind.includes('rule'))).toEqual([])
    const more = studied(withDial(looked, 'columns', 4)).findings.filter((f) => f.kind.includes('rule'))
    expect(more.map((f) => f.say)).toEqual([expect.stringContaining('8 now, and were 6')])
  })
})

describe('strips of a named side', () => {
  it('nine on each of six: 30 of the first and 24 of the second, 1.0444 wide at the foot; they sum to the face', () => {
    const project = striped()
    const study = studied(project)
    const masses = study.forms.map((f) => study.scheme.masses[f.id])
    const used = masses.flatMap((m) => Object.values(m?.faces ?? {}))
    const [first, second] = [...new Set(used)]
    expect([used.length, used.filter((m) => m === first).length, used.filter((m) => m === second).length]).toEqual([
      54, 30, 24,
    ])
    for (const [i, form] of study.forms.entries()) {
      const faces = form.body.faces()
      const strips = faces.filter((f) => Object.keys(masses[i]?.faces ?? {}).includes(f.name))
      expect(strips).toHaveLength(9)
      // The divided face is not there a second time: nine strips, three sides, top and base.
      expect(faces).toHaveLength(9 + 3 + 2)
      for (const s of strips) {
        const foot = s.loops.flatMap((l) => l.points).filter((p) => Math.abs(p[2]) < 1e-9)
        const [a, b] = foot as [[number, number, number], [number, number, number]]
        expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeCloseTo(9.4 / 9, 6)
      }
    }
    expect(study.totals.area).toBeCloseTo(16434.96, 3)
  })
  it('one storey of a strip in the twisting zone is 65.3 to 65.6 mm off flat, below and above it 0', () => {
    const study = studied(striped())
    const id = study.forms[0]?.id ?? ''
    const names = new Set(Object.keys(study.scheme.masses[id]?.faces ?? {}))
    const { candidates } = propose(study.context, [id], { ...USUAL, bent: 'facets' })
    const walls = candidates.filter((c) => names.has(c.part.host.face) && c.part.base)
    const off = (c: (typeof walls)[number]) => c.warp ?? 0
    const height = (c: (typeof walls)[number]) => study.context.heights.get(c.part.base?.level ?? '') ?? -1
    const twisting = walls.filter((c) => height(c) > 20.9 && height(c) < 90.9)
    expect([walls.length, twisting.length]).toEqual([9 * 31, 9 * 20])
    expect(Math.min(...twisting.map(off))).toBeGreaterThan(0.0653)
    expect(Math.max(...twisting.map(off))).toBeLessThan(0.0656)
    expect(Math.max(...walls.filter((w) => !twisting.includes(w)).map(off))).toBeLessThan(1e-9)
  })
  it('up its height, and in patches like a chessboard: they are the face, and stay so where it is twisted', () => {
    for (const [way, count, rows] of [
      ['height', 1, 5],
      ['both', 4, 3],
    ] as const) {
      const project = striped(9, 'any', 31, { way, count, rows })
      const study = studied(project)
      const plain = studied(count === 1 ? ruled('cluster', 31, 3.5) : striped(count, 'any'))
      expect(study.findings.filter((f) => f.kind.includes('rule'))).toEqual([])
      expect(study.totals.area).toBeCloseTo(16434.96, 3)
      for (const [i, form] of study.forms.entries()) {
        expect(form.body.leftOut).toEqual([])
        const dressed = study.scheme.masses[form.id]?.faces ?? {}
        const faces = form.body.faces()
        const parts = faces.filter((f) => f.name in dressed)
        expect(parts).toHaveLength(count * rows)
        expect(faces).toHaveLength(count * rows + 3 + 2)
        const was = plain.forms[i]?.body.faces() ?? []
        const sum = (list: typeof faces) => list.reduce((area, f) => area + f.area, 0)
        expect(sum(faces)).toBeCloseTo(sum(was), 3)
        expect(form.body.volume).toBeCloseTo(plain.forms[i]?.body.volume ?? 0, 4)
        const lowest = parts.filter((f) => f.loops.flatMap((l) => l.points).some((p) => Math.abs(p[2]) < 1e-9))
        expect(lowest).toHaveLength(count)
        expect(new Set(lowest.map((f) => dressed[f.name])).size).toBe(Math.min(2, count))
      }
    }
    expect(() => striped(9, 'alike', 31, { way: 'both', count: 3, rows: 4 })).toThrow(/4 strips.*Take 3 or 5/)
  })
  it('an even number cannot have both ends alike, and says what can', () => {
    expect(() => striped(8)).toThrow(/8 strips in 2 materials in turn cannot have both ends alike.*Take 7 or 9/)
    expect(() => striped(8, 'any')).not.toThrow()
  })
})

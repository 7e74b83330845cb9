import { beforeAll, describe, expect, it } from 'vitest'
import { applyEdit } from '../edits'
import { duplicateScheme } from '../groundwork'
import { crispEdge, crispnessOf, isOpen, moveJoint, openFace, pullFace } from '../form'
import type { Move } from '../moves'
import { areaOf, openKernel } from '../solid'
import type { Project } from '../project'
import { apply, changeMass, massNamed, minter, projectWith, schemeOf, studied, withMass } from '../testing/make'

beforeAll(() => openKernel())

const mint = minter('soft')
type Soft = Extract<Move, { move: 'soft' }>
const softMove = (set: Partial<Soft>): Soft => ({
  id: 'soft',
  move: 'soft',
  on: true,
  edges: 'smooth',
  steps: 2,
  own: [],
  open: [],
  thick: 0.05,
  ...set,
})
/** A block of a size, softened, on storeys of 0.25 m; turned and put somewhere. */
function softened(
  box: [number, number, number],
  set: Partial<Soft>,
  at: { x: number; y: number; turn: number } = { x: 0, y: 0, turn: 0 },
  before: Move[] = [],
): Project {
  const plain = withMass(
    projectWith(
      Array.from({ length: 4 }, (_, i) => i * 0.25),
      mint,
    ),
    { name: 'Soft', height: box[2], box: [0, 0, box[0], box[1]] },
  )
  const mass = massNamed(plain, 'Soft')
  return changeMass(plain, 'Soft', { place: at, recipe: [...mass.recipe, ...before, softMove(set)] })
}
const body = (project: Project) => {
  const form = studied(project).forms.find((f) => f.name === 'Soft')
  if (!form) throw new Error('not built')
  return form.body
}
const face = (project: Project, own: string) =>
  body(project)
    .faces()
    .find((f) => f.name.endsWith(`/${own}`))?.name ?? own

describe('a soft form', () => {
  it('a cube of 1 m: 0.4271 m3 after one step, 0.3502 after two; with all edges crisp exactly 1', () => {
    const volume = (set: Partial<Soft>) => body(softened([1, 1, 1], set)).volume
    expect(volume({ steps: 1 })).toBeCloseTo(0.42708333, 7)
    expect(volume({ steps: 2 })).toBeCloseTo(0.3501918, 7)
    expect(volume({ steps: 2, edges: 'crisp' })).toBeCloseTo(1, 12)
    expect(volume({ steps: 0 })).toBeCloseTo(1, 12)
    // By the tolerance it comes near to what it tends to.
    expect(Math.abs(volume({ steps: null }) - 0.3279)).toBeLessThan(0.006)
  })
  it('keeps its six faces by their names, wherever it stands', () => {
    for (const at of [
      { x: 0, y: 0, turn: 0 },
      { x: 32456789.125, y: 5534321.5, turn: -63.5 },
    ]) {
      const made = body(softened([4, 3, 1], { steps: 2 }, at))
      expect(made.leftOut).toEqual([])
      expect(new Set(made.faces().map((f) => f.name)).size).toBe(6)
      expect(made.volume).toBeCloseTo(12 * 0.3501918, 5)
    }
  })
  it('its plates are those of the mesh that is shown: their integral is its volume', () => {
    const made = body(softened([4, 3, 1], { steps: 3 }))
    const n = 400
    const study = studied(softened([4, 3, 1], { steps: 3 }))
    const form = study.forms[0]
    if (!form) throw new Error('none')
    const { base, top } = form
    let sum = 0
    for (let i = 0; i < n; i++) {
      const z = base + ((top - base) * (i + 0.5)) / n
      sum += areaOf(study.context.plateAt(form, z)?.region ?? []) * ((top - base) / n)
    }
    expect(sum / made.volume).toBeCloseTo(1, 3)
  })
  it('an edge of its own stays crisp by its degree: more of the body is left the longer it does', () => {
    const plain = softened([1, 1, 1], { steps: 3 })
    const [top, south] = [face(plain, 'top'), face(plain, 'south')]
    const volumes = [0, 0.5, 1, 2, 10].map(
      (degree) => body(softened([1, 1, 1], { steps: 3, own: [{ id: 'o', a: top, b: south, degree }] })).volume,
    )
    expect([...volumes].sort((a, b) => a - b)).toEqual(volumes)
    expect(volumes[0]).toBeCloseTo(body(plain).volume, 12)
  })
  it('open below and crisp, its skin is as thick as told at every face', () => {
    const plain = softened([10, 8, 5], { steps: 0 })
    const open = [{ id: 'x', face: face(plain, 'base') }]
    const made = body(softened([10, 8, 5], { steps: 0, edges: 'crisp', open, thick: 0.2 }))
    // What is left within: 9.6 by 7.6 by 4.8 m.
    expect(made.volume).toBeCloseTo(400 - 9.6 * 7.6 * 4.8, 4)
  })
  it('open below, it is a skin of its thickness, closed by a rim', () => {
    const plain = softened([4, 3, 1], { steps: 2 })
    const made = body(softened([4, 3, 1], { steps: 2, open: [{ id: 'x', face: face(plain, 'base') }], thick: 0.05 }))
    expect(made.leftOut).toEqual([])
    const outer = made
      .faces()
      .filter((f) => !f.name.startsWith('soft/'))
      .reduce((sum, f) => sum + f.area, 0)
    expect(made.volume / (outer * 0.05)).toBeGreaterThan(0.9)
    expect(made.volume / (outer * 0.05)).toBeLessThan(1.05)
    expect(made.faces().some((f) => f.name === 'soft/rim')).toBe(true)
  })
  it('what shapes its cage goes before it, and it follows', () => {
    const pulled = softened([4, 3, 1], { steps: 2 }, { x: 0, y: 0, turn: 20 }, [])
    const taller = changeMass(pulled, 'Soft', {
      recipe: massNamed(pulled, 'Soft').recipe.map((m) => (m.move === 'raise' ? { ...m, height: 2 } : m)),
    })
    expect(body(taller).volume).toBeCloseTo(2 * body(pulled).volume, 6)
    expect(studied(taller).unbuilt).toEqual([])
    expect(apply(taller, { edit: 'scheme.change', id: schemeOf(taller).id, set: { name: 'X' } })).toBeTruthy()
  })
  it('symmetric about a plane: the far half is the image of the near one, whatever that is pulled to', () => {
    const shift = { id: 'sh', move: 'shift-corner' as const, on: true, a: '', b: '', c: null, x: -0.4, y: 0, z: 0.3 }
    const names = (own: string) => face(softened([4, 2, 1], {}), own)
    const before = [{ ...shift, a: names('west'), b: names('top') }]
    for (const at of [
      { x: 0, y: 0, turn: 0 },
      { x: 5e6, y: 4e5, turn: 33 },
    ]) {
      const crisp = body(softened([4, 2, 1], { edges: 'crisp', symmetric: 'x', about: 2 }, at, before))
      expect(crisp.leftOut).toEqual([])
      // The near half is a prism of 2 whose upper edge stands out by 0.4 and up by 0.3.
      const near = [
        [0, 0],
        [2, 0],
        [2, 1 + (0.3 * 2) / 4.4],
        [-0.4, 1.3],
      ] as const
      const area = near.reduce((sum, [x, z], i) => {
        const [u, w] = near[(i + 1) % 4] as (typeof near)[number]
        return sum + (x * w - u * z) / 2
      }, 0)
      expect(crisp.volume).toBeCloseTo(2 * 2 * area, 6)
      const soft = body(softened([4, 2, 1], { symmetric: 'x', about: 2, steps: 3 }, at, before))
      expect(soft.leftOut).toEqual([])
      const { positions: p } = soft.solid
      const points = new Set<string>()
      const key = (x: number, y: number, z: number) => [x, y, z].map((c) => Math.round(c * 1e4)).join()
      for (let i = 0; i < p.length; i += 3) points.add(key(p[i] ?? 0, p[i + 1] ?? 0, p[i + 2] ?? 0))
      for (let i = 0; i < p.length; i += 3)
        expect(points.has(key(4 - (p[i] ?? 0), p[i + 1] ?? 0, p[i + 2] ?? 0))).toBe(true)
      expect(soft.faces().filter((f) => f.name.startsWith('soft/image'))).toHaveLength(5)
    }
    const shell = body(
      softened([4, 2, 1], { symmetric: 'x', about: 2, open: [{ id: 'o', face: names('west') }], thick: 0.1 }),
    )
    expect(shell.leftOut).toEqual([])
    expect(shell.faces().some((f) => f.name === 'soft/image/inside/top')).toBe(true)
    // Open at both of its ends: two rims.
    expect(shell.faces().filter((f) => f.name.startsWith('soft/rim'))).toHaveLength(2)
    expect(body(softened([4, 2, 1], { symmetric: 'x', about: 40 })).leftOut[0]?.say).toContain(
      'does not reach the plane',
    )
  })
  it('its edges are crisp by a pick, its faces opened by one, and its cage is pulled again by the same move', () => {
    const plain = softened([1, 1, 1], {})
    const { id } = massNamed(plain, 'Soft')
    const edge = [face(plain, 'top'), face(plain, 'south')]
    const crisp = apply(plain, crispEdge(schemeOf(plain), mint, id, edge, 10))
    expect(crispnessOf(massNamed(crisp, 'Soft'), [...edge].reverse())).toBe(10)
    expect(body(crisp).volume).toBeGreaterThan(body(plain).volume)
    expect(body(apply(crisp, crispEdge(schemeOf(crisp), mint, id, edge, null))).volume).toBe(body(plain).volume)
    const open = apply(plain, openFace(schemeOf(plain), mint, id, face(plain, 'base'), true))
    expect(isOpen(massNamed(open, 'Soft'), face(plain, 'base'))).toBe(true)
    expect(body(apply(open, openFace(schemeOf(open), mint, id, face(plain, 'base'), false))).volume).toBe(
      body(plain).volume,
    )
    let pulled = plain
    for (const by of [0.1, 0.15])
      pulled = apply(pulled, moveJoint(pulled, schemeOf(pulled), mint, id, edge, [0, -by, by]))
    const moves = massNamed(pulled, 'Soft').recipe
    expect(moves.map((m) => m.move)).toEqual(['outline', 'raise', 'shift-corner', 'soft'])
    expect(moves[2]).toMatchObject({ y: -0.25, z: 0.25 })
    expect(() => pullFace(open, schemeOf(open), mint, id, 'soft/rim', 0.1)).toThrow(/made by softening/)
  })
  it('is pulled alike however it stands, in a duplicated scheme too, and undone after another has worked on it', () => {
    for (const at of [
      { x: 0, y: 0, turn: 0 },
      { x: 32456789.25, y: 5534321.5, turn: -37.3 },
    ]) {
      const plain = softened([4, 2, 1], { edges: 'crisp' }, at)
      const copied = apply(plain, duplicateScheme(plain, schemeOf(plain), mint(), 'Another'))
      for (const project of [plain, copied]) {
        const { id } = massNamed(project, 'Soft')
        const corner = ['top', 'east', 'north'].map((own) => face(project, own))
        // 0.4 out along the mass's own x, as it lies in the world: a quarter of the east face goes along.
        const a = (at.turn * Math.PI) / 180
        const out: [number, number, number] = [0.4 * Math.cos(a), 0.4 * Math.sin(a), 0]
        const edit = moveJoint(project, schemeOf(project), mint, id, corner, out)
        const { project: pulled, inverse } = applyEdit(project, edit)
        expect(body(pulled).leftOut).toEqual([])
        expect(body(pulled).volume).toBeCloseTo(8 + (0.4 * 2) / 4, 6)
        const crisp = apply(pulled, crispEdge(schemeOf(pulled), mint, id, corner.slice(0, 2), 0))
        const back = apply(crisp, inverse)
        expect(massNamed(back, 'Soft').recipe.map((m) => m.move)).toEqual(['outline', 'raise', 'soft'])
        expect(crispnessOf(massNamed(back, 'Soft'), corner.slice(0, 2))).toBe(0)
      }
    }
  })
  it('what is curved already is left as it is, with a sentence', () => {
    const round = softened([4, 3, 1], { steps: 2 }, { x: 0, y: 0, turn: 0 }, [
      { id: 'tw', move: 'twist', on: true, angle: 30, from: 0, to: null } as Move,
    ])
    expect(body(round).leftOut.map((l) => l.say)).toEqual([expect.stringContaining('curved already')])
  })
})

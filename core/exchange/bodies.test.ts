import { validateBytes } from 'gltf-validator'
import { beforeAll, describe, expect, it } from 'vitest'
import { addBodies, joinMasses } from '../form'
import { readProjectFile, writeProjectFile, type Project } from '../project'
import { openKernel, volumeOf } from '../solid'
import { ledgerOf } from '../study'
import { joinedShed } from '../testing/boat-shed'
import { apply, converted, minter, projectWith, schemeOf, studied, withMass, withMoves } from '../testing/make'
import { objBox } from '../testing/obj-box'
import { formatNamed, readBodies } from './index'

beforeAll(() => openKernel())

const written = async (project: Project, format: string): Promise<Uint8Array> => {
  const content = await formatNamed(format).write(studied(project), '2026-01-01T00:00:00Z')
  return typeof content === 'string' ? new TextEncoder().encode(content) : content
}
/** The project's levels with nothing but the bodies of a file on them. */
async function readAgain(project: Project, name: string, bytes: Uint8Array): Promise<Project> {
  const scheme = schemeOf(project)
  const empty: Project = { ...project, schemes: { [scheme.id]: { ...scheme, masses: {}, parts: {} } } }
  const { bodies: read } = await readBodies(name, bytes, false)
  const use = Object.values(scheme.masses)[0]?.use ?? ''
  return apply(
    empty,
    addBodies(schemeOf(empty), minter('read'), read, { use, level: 'L0', levelHeight: 0, context: false }),
  )
}
const shed = () => joinedShed()
const tower = () =>
  withMoves(withMass(projectWith([0, 3, 6, 9]), { box: [2, 3, 12, 12], height: 12, name: 'Tower' }), 'Tower', {
    id: 'tw',
    move: 'twist',
    on: true,
    angle: 40,
    from: 0,
    to: null,
  })
const hall = () => withMass(projectWith([0, 3]), { circle: [350_000, 5_600_000, 6.3], height: 6, name: 'Hall' })

describe('a body written and read in again', () => {
  it.each([
    ['shed', shed, 'obj'],
    ['tower', tower, 'obj'],
    ['hall', hall, 'obj'],
    ['shed', shed, 'glb'],
    ['tower', tower, 'glb'],
    ['hall', hall, 'glb'],
    ['shed', shed, 'ifc'],
    ['tower', tower, 'ifc'],
  ] as const)('gives the same ledger: %s, %#', async (_name, make, format) => {
    const project = make()
    const again = await readAgain(project, `forms.${format}`, await written(project, format))
    const [before, after] = [ledgerOf(studied(project)), ledgerOf(studied(again))]
    before.levels.forEach((l, i) => {
      expect(after.levels[i]?.area).toBeCloseTo(l.area, 2)
      expect(after.levels[i]?.low).toBeCloseTo(l.low, 2)
    })
    expect(after.totals.volume / before.totals.volume).toBeCloseTo(1, 5)
    expect(studied(again).findings.filter((f) => f.kind === 'open or self-crossing body')).toEqual([])
  })
  it('has faces grouped by plane, each with a name', async () => {
    const {
      bodies: [read],
    } = await readBodies(
      'box.obj',
      await written(withMass(projectWith([0]), { box: [0, 0, 10, 6], height: 3 }), 'obj'),
      false,
    )
    expect(read?.body.faces.map((f) => f.name)).toEqual(['f1', 'f2', 'f3', 'f4', 'f5', 'f6'])
    expect(read?.body.faces.every((f) => f.triangles.length === 6)).toBe(true)
  })
})

describe('OBJ', () => {
  it('has the volume that we state, by signed tetrahedra', async () => {
    for (const project of [shed(), tower(), withMass(projectWith([0]), { circle: [4, 4, 6.3], height: 5 })]) {
      const text = new TextDecoder().decode(await written(project, 'obj'))
      const v = [...text.matchAll(/^v (\S+) (\S+) (\S+)$/gm)].map(
        (m) => [Number(m[1]), Number(m[2]), Number(m[3])] as const,
      )
      const six = [...text.matchAll(/^f (\d+) (\d+) (\d+)$/gm)].reduce((sum, m) => {
        const [a, b, c] = [v[Number(m[1]) - 1], v[Number(m[2]) - 1], v[Number(m[3]) - 1]] as [
          readonly [number, number, number],
          readonly [number, number, number],
          readonly [number, number, number],
        ]
        return (
          sum +
          a[0] * (b[1] * c[2] - b[2] * c[1]) +
          a[1] * (b[2] * c[0] - b[0] * c[2]) +
          a[2] * (b[0] * c[1] - b[1] * c[0])
        )
      }, 0)
      expect(Math.abs(six / 6 / studied(project).totals.volume - 1)).toBeLessThan(1e-6)
    }
  })
})

describe('GLB', () => {
  it('passes the validator without an error, with parts, materials and bent faces in it', async () => {
    const project = converted(withMass(tower(), { circle: [40, 0, 6.3], height: 6, name: 'Hall' }))
    const { issues } = await validateBytes(await written(project, 'glb'))
    expect(issues.messages.filter((m: { severity: number }) => m.severity === 0)).toEqual([])
    expect(issues.numErrors).toBe(0)
  })
})

describe('STL', () => {
  it('has as many triangles as it says, and the volume of the forms', async () => {
    const project = shed()
    const bytes = await written(project, 'stl')
    const view = new DataView(bytes.buffer)
    expect(bytes.length).toBe(84 + 50 * view.getUint32(80, true))
    const positions: number[] = []
    for (let at = 84; at < bytes.length; at += 50)
      for (let k = 0; k < 9; k++) positions.push(view.getFloat32(at + 12 + k * 4, true))
    const triangles = Uint32Array.from(positions.map((_, i) => i).slice(0, positions.length / 3))
    expect(
      volumeOf({ positions: Float64Array.from(positions), triangles, facetOf: new Uint32Array(), facets: [] }),
    ).toBeCloseTo(studied(project).totals.volume, 2)
  })
})

describe('a file that is no body is refused with a sentence', () => {
  const bytes = (text: string) => new TextEncoder().encode(text)
  it.each([
    ['notes.txt', 'hello', /no file that bodies are read from.*\.ifc, \.obj, \.glb/],
    ['a.obj', '', /empty/],
    ['a.obj', '# nothing', /no body in/],
    ['a.obj', 'v 1 2 x\n', /Line 1 .* is no point/],
    ['a.obj', 'v 0 0 0\nf 1 2 3\n', /Line 2 .* point that is not there/],
    ['a.glb', 'glTF?', /no binary glTF/],
    ['a.ifc', 'PK', /no IFC file/],
  ])('%s %#', async (name, text, sentence) => {
    await expect(readBodies(name, bytes(text), false)).rejects.toThrow(sentence)
  })
  it('or is taken, and found, when it is open or passes through itself', async () => {
    const lid = (text: string) =>
      readAgain(withMass(projectWith([0, 3]), { box: [0, 0, 4, 4], height: 3 }), 'lid.obj', bytes(text))
    const box = (x: number, from: number) => `${objBox([x, x, x, 4, 4, 4], from).join('\n')}\n`
    const found = async (text: string) =>
      studied(await lid(text))
        .findings.filter((f) => f.kind === 'open or self-crossing body')
        .map((f) => f.say)
    expect(await found(box(0, 0))).toEqual([])
    expect(await found(box(0, 0).replace(/f 5 6 7 8\n/, ''))).toEqual([expect.stringMatching(/is not closed/)])
    // Two closed bodies in one object that overlap are united.
    expect(await found(`o two\n${box(0, 0)}${box(2, 8)}`)).toEqual([])
    const [problem] = studied(await lid(box(0, 0).replace(/f 5 6 7 8\n/, ''))).findings
    expect(problem?.fix?.label).toBe('Keep it as context')
  })
})

it('an open body that stands in another mass is a finding, not the end of the study', async () => {
  const open = new TextEncoder().encode(
    'v 0 0 0\nv 4 0 0\nv 4 4 0\nv 0 4 0\nv 0 0 4\nv 4 0 4\nv 4 4 4\nv 0 4 4\nf 4 3 2 1\nf 1 2 6 5\nf 2 3 7 6\nf 3 4 8 7\nf 4 1 5 8\n',
  )
  const project = withMass(
    await readAgain(withMass(projectWith([0, 3]), { box: [0, 0, 4, 4], height: 3 }), 'lid.obj', open),
    { box: [1, 1, 5, 5], height: 3, name: 'House' },
  )
  expect(studied(project).findings.map((f) => f.kind)).toContain('open or self-crossing body')
  const [lid, house] = Object.values(schemeOf(project).masses)
  expect(() => joinMasses(project, schemeOf(project), minter(), house?.id ?? '', lid?.id ?? '')).toThrow(/not closed/)
})

it('the project file comes back equal to the byte with everything that version 2 added', async () => {
  const project = await readAgain(tower(), 'forms.obj', await written(tower(), 'obj'))
  const first = await written(project, 'geotome')
  expect(writeProjectFile(readProjectFile(first))).toEqual(first)
})

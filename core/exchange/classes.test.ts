import { Document, WebIO } from '@gltf-transform/core'
import { EXTMeshGPUInstancing } from '@gltf-transform/extensions'
import { beforeAll, describe, expect, it } from 'vitest'
import { openKernel } from '../solid'
import { converted, projectWith, studied, withMass } from '../testing/make'
import { formatNamed, readBodies } from './index'

beforeAll(() => openKernel())
const house = () => withMass(projectWith([0, 3]), { box: [0, 0, 10, 8], height: 6, name: 'House' })
const written = async (format: string) =>
  (await formatNamed(format).write(studied(converted(house())), '2030-01-01T12:00:00Z')) as string | Uint8Array
const bytesOf = (file: string | Uint8Array) => (typeof file === 'string' ? new TextEncoder().encode(file) : file)
const read = async (name: string, file: string | Uint8Array, take?: string) =>
  readBodies(name, bytesOf(file), false, null, take ? { take } : {})

describe('a file of a whole building asks what to take', () => {
  it.each(['ifc', 'ifc-forms'] as const)('%s: forms, parts and spaces are the same volume', async (format) => {
    const file = await written(format)
    const found = await read('house.ifc', file)
    const [ask] = found.asks
    expect(ask?.what).toBe('take')
    const counts = Object.fromEntries(
      (ask?.options ?? []).map((o) => [o.value, Number(/\((\d+)\)$/.exec(o.label)?.[1])]),
    )
    expect(counts.all).toBe(Object.entries(counts).reduce((sum, [c, n]) => sum + (c === 'all' ? 0 : n), 0))
    for (const option of ask?.options ?? [])
      expect((await read('house.ifc', file, option.value)).bodies).toHaveLength(counts[option.value] ?? -1)
    if (format === 'ifc-forms') expect([ask?.taken, found.bodies.map((b) => b.name)]).toEqual(['forms', ['House']])
    else expect(ask?.taken).toBe('parts')
  })
  it('GLB: by what its nodes say; a file that says nothing asks nothing', async () => {
    const project = converted(house())
    const two = withMass(project, { box: [30, 0, 5, 5], height: 3, name: 'Shed' })
    const file = (await formatNamed('glb').write(studied(two), '2030-01-01T12:00:00Z')) as Uint8Array
    const found = await read('two.glb', file)
    expect(found.asks[0]?.taken).toBe('forms')
    expect(found.bodies.map((b) => b.name)).toEqual(['Shed'])
    expect((await read('two.glb', file, 'parts')).bodies.length).toBeGreaterThan(4)
  })
})

/** A cube of 2 m with a node for it. */
function cube(): { document: Document; node: ReturnType<Document['createNode']> } {
  const document = new Document()
  const buffer = document.createBuffer()
  const at = (x: number, y: number, z: number) => 4 * x + 2 * y + z
  const points = [0, 1].flatMap((x) => [0, 1].flatMap((y) => [0, 1].flatMap((z) => [2 * x, 2 * y, 2 * z])))
  const quads = [
    [at(0, 0, 0), at(0, 0, 1), at(0, 1, 1), at(0, 1, 0)],
    [at(1, 0, 0), at(1, 1, 0), at(1, 1, 1), at(1, 0, 1)],
    [at(0, 0, 0), at(1, 0, 0), at(1, 0, 1), at(0, 0, 1)],
    [at(0, 1, 0), at(0, 1, 1), at(1, 1, 1), at(1, 1, 0)],
    [at(0, 0, 0), at(0, 1, 0), at(1, 1, 0), at(1, 0, 0)],
    [at(0, 0, 1), at(1, 0, 1), at(1, 1, 1), at(0, 1, 1)],
  ]
  const triangles = quads.flatMap(([a = 0, b = 0, c = 0, d = 0]) => [a, b, c, a, c, d])
  const accessor = (type: 'VEC3' | 'SCALAR', array: Float32Array | Uint16Array) =>
    document.createAccessor().setType(type).setArray(array).setBuffer(buffer)
  const mesh = document.createMesh('cube').addPrimitive(
    document
      .createPrimitive()
      .setAttribute('POSITION', accessor('VEC3', Float32Array.from(points)))
      .setIndices(accessor('SCALAR', Uint16Array.from(triangles))),
  )
  const node = document.createNode('cube').setMesh(mesh)
  document.createScene().addChild(node)
  return { document, node }
}

describe('GLB of another writer', () => {
  it('has each of its GPU instances, moved, turned and scaled', async () => {
    const { document, node } = cube()
    const [buffer] = document.getRoot().listBuffers()
    const list = (values: number[], type: 'VEC3' | 'VEC4') =>
      document
        .createAccessor()
        .setType(type)
        .setArray(Float32Array.from(values))
        .setBuffer(buffer ?? null)
    const h = Math.SQRT1_2
    const instances = document
      .createExtension(EXTMeshGPUInstancing)
      .createInstancedMesh()
      .setAttribute('TRANSLATION', list([0, 0, 0, 10, 0, 0, 0, 0, -20], 'VEC3'))
      .setAttribute('ROTATION', list([0, 0, 0, 1, 0, h, 0, h, 0, 0, 0, 1], 'VEC4'))
      .setAttribute('SCALE', list([1, 1, 1, 1, 1, 1, 1, 3, 1], 'VEC3'))
    node.setExtension('EXT_mesh_gpu_instancing', instances).setTranslation([100, 0, 0])
    const file = await new WebIO().registerExtensions([EXTMeshGPUInstancing]).writeBinary(document)
    const { bodies } = await read('cubes.glb', file)
    expect(bodies.map((b) => b.fault)).toEqual([null, null, null])
    // North is -z in the file; a quarter turn about its y axis takes x to -z.
    expect(bodies.map((b) => b.place.map((c) => Math.round(c * 1e4) / 1e4 + 0))).toEqual([
      [100, -2],
      [110, 0],
      [100, 18],
    ])
    const tops = bodies.map((b) => Math.max(...b.body.corners.filter((_, i) => i % 3 === 2)))
    expect(tops.map((t) => Math.round(t * 1e4) / 1e4)).toEqual([2, 2, 6])
  })
  it('is refused by name where its meshes are packed in a way that is not read', async () => {
    const { document } = cube()
    const plain = await new WebIO().writeBinary(document)
    const needs = (extension: string) => {
      const view = new DataView(plain.buffer, plain.byteOffset)
      const json = new TextDecoder().decode(plain.subarray(20, 20 + view.getUint32(12, true)))
      const told = new TextEncoder().encode(
        json.trimEnd().replace(/\}$/, `,"extensionsUsed":["${extension}"],"extensionsRequired":["${extension}"]}`),
      )
      const padded = new Uint8Array(Math.ceil(told.length / 4) * 4).fill(32)
      padded.set(told)
      const rest = plain.subarray(20 + view.getUint32(12, true))
      const out = new Uint8Array(20 + padded.length + rest.length)
      out.set(plain.subarray(0, 20))
      out.set(padded, 20)
      out.set(rest, 20 + padded.length)
      const head = new DataView(out.buffer)
      head.setUint32(8, out.length, true)
      head.setUint32(12, padded.length, true)
      return out
    }
    await expect(read('a.glb', needs('KHR_draco_mesh_compression'))).rejects.toThrow('need Draco compression')
    await expect(read('a.glb', needs('EXT_meshopt_compression'))).rejects.toThrow('need meshopt compression')
    await expect(read('a.glb', needs('EXT_other'))).rejects.toThrow('need the extension EXT_other')
    expect((await read('a.glb', needs('KHR_mesh_quantization'))).bodies).toHaveLength(1)
  })
})

it('an OBJ line that ends in a backslash goes on in the next', async () => {
  const text = [
    'o tetra',
    'v 0 0 \\',
    ' 0',
    'v 4 0 0',
    'v 0 4 0',
    'v 0 0 4',
    'f 1 3 \\',
    '2',
    'f 1 2 4',
    'f 2 3 4',
    'f 1 4 3',
  ]
  const { bodies } = await read('t.obj', ['# metres, z up', ...text].join('\n'))
  expect(bodies.map((b) => b.fault)).toEqual([null])
  await expect(read('t.obj', ['v 0 0 \\', '0', 'v 1 x 1'].join('\n'))).rejects.toThrow('Line 3 of the OBJ file')
})

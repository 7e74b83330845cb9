import { zipSync } from 'fflate'
import { readFileSync } from 'node:fs'
import { beforeAll, describe, expect, it } from 'vitest'
import { openKernel } from '../solid'
import { joinedShed } from '../testing/boat-shed'
import { converted, schemeOf } from '../testing/make'
import { schemaTexts } from '../../scripts/schema'
import { LOG_FORMAT, projectOfLog } from '../edits'
import {
  blankProject,
  readProjectFile,
  readProjectPackage,
  Refusal,
  sayMended,
  writeProjectFile,
  writeProjectText,
} from './index'

beforeAll(() => openKernel())
const bytes = (text: string) => new TextEncoder().encode(text)
const refused = (data: Uint8Array | string, sentence: RegExp) => {
  const read = () => readProjectFile(typeof data === 'string' ? bytes(data) : data)
  expect(read).toThrow(Refusal)
  expect(read).toThrow(sentence)
}

describe('a project file', () => {
  it('comes back equal to the byte, zipped or plain', () => {
    const project = converted(joinedShed())
    const text = writeProjectText(project)
    expect(writeProjectText(readProjectFile(bytes(text)))).toBe(text)
    expect(writeProjectText(readProjectFile(writeProjectFile(project)))).toBe(text)
    expect(writeProjectFile(project)).toEqual(writeProjectFile(readProjectFile(bytes(text))))
  })
  it('of an older version, with control characters in names, opens: they are taken out, told apart, and said', () => {
    const project = joinedShed()
    const scheme = schemeOf(project)
    const [first, second] = Object.values(scheme.levels)
    const [mass] = Object.values(scheme.masses) as { id: string; name: string }[]
    const spoilt = JSON.parse(writeProjectText(project)) as {
      version: number
      project: { name: string; schemes: Record<string, typeof scheme> }
    }
    spoilt.version = 1
    spoilt.project.name = 'Boat\u0007 shed'
    const stored = spoilt.project.schemes[scheme.id]
    ;(stored?.levels[second?.id ?? ''] as { name: string }).name = `\u202e${first?.name}\u0000`
    ;(stored?.masses[mass?.id ?? ''] as { name: string }).name = '\u0001\u0002'
    const read = readProjectPackage(bytes(JSON.stringify(spoilt)))
    expect(read.project.name).toBe('Boat shed')
    expect(read.project.schemes[scheme.id]?.levels[second?.id ?? '']?.name).toBe(`${first?.name} 2`)
    expect(read.project.schemes[scheme.id]?.masses[mass?.id ?? '']?.name).toBe('Unnamed')
    expect([...read.mended].sort()).toEqual(['Boat shed', 'Unnamed', `${first?.name} 2`].sort())
    expect(sayMended(read.mended)).toContain('characters that cannot be shown. Geotome took them out: "')
    expect(sayMended(readProjectPackage(bytes(writeProjectText(project))).mended)).toBeNull()
    // A log that holds such names is read too.
    expect(projectOfLog(LOG_FORMAT, spoilt.project).name).toBe('Boat shed')
  })
  it('does not depend on the order in which things were made', () => {
    const project = converted(joinedShed())
    const turned = JSON.parse(
      JSON.stringify(project, (_k, v: unknown) =>
        v && typeof v === 'object' && !Array.isArray(v) ? Object.fromEntries(Object.entries(v).reverse()) : v,
      ),
    ) as typeof project
    expect(writeProjectText(turned)).toBe(writeProjectText(project))
  })
  it('of version 1 is read: what later versions added is filled in, and says that it is not there', () => {
    const { project } = JSON.parse(writeProjectText(converted(joinedShed()))) as { project: Record<string, unknown> }
    const added = new Set([
      'precision',
      'upright',
      'wallLike',
      'materials',
      'kinds',
      'views',
      'mutes',
      'context',
      'material',
      'faces',
      'holes',
      'bulge',
      'upTo',
      'follow',
      'overhangs',
      'rise',
      'letGo',
      'stays',
      'kept',
      'zTo',
      'round',
      'rows',
      'sides',
    ])
    const older = JSON.parse(
      JSON.stringify(project, (key, v: unknown) =>
        added.has(key) && typeof v !== 'string' ? undefined : key === 'follow' ? undefined : v,
      ),
    ) as Record<string, unknown>
    const read = readProjectFile(bytes(JSON.stringify({ format: 'geotome', version: 1, project: older })))
    const now = converted(joinedShed())
    expect(writeProjectText({ ...read, materials: now.materials, precision: now.precision })).toContain('"version":5')
    const scheme = Object.values(read.schemes).find((s) => s.id !== 'aside')
    expect(Object.values(scheme?.masses ?? {})[0]).toMatchObject({ context: false, material: null, faces: {} })
    expect(Object.values(scheme?.parts ?? {})[0]).toMatchObject({
      follow: 'face',
      letGo: false,
      stays: null,
      kept: null,
      rise: 0,
    })
    expect(read).toMatchObject({ precision: 3, upright: 0.5, wallLike: 30, materials: {} })
  })
  it('of version 4 is read: layers and own facts get ids by their places', () => {
    const { project } = JSON.parse(writeProjectText(converted(joinedShed()))) as { project: Record<string, unknown> }
    const read = (layers: (ids: Record<string, unknown>) => Record<string, unknown>, version: number) =>
      readProjectFile(
        bytes(
          JSON.stringify({
            format: 'geotome',
            version,
            project: {
              ...project,
              facts: {
                ...(project.facts as object),
                custom: [
                  { id: 'fact-1', name: 'plot', text: 'E 14' },
                  { id: 'fact-2', name: 'lot', text: '' },
                ].map(layers),
              },
              buildUps: Object.fromEntries(
                Object.entries(project.buildUps as Record<string, { layers: Record<string, unknown>[] }>).map(
                  ([id, b]) => [id, { ...b, layers: b.layers.map(layers) }],
                ),
              ),
            },
          }),
        ),
      )
    const without = ({ id: _, ...rest }: Record<string, unknown>) => rest
    expect(read(without, 4)).toEqual(read((l) => l, 5))
    expect(() => read(without, 5)).toThrow(/layers 1 \(cladding\), id.* are missing/)
    expect(() => read((l) => ({ ...l, id: 'one' }), 5)).toThrow(/have the same id/)
  })
  it("is the demo's, which holds together", () => {
    const demo = readFileSync(new URL('../../demo/kiln-quay.geotome.json', import.meta.url))
    expect(readProjectFile(new Uint8Array(demo)).name).toBe('Kiln Quay')
  })
  it('is described by the JSON Schemas in docs (npm run schema)', () => {
    for (const [file, text] of schemaTexts())
      expect(
        readFileSync(new URL(`../../${file}`, import.meta.url), 'utf8') === text,
        `${file} is out of date: run npm run schema`,
      ).toBe(true)
  })
})

it('a zip that says less than it holds is counted while it is unpacked, and refused', () => {
  const honest = zipSync({ 'project.json': [new Uint8Array(60 * 1024 * 1024), { level: 1 }] })
  const lying = honest.slice()
  // The sizes before and behind the content: 100 bytes unpacked.
  for (const [mark, at] of [
    [0x04034b50, 22],
    [0x02014b50, 24],
  ] as const)
    for (let i = 0; i + 46 < lying.length; i++) {
      const view = new DataView(lying.buffer, lying.byteOffset + i)
      if (view.getUint32(0, true) === mark) view.setUint32(at, 100, true)
    }
  for (const file of [honest, lying]) expect(() => readProjectFile(file)).toThrow(/would have over 32 MB/)
})

describe('a file that cannot be read is refused, with what is wrong and where', () => {
  const good = () =>
    JSON.parse(writeProjectText(blankProject(() => `id${++n}`, 'A', 'm', 100))) as {
      version: number
      project: Record<string, unknown> & {
        schemes: Record<string, { levels: Record<string, Record<string, unknown>> }>
      }
    }
  let n = 0
  it('empty, of another kind, damaged, newer', () => {
    refused(new Uint8Array(), /empty/)
    refused('Dear builder', /not a project file/)
    refused('[]', /no Geotome project/)
    refused(new Uint8Array([0x50, 0x4b, 3, 4, 9, 9, 9]), /damaged zip|no project\.json/)
    refused(writeProjectFile(blankProject(() => `z${++n}`, 'A', 'm', null)).slice(0, 60), /damaged zip/)
    refused(JSON.stringify({ ...good(), version: 6 }), /version 6; this Geotome reads up to version 5. Update Geotome/)
  })
  it('malformed somewhere inside', () => {
    const file = good()
    refused(JSON.stringify({ ...file, project: { ...file.project, unit: 'yard' } }), /unit is "yard", and should be/)
    refused(JSON.stringify({ ...file, project: { ...file.project, surprise: 1 } }), /surprise is not known there/)
    const [scheme] = Object.values(file.project.schemes)
    const [level] = Object.values(scheme?.levels ?? {})
    if (level) level.tie = { kind: 'fixed', height: 'high' }
    refused(JSON.stringify(file), /level "[^"]+", tie, height/)
  })
})

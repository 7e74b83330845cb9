import { beforeAll, describe, expect, it } from 'vitest'
import { IfcAPI, IFCBUILDINGSTOREY, IFCMATERIALLAYERSETUSAGE, IFCROOF, IFCSLAB, IFCWALL, IFCBUILDINGELEMENTPROXY } from 'web-ifc'
import { openKernel } from '../solid'
import { joinedShed } from '../testing/boat-shed'
import { apply, converted, projectWith, studied, withMass } from '../testing/make'
import { formatNamed, ifcGuid } from './index'

beforeAll(() => openKernel())

/** Reads an IFC file with a reader that is not ours, and measures its bodies. */
async function read(text: string) {
  const api = new IfcAPI()
  await api.Init(undefined, true)
  const model = api.OpenModel(new TextEncoder().encode(text), { COORDINATE_TO_ORIGIN: false })
  const count = (type: number) => api.GetLineIDsWithType(model, type).size()
  const volumes = new Map<string, number>()
  api.StreamAllMeshes(model, (mesh) => {
    let six = 0
    for (let g = 0; g < mesh.geometries.size(); g++) {
      const placed = mesh.geometries.get(g)
      const geometry = api.GetGeometry(model, placed.geometryExpressID)
      const vertices = api.GetVertexArray(geometry.GetVertexData(), geometry.GetVertexDataSize())
      const indices = api.GetIndexArray(geometry.GetIndexData(), geometry.GetIndexDataSize())
      const p = (i: number) => [vertices[i * 6] ?? 0, vertices[i * 6 + 1] ?? 0, vertices[i * 6 + 2] ?? 0] as const
      for (let t = 0; t < indices.length; t += 3) {
        const [a, b, c] = [p(indices[t] ?? 0), p(indices[t + 1] ?? 0), p(indices[t + 2] ?? 0)]
        six += a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) + a[2] * (b[0] * c[1] - b[1] * c[0])
      }
    }
    volumes.set((api.GetLine(model, mesh.expressID) as { GlobalId: { value: string } }).GlobalId.value, Math.abs(six / 6))
  })
  return { api, model, count, volumes }
}

describe('the IFC file', () => {
  it('opens in an independent reader with storeys, walls, slabs, roofs and build-ups; the volumes are ours', async () => {
    const study = studied(converted(joinedShed(), 0.4))
    const file = await read(formatNamed('ifc').write(study, '2030-01-01T12:00:00Z') as string)
    expect(file.count(IFCBUILDINGSTOREY)).toBe(2)
    expect(file.count(IFCWALL)).toBe(12)
    expect(file.count(IFCSLAB)).toBe(2)
    expect(file.count(IFCROOF)).toBe(4)
    expect(file.count(IFCMATERIALLAYERSETUSAGE)).toBeGreaterThanOrEqual(3)
    for (const part of study.parts) expect(file.volumes.get(ifcGuid(part.id)), part.part.name).toBeCloseTo(part.volume, 3)
  })
  it('gives a mass without fabric as a proxy, near the origin also for a site at map coordinates', async () => {
    const study = studied(withMass(projectWith([0, 3]), { box: [350000, 5600000, 20, 10], height: 6 }))
    const file = await read(formatNamed('ifc').write(study, '2030-01-01T12:00:00Z') as string)
    expect(file.count(IFCBUILDINGELEMENTPROXY)).toBe(1)
    expect([...file.volumes.values()][0]).toBeCloseTo(1200, 2)
  })
  it('keeps ids from export to export and escapes what is not plain text', () => {
    const study = studied(withMass(projectWith([0]), { box: [0, 0, 5, 5], height: 3, name: "Kai's Hütte" }))
    const [a, b] = [1, 2].map(() => formatNamed('ifc').write(study, '2030-01-01T12:00:00Z'))
    expect(a).toBe(b)
    expect(a).toContain("Kai''s H\\X2\\00FC\\X0\\tte")
  })
})

describe('the ledger as CSV', () => {
  it('has a row per storey, a column per use, and totals', () => {
    let project = withMass(projectWith([0, 3]), { box: [0, 0, 20, 10], height: 6 })
    project = withMass(project, { box: [30, 0, 10, 10], height: 3, use: 'market' })
    const lines = (formatNamed('csv').write(studied(project), '') as string).split('\r\n')
    expect(lines[0]).toBe('level,height m,"area m2, to the mass face",homes m2,market m2,"low m2, not counted","net m2, to the inner face of outer walls",perimeter m')
    expect(lines[1]).toBe('Level 1,3.000,200.00,200.00,0.00,0.00,,60.00')
    expect(lines[3]).toBe('total,,500.00,400.00,100.00,0.00,,')
  })
})

it('project data, place and true north go along', () => {
  const project = apply(withMass(projectWith([0, 3]), { box: [0, 0, 10, 6], height: 6 }), { edit: 'project.change', set: {
    facts: { number: '07', client: 'A cooperative', address: '7 Quay, Easthaven', stage: 'study', author: 'A. Marlow', custom: [{ name: 'plot', text: 'E 14' }] },
    location: { latitude: 53.5, longitude: -9.25, timeZone: '', trueNorth: 30, zero: null },
  } })
  const text = formatNamed('ifc').write(studied(project), '2026-01-01T00:00:00Z') as string
  expect(text).toContain("(53,30,0,0),(-9,-15,0,0)")
  expect(text).toContain("IFCPOSTALADDRESS($,$,$,$,('7 Quay','Easthaven')")
  expect(text).toMatch(/IFCDIRECTION\(\(0\.5,0\.866025404\)\)/)
  expect(text).toContain("IFCPROPERTYSINGLEVALUE('plot',$,IFCTEXT('E 14'),$)")
  expect(text).toContain("('A. Marlow')")
  expect(formatNamed('obj').write(studied(project), '')).toContain('# client: A cooperative')
})

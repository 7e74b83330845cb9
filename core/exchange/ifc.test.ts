import { beforeAll, describe, expect, it } from 'vitest'
import {
  IfcAPI,
  IFCBUILDINGSTOREY,
  IFCMATERIALLAYERSETUSAGE,
  IFCROOF,
  IFCSLAB,
  IFCWALL,
  IFCWALLTYPE,
  IFCBUILDINGELEMENTPROXY,
} from 'web-ifc'
import { openKernel } from '../solid'
import { joinedShed } from '../testing/boat-shed'
import type { Project } from '../project'
import { apply, converted, projectWith, schemeOf, studied, withMass } from '../testing/make'
import { rect, turned } from '../testing/plans'
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
        six +=
          a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) + a[2] * (b[0] * c[1] - b[1] * c[0])
      }
    }
    volumes.set(
      (api.GetLine(model, mesh.expressID) as { GlobalId: { value: string } }).GlobalId.value,
      Math.abs(six / 6),
    )
  })
  return { api, model, count, volumes }
}

describe('the IFC file', () => {
  it('opens in an independent reader with storeys, walls, slabs, roofs and build-ups; the volumes are ours', async () => {
    const study = studied(converted(joinedShed(), 0.4))
    const file = await read(formatNamed('ifc').write(study, '2030-01-01T12:00:00Z') as string)
    expect(file.count(IFCBUILDINGSTOREY)).toBe(2)
    expect(file.count(IFCWALL)).toBe(12)
    // Two floors, and the four slopes of two roofs.
    expect(file.count(IFCSLAB)).toBe(6)
    expect(file.count(IFCROOF)).toBe(2)
    expect(file.count(IFCMATERIALLAYERSETUSAGE)).toBeGreaterThanOrEqual(3)
    for (const part of study.parts)
      expect(file.volumes.get(ifcGuid(part.id)), part.part.name).toBeCloseTo(part.volume, 3)
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

describe('what those who carry on need', () => {
  const text = (project: Project, format = 'ifc') =>
    formatNamed(format).write(studied(project), '2030-01-01T12:00:00Z') as string
  const lines = (file: string, type: string) => file.split('\n').filter((l) => l.includes(`=${type}(`))
  const two = () => {
    let project = withMass(projectWith([0, 3]), { name: 'Bar', points: turned(rect(0, 0, 20, 10), 33), height: 6 })
    project = withMass(project, { name: 'Drum', circle: [60, 0, 6.3], height: 3, use: 'market' })
    return converted(
      apply(project, {
        edit: 'wing.add',
        scheme: schemeOf(project).id,
        thing: {
          id: 'west',
          name: 'West',
          order: 0,
          outline: [
            [-20, -20],
            [40, -20],
            [40, 40],
            [-20, 40],
          ],
        },
      }),
    )
  }
  it('walls lie along their own axes, with types, layers, properties and joints', async () => {
    const file = text(two())
    const read_ = await read(file)
    expect(read_.count(IFCWALLTYPE)).toBe(1)
    // Round ones are as fine as the reader makes its own facets.
    for (const part of studied(two()).parts)
      expect((read_.volumes.get(ifcGuid(part.id)) ?? 0) / part.volume, part.part.name).toBeCloseTo(
        1,
        part.part.name.startsWith('Drum') ? 1 : 5,
      )
    expect(lines(file, 'IFCRELCONNECTSPATHELEMENTS')).toHaveLength(8)
    expect(file).toContain("'Pset_WallCommon'")
    expect(file).toContain("IFCPROPERTYSINGLEVALUE('IsExternal',$,IFCBOOLEAN(.T.),$)")
    for (const quantity of ['Length', 'Height', 'Width', 'NetSideArea']) expect(file).toContain(`'${quantity}',$,$,`)
    // The axis of the bar's long side: from its own zero, along its own x.
    expect(file).toMatch(/IFCCARTESIANPOINT\(\(20\.(0{3,}\d*)?,-?0\.\d*\)\)/)
    expect(file).toMatch(/'Axis','Curve2D'/)
  })
  it('what is round is written with arcs', () => {
    expect(text(two())).toMatch(/IFCINDEXEDPOLYCURVE\(#\d+,\(IFCARCINDEX\(\(1,2,3\)\),IFCARCINDEX/)
  })
  it('floors are spaces by use, with their areas; wings are zones', () => {
    const file = text(two())
    expect(lines(file, 'IFCSPACE').map((l) => /,'([^']*, [^']*)',/.exec(l)?.[1])).toEqual([
      'Level 0, homes',
      'Level 0, market',
      'Level 1, homes',
    ])
    expect(
      lines(file, 'IFCQUANTITYAREA')
        .filter((l) => l.includes('GrossFloorArea'))
        .map((l) => Number(/\$,\$,([\d.]+),/.exec(l)?.[1]).toFixed(2)),
    ).toEqual(['200.00', (Math.PI * 6.3 ** 2).toFixed(2), '200.00'])
    expect(lines(file, 'IFCZONE')).toHaveLength(1)
  })
  it('colours, layers, the site with its boundary, and its place on the map', () => {
    const project = apply(
      two(),
      {
        edit: 'project.change',
        set: {
          location: {
            latitude: null,
            longitude: null,
            timeZone: '',
            trueNorth: 30,
            zero: [432100, 5812300, 4.5],
            system: 'EPSG:25832',
          },
          site: {
            limit: null,
            corners: [
              [-9, -9],
              [80, -9],
              [80, 40],
            ].map(([x = 0, y = 0], i) => ({ id: `c${i}`, x, y, setback: 0, slope: null })),
          },
        },
      },
      {
        edit: 'neighbour.add',
        thing: {
          id: 'shed',
          name: 'Shed',
          order: 0,
          outline: [
            [90, 0],
            [99, 0],
            [99, 9],
          ],
          base: 0,
          height: 4,
        },
      },
    )
    const file = text(project)
    expect(file).toMatch(/IFCPROJECTEDCRS\('EPSG:25832'/)
    expect(file).toMatch(/IFCMAPCONVERSION\(#\d+,#\d+,432100\.,5812300\.,4\.5,0\.866025404,0\.5,1\.\)/)
    expect(lines(file, 'IFCSTYLEDITEM').length).toBeGreaterThan(4)
    expect(lines(file, 'IFCCOLOURRGB').some((l) => l.includes("'brick'"))).toBe(true)
    expect(
      lines(file, 'IFCPRESENTATIONLAYERASSIGNMENT')
        .map((l) => /\('(\w+)'/.exec(l)?.[1])
        .sort(),
    ).toEqual(['neighbours', 'roofs', 'slabs', 'spaces', 'walls'])
    expect(file).toMatch(/IFCSHAPEREPRESENTATION\(#\d+,'FootPrint','GeometricCurveSet'/)
    expect(lines(file, 'IFCBUILDINGELEMENTPROXY').map((l) => l.includes("'Shed'"))).toEqual([true])
  })
  it('forms go along where they are wished; the scheme is named; labels are no longer than a label', () => {
    expect(lines(text(two(), 'ifc-forms'), 'IFCBUILDINGELEMENTPROXY')).toHaveLength(2)
    const named = apply(two(), {
      edit: 'project.change',
      set: {
        facts: {
          number: '07',
          client: 'x'.repeat(300),
          address: 'y'.repeat(300),
          stage: 'z'.repeat(300),
          author: '',
          custom: [],
        },
      },
    })
    const file = text(named)
    expect(lines(file, 'IFCPROJECT')[0]).toMatch(/'Test',\$?'?Scheme A'?,\$,'07 Test'/)
    expect(lines(file, 'IFCPROJECT')[0]?.match(/z+/)?.[0]).toHaveLength(255)
    expect(file).toContain("IFCPROPERTYSINGLEVALUE('Scheme',$,IFCTEXT('Scheme A'),$)")
  })
  it('a project in feet is written in feet', async () => {
    const metres = two()
    const feet = text({ ...metres, unit: 'ft' })
    expect(feet).toMatch(/IFCCONVERSIONBASEDUNIT\(#\d+,\.LENGTHUNIT\.,'FOOT',#\d+\)/)
    // The shapes themselves are in cubic feet.
    const file = await read(feet)
    const [part] = studied(metres).parts
    expect(file.volumes.get(ifcGuid(part?.id ?? ''))).toBeCloseTo((part?.volume ?? 0) / 0.3048 ** 3, 2)
    expect(lines(feet, 'IFCBUILDINGSTOREY')[1]).toContain('9.842519685')
  })
})

describe('the ledger as CSV', () => {
  it('heights below zero are numbers', () => {
    const rows = (
      formatNamed('csv').write(
        studied(withMass(projectWith([-3.2, 0]), { box: [0, 0, 5, 5], height: 3.2, name: 'Cellar' })),
        '',
      ) as string
    ).split('\r\n')
    expect(rows[2]).toMatch(/^Level 0,-3\.200,25\.00/)
  })
  it('has a row per storey, a column per use, and totals', () => {
    let project = withMass(projectWith([0, 3]), { box: [0, 0, 20, 10], height: 6 })
    project = withMass(project, { box: [30, 0, 10, 10], height: 3, use: 'market' })
    const lines = (formatNamed('csv').write(studied(project), '') as string).split('\r\n')
    expect(lines[0]).toBe(
      '\uFEFFlevel,height m,"area m2, to the mass face",homes m2,market m2,"low m2, not counted","net m2, to the inner face of outer walls",perimeter m',
    )
    expect(lines[1]).toBe('Level 1,3.000,200.00,200.00,0.00,0.00,,60.00')
    expect(lines[3]).toBe('total,,500.00,400.00,100.00,0.00,,')
  })
})

it('project data, place and true north go along', () => {
  const project = apply(withMass(projectWith([0, 3]), { box: [0, 0, 10, 6], height: 6 }), {
    edit: 'project.change',
    set: {
      facts: {
        number: '07',
        client: 'A cooperative',
        address: '7 Quay, Easthaven',
        stage: 'study',
        author: 'A. Marlow',
        custom: [{ id: 'plot', name: 'plot', text: 'E 14' }],
      },
      location: { latitude: 53.5, longitude: -9.25, timeZone: '', trueNorth: 30, zero: null, system: null },
    },
  })
  const text = formatNamed('ifc').write(studied(project), '2026-01-01T00:00:00Z') as string
  expect(text).toContain('(53,30,0,0),(-9,-15,0,0)')
  expect(text).toContain("IFCPOSTALADDRESS($,$,$,$,('7 Quay','Easthaven')")
  expect(text).toMatch(/IFCDIRECTION\(\(0\.5,0\.866025404\)\)/)
  expect(text).toContain("IFCPROPERTYSINGLEVALUE('plot',$,IFCTEXT('E 14'),$)")
  expect(text).toContain("('A. Marlow')")
  expect(formatNamed('obj').write(studied(project), '')).toContain('# client: A cooperative')
})

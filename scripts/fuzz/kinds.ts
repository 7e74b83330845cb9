import { readFileSync, readdirSync } from 'node:fs'
import { applyEdit, parseEdit, type Edit } from '@geotome/core/edits'
import { addBodies } from '@geotome/core/form'
import { FORMATS, readBodies, readSite, surveyOf } from '@geotome/core/exchange'
import {
  inOrder,
  NO_LOCATION,
  readProjectPackage,
  readProjectText,
  readTyped,
  Refusal,
  triangulateSurvey,
  writeProjectFile,
  writeProjectText,
  type Project,
} from '@geotome/core/project'
import { ledgerOf, studyScheme } from '@geotome/core/study'
import { joinedShed } from '../../core/testing/boat-shed'
import { apply, minter, projectWith, schemeOf, studied, withMass } from '../../core/testing/make'
import { tiffOf } from '../../core/testing/tiff'
import { busyProject, workOf } from '../../core/testing/work'
import { briefs } from './briefs'
import { Nonsense, type Kind } from './kind'
import { damaged, mutated, ODD_NUMBERS, ODD_TEXTS, type Dice } from './dice'

const bytes = (text: string) => new TextEncoder().encode(text)
const wrong = (say: string): never => {
  throw new Nonsense(say)
}

/** Every figure of every scheme is finite, and none is negative; the project can be saved and read again. */
function makesSense(project: Project): void {
  const text = writeProjectText(project)
  if (writeProjectText(readProjectText(text)) !== text) wrong('a project is not the same once saved and read')
  for (const { id } of inOrder(project.schemes)) {
    const study = studyScheme(project, id)
    const ledger = ledgerOf(study)
    for (const [what, value] of [
      ...Object.entries(ledger.totals),
      ...ledger.levels.flatMap(
        (l) =>
          [...Object.entries(l.uses), ['area', l.area], ['net', l.net], ['low', l.low], ['perimeter', l.perimeter]] as [
            string,
            number | null,
          ][],
      ),
      ...study.parts.flatMap(
        (p) =>
          [
            ['area of a part', p.area],
            ['volume of a part', p.volume],
          ] as [string, number][],
      ),
    ]) {
      if (typeof value === 'number' && !(Number.isFinite(value) && value >= 0)) wrong(`${what} is ${value}`)
    }
    for (const l of ledger.levels) {
      const sum = Object.values(l.uses).reduce((a, b) => a + b, 0)
      if (Math.abs(sum - l.area) > 1e-4 * Math.max(1, l.area))
        wrong(`the uses of ${l.name} are ${sum} together, its area is ${l.area}`)
      if (!Number.isFinite(l.height)) wrong(`the height of ${l.name} is ${l.height}`)
    }
  }
}

/** A formula of bare numbers and what it comes to, by the language's own arithmetic. */
function arithmetic(dice: Dice, depth: number): { text: string; value: number } {
  if (depth === 0 || dice.chance(0.25)) {
    const value = dice.chance(0.5) ? dice.int(100) : Math.round(dice.next() * 1e5) / 1000
    return { text: String(value), value }
  }
  const [a, b] = [arithmetic(dice, depth - 1), arithmetic(dice, depth - 1)]
  switch (dice.int(7)) {
    case 0:
      return { text: `(${a.text} + ${b.text})`, value: a.value + b.value }
    case 1:
      return { text: `(${a.text} - ${b.text})`, value: a.value - b.value }
    case 2:
      return { text: `(${a.text} * ${b.text})`, value: a.value * b.value }
    case 3:
      return { text: `(${a.text} / ${b.text})`, value: a.value / b.value }
    case 4:
      return { text: `max(${a.text}, ${b.text})`, value: Math.max(a.value, b.value) }
    case 5:
      return { text: `min(${a.text}, ${b.text})`, value: Math.min(a.value, b.value) }
    default:
      return { text: `-(${a.text})`, value: -a.value }
  }
}
const PIECES = [
  '1',
  '0.5',
  '1e3',
  '.',
  ',',
  '+',
  '-',
  '*',
  '/',
  '(',
  ')',
  ' ',
  'm',
  'mm',
  'ft',
  'in',
  "'",
  '"',
  '°',
  '%',
  'deg',
  'sqrt(',
  'min(',
  'max(',
  'sin(',
  'tan(',
  '{',
  '}',
  '=',
  'bay',
  'Level 1',
  '3-4',
  '1/2',
  ...ODD_TEXTS,
]

const formulas = (): Kind => {
  const project = apply(projectWith([0, 3]), {
    edit: 'project-dial.add',
    thing: { id: 'bay', order: 0, name: 'bay', quantity: 'length', value: 7.2, least: null, most: null, step: null },
  })
  const scheme = schemeOf(project)
  return {
    name: 'formulas',
    share: 50,
    mayBeEnded: false,
    one: (dice) => {
      if (dice.chance(0.4)) {
        const { text, value } = arithmetic(dice, 1 + dice.int(5))
        const got = readTyped(text, 'number', project, scheme).value
        if (!(Math.abs(got - value) <= 1e-9 * Math.max(1, Math.abs(value))))
          wrong(`"${text}" is ${value}, and was taken for ${got}`)
        return
      }
      const text = Array.from({ length: 1 + dice.int(dice.chance(0.05) ? 300 : 9) }, () =>
        dice.chance(0.3) ? String(dice.one(ODD_NUMBERS)) : dice.one(PIECES),
      ).join('')
      const { num, value } = readTyped(text, dice.one(['length', 'angle', 'area', 'number'] as const), project, scheme)
      if (!Number.isFinite(value) || (typeof num === 'number' && !Number.isFinite(num)))
        wrong(`"${text}" was taken for ${value}`)
    },
  }
}

const edits = (): Kind => {
  const starts = [busyProject(), joinedShed(), withMass(projectWith([0, 3, 6]), { box: [0, 0, 12, 9], height: 9 })]
  return {
    name: 'edits',
    share: 6,
    mayBeEnded: false,
    one: (dice) => {
      let project = dice.one(starts)
      const step = workOf(Array.from({ length: 4 }, () => Array.from({ length: 12 }, () => dice.int(10000))))
      let refused: Refusal | null = null
      let taken = 0
      for (let n = 0; n < 4; n++) {
        try {
          const edit: Edit | null = step(project)
          if (!edit) continue
          // What is sent is what arrives: text.
          const data: unknown =
            dice.chance(0.6) && edit.edit !== 'whole.set'
              ? JSON.parse(JSON.stringify(mutated(dice, edit)))
              : JSON.parse(JSON.stringify(edit))
          const { project: next, inverse } = applyEdit(project, parseEdit(data))
          if (writeProjectText(applyEdit(next, inverse).project) !== writeProjectText(project))
            wrong('an edit taken back leaves another project')
          project = next
          taken++
        } catch (e) {
          if (e instanceof Refusal) refused = e
          else throw e
        }
      }
      makesSense(project)
      if (taken === 0 && refused) throw refused
    },
  }
}

const projects = (): Kind => {
  const starts = [busyProject(), joinedShed(), withMass(projectWith([0, 3, 6]), { circle: [0, 0, 6], height: 9 })].map(
    (p) => ({ data: JSON.parse(writeProjectText(p)) as unknown, zip: writeProjectFile(p) }),
  )
  return {
    name: 'project files',
    share: 6,
    mayBeEnded: true,
    one: (dice) => {
      const { data, zip } = dice.one(starts)
      makesSense(
        dice.chance(0.8)
          ? readProjectText(JSON.stringify(mutated(dice, data)))
          : readProjectPackage(damaged(dice, zip, false)).project,
      )
    },
  }
}

const bodyFiles = async (): Promise<Kind> => {
  const study = studied(joinedShed())
  const samples: { name: string; content: Uint8Array }[] = []
  for (const [id, name] of [
    ['obj', 'a.obj'],
    ['glb', 'a.glb'],
    ['ifc', 'a.ifc'],
    ['ifc-forms', 'b.ifc'],
  ] as const) {
    const made = await FORMATS.find((f) => f.id === id)?.write(study, '2026-01-01T00:00:00Z')
    samples.push({ name, content: typeof made === 'string' ? bytes(made) : (made as Uint8Array) })
  }
  samples.push(...fromFolder(/\.(obj|glb)$/))
  const empty = projectWith([0, 3])
  return {
    name: 'files with bodies',
    share: 4,
    mayBeEnded: true,
    one: async (dice) => {
      const { name, content } = dice.one(samples.filter((s) => !s.name.endsWith('.ifc') || dice.chance(0.15)))
      const { bodies } = await readBodies(
        name,
        damaged(dice, content, !name.endsWith('.glb')),
        dice.chance(0.3),
        null,
        {},
      )
      makesSense(
        apply(
          empty,
          addBodies(schemeOf(empty), minter('b'), bodies, {
            use: inOrder(empty.uses)[0]?.id ?? '',
            level: 'L0',
            levelHeight: 0,
            context: false,
          }),
        ),
      )
    },
  }
}

const siteFiles = (): Kind => {
  const xml =
    '<?xml version="1.0"?><LandXML><Units><Metric linearUnit="meter"/></Units><Surfaces><Surface name="s"><SourceData><Breaklines><Breakline><PntList3D>5 0 1 5 10 2</PntList3D></Breakline></Breaklines></SourceData><Definition><Pnts><P id="1">0 0 0</P><P id="2">20 10 1.5</P><P id="3">0 30 2</P></Pnts><Faces><F>1 2 3</F></Faces></Definition></Surface></Surfaces></LandXML>'
  const samples = [
    ...fromFolder(/\.(dxf|tif|geojson)$/, /blocks-in-blocks|damaged-/),
    { name: 'g.xml', content: bytes(xml) },
    {
      name: 'parcel.xml',
      content: bytes(
        '<LandXML><Units><Metric linearUnit="meter"/></Units><CgPoints><CgPoint name="1">0 0 5</CgPoint></CgPoints><Parcels><Parcel name="Plot"><CoordGeom><Line><Start pntRef="1"/><End>0 20</End></Line><Curve rot="ccw"><Start>0 20</Start><Center>10 20</Center><End>20 20</End></Curve><Line><Start>20 20</Start><End pntRef="1"/></Line></CoordGeom></Parcel></Parcels></LandXML>',
      ),
    },
    {
      name: 'heights.geojson',
      content: bytes(
        '{"type":"Feature","properties":{"measuredHeight":"12,5 m"},"geometry":{"type":"GeometryCollection","geometries":[{"type":"Polygon","coordinates":[[[0,0],[40,0],[40,30],[0,0]]]},{"type":"Point","coordinates":[1,2,3]}]}}',
      ),
    },
    {
      name: 'bands.tif',
      content: tiffOf([
        {
          width: 3,
          height: 3,
          bands: [
            [1, 2, 3, 4, 5, 6, 7, 8, 9],
            [9, 8, 7, 6, 5, 4, 3, 2, 1],
          ],
          keys: { 1024: 1, 3072: 25832, 4099: 9002 },
        },
      ]),
    },
    {
      name: 'p.csv',
      content: bytes(
        `x,y,z\n${Array.from({ length: 20 }, (_, i) => `${(i % 5) * 9},${Math.floor(i / 5) * 8.5},${i / 7}`).join('\n')}`,
      ),
    },
    { name: 'l.csv', content: bytes('line,x,y,z\nA,0,0,1\nA,20,0,2\nB,10,-5,1\nB,10,9,3\n') },
    {
      name: 'g.asc',
      content: bytes(
        'ncols 3\nnrows 3\nxllcorner 0\nyllcorner 0\ncellsize 5\nNODATA_value -9999\n1 2 3\n4 -9999 6\n7 8 9\n',
      ),
    },
  ]
  return {
    name: 'files of sites',
    share: 10,
    mayBeEnded: true,
    one: async (dice) => {
      const { name, content } = dice.one(samples)
      const { read } = await readSite(name, damaged(dice, content, !name.endsWith('.tif')), NO_LOCATION, {
        answers: {},
        leaveOut: dice.chance(0.5),
      })
      for (const p of [...read.points, ...read.lines.flat(), ...read.outlines.flatMap((o) => o.points)])
        if (!p.every((c) => Number.isFinite(c))) wrong(`a point at ${p.join(', ')}`)
      for (const o of read.outlines)
        if (
          (o.height !== null && !(o.height > 0 && Number.isFinite(o.height))) ||
          (o.base !== null && !Number.isFinite(o.base))
        )
          wrong(`an outline ${o.height} m high`)
      const survey = surveyOf(read)
      if (survey.points.length >= 9)
        for (const z of triangulateSurvey(survey).triangles) if (!(z >= 0)) wrong('a triangle of nothing')
    },
  }
}

const fromFolder = (which: RegExp, not = /^$/) => {
  const folder = new URL('../../core/testing/damaged/', import.meta.url)
  return readdirSync(folder)
    .filter((name) => which.test(name) && !not.test(name))
    .sort()
    .map((name) => ({ name, content: new Uint8Array(readFileSync(new URL(name, folder))) }))
}

/** All kinds; a new one is a function and a word here. */
export const kinds = async (): Promise<Kind[]> => [
  formulas(),
  briefs(),
  edits(),
  projects(),
  await bodyFiles(),
  siteFiles(),
]

/** Which kind an input is of: by share, the same for the same dice. */
export function kindOf(all: Kind[], dice: Dice): Kind {
  let at = dice.next() * all.reduce((n, k) => n + k.share, 0)
  return all.find((k) => (at -= k.share) < 0) ?? (all[0] as Kind)
}

import { writeFile } from 'node:fs/promises'
import { batch, type SingleEdit } from '@geotome/core/edits'
import { addParts, howOf, partsFrom, propose, usualChoices, type Choices } from '@geotome/core/fabric'
import { addHole, changeRecipe, joinMasses, newMass, setPitch } from '@geotome/core/form'
import { readBrief } from '@geotome/core/groundwork'
import { addStoreys } from '@geotome/core/levels'
import { inOrder, writeProjectText, type KeptView, type Move, type Scheme } from '@geotome/core/project'
import { type Vec2 } from '@geotome/core/solid'
import { ledgerOf, studyScheme } from '@geotome/core/study'

import { layGround } from './quay-ground'
import { byHand } from './quay-by-hand'
import { kilnCluster } from './quay-cluster'
import { change, levelNamed, massNamed, mint, project, scheme, useNamed } from './quay-work'

/**
 * Kiln Quay, a made-up harbour town's disused brick-kiln quay: a market hall with homes and studios above and around it.
 * Written to demo/kiln-quay.geotome.json; the ids count up, so that it comes out the same each time.
 */
change({ edit: 'scheme.change', id: scheme().id, set: { name: 'Two bars' } })
const bay = mint()
change({
  edit: 'dial.add',
  scheme: scheme().id,
  thing: { id: bay, order: 0, name: 'bay', quantity: 'length', value: 7.2, least: 5.4, most: 9, step: 0.3 },
})

const quay = levelNamed('Ground')
const stacked = (name: string, on: string, above: number, kind: 'storey' | 'mark' = 'storey'): SingleEdit => ({
  edit: 'level.add',
  scheme: scheme().id,
  thing: { id: mint(), name, kind, tie: { kind: 'stacked', on, above }, floorBuildUp: 0, slab: 0 },
})
change({ edit: 'level.change', scheme: scheme().id, id: quay, set: { name: 'Quay' } })
change(batch([stacked('Undercroft', quay, -3.3), stacked('Mezzanine', quay, 3.1), stacked('First', quay, 5.4)]))
change(
  addStoreys(
    project,
    scheme(),
    mint,
    { on: levelNamed('First'), count: 9, each: 3.15, pattern: 'Storey {n}', first: 2 },
    'held',
  ),
)
const ordinals = ['Second', 'Third', 'Fourth', 'Fifth', 'Sixth', 'Seventh', 'Eighth', 'Ninth', 'Tenth']
change(
  batch(
    ordinals.map((name, i): SingleEdit => ({
      edit: 'level.change',
      scheme: scheme().id,
      id: levelNamed(`Storey ${i + 2}`),
      set: { name },
    })),
  ),
)
const fixed = (name: string, height: number): SingleEdit => ({
  edit: 'level.add',
  scheme: scheme().id,
  thing: { id: mint(), name, kind: 'mark', tie: { kind: 'fixed', height }, floorBuildUp: 0, slab: 0 },
})
change(batch([fixed('permitted', 36), fixed('parapet', 38.1)]))

const mezzanine = levelNamed('Mezzanine')
const addMass = (
  name: string,
  use: string,
  level: string,
  height: number,
  shape: Parameters<typeof newMass>[2]['shape'],
  takesMezzanine = false,
) => {
  const mass = newMass(scheme(), mint, { name, use: useNamed(use), level: levelNamed(level), height, shape })
  change({
    edit: 'mass.add',
    scheme: scheme().id,
    thing: { ...mass, takes: { kind: 'all-but', levels: takesMezzanine ? [] : [mezzanine] } },
  })
}
const recipeOf = (name: string, next: (recipe: Move[]) => Move[]) =>
  change(changeRecipe(scheme(), massNamed(name), next))
const raiseTo = (name: string, level: string) =>
  recipeOf(name, (r) => r.map((m) => (m.move === 'raise' ? { ...m, upTo: { level: levelNamed(level), above: 0 } } : m)))
const box = (x: number, y: number, w: number, d: number) => ({
  kind: 'rectangle' as const,
  from: [x, y] as Vec2,
  to: [x + w, y + d] as Vec2,
})

// The undercroft lies under the bar's two arms; the market hall stands in the angle that they make.
addMass('Undercroft parking', 'parking', 'Undercroft', 3.3, {
  kind: 'polygon',
  points: [
    [0, 30],
    [57.6, 30],
    [57.6, 0],
    [72, 0],
    [72, 44.4],
    [0, 44.4],
  ],
})
addMass('Long arm', 'homes', 'Quay', 21.15, box(0, 30, 57.6, 14.4))
addMass('Short arm', 'homes', 'Quay', 14.85, box(57.6, 0, 14.4, 44.4))
addMass('Market hall', 'market', 'Quay', 6.6, box(14.4, 3.6, 28.8, 19.2), true)
addMass('Ferry hall', 'ferry', 'Quay', 5.4, { kind: 'circle', centre: [91.5, 8], radius: 6.3 })
addMass('Lookout', 'studios', 'Quay', 38.1, box(81.6, 27.6, 12, 12))
const steps = ['First', 'Second', 'Third']
steps.forEach((top, i) => {
  addMass(`Stepped homes ${i + 1}`, 'homes', 'Quay', 5.4, box(-20, 4 + 8.4 * i, 14.4, 8.4))
  raiseTo(`Stepped homes ${i + 1}`, top)
})
raiseTo('Ferry hall', 'First')
raiseTo('Lookout', 'parapet')
recipeOf('Lookout', (r) => [...r, { id: mint(), move: 'twist', on: true, angle: 60, from: 0, to: null }])
change(setPitch(scheme(), massNamed('Market hall'), mint, { angle: 32, direction: 0 }))
change(joinMasses(project, scheme(), mint, massNamed('Long arm').id, massNamed('Short arm').id))
recipeOf('Long arm', (r) =>
  r.map((m) =>
    m.move === 'outline' && m.shape.kind === 'rectangle'
      ? { ...m, shape: { ...m.shape, width: { formula: `{${bay}} * 8` } } }
      : m,
  ),
)
change({ edit: 'mass.change', scheme: scheme().id, id: massNamed('Long arm').id, set: { name: 'Bar of homes' } })
change({
  edit: 'mass.change',
  scheme: scheme().id,
  id: massNamed('Market hall').id,
  set: { takes: { kind: 'only', levels: [quay, mezzanine] } },
})

// What things are made of: the pictures show it, the working views stay paper.
const materialNamed = (name: string) => Object.values(project.materials).find((m) => m.name === name)?.id ?? ''
for (const [mass, material] of [
  ['Bar of homes', 'brick'],
  ['Market hall', 'larch'],
  ['Ferry hall', 'plaster'],
  ['Lookout', 'zinc'],
  ['Stepped homes 1', 'brick'],
  ['Stepped homes 2', 'brick'],
  ['Stepped homes 3', 'brick'],
] as const)
  change({
    edit: 'mass.change',
    scheme: scheme().id,
    id: massNamed(mass).id,
    set: { material: materialNamed(material) },
  })
change({
  edit: 'project.change',
  set: { kinds: { roof: materialNamed('zinc'), wall: materialNamed('brick'), slab: materialNamed('plaster') } },
})

// The second scheme: homes around a court instead of two bars and a hall; what both have keeps its ids, so that they can be compared.
const court = mint()
change({ edit: 'scheme.add', thing: { ...scheme(), id: court, name: 'Around a court', order: 1 } })
for (const name of ['Bar of homes', 'Market hall', ...steps.map((_, i) => `Stepped homes ${i + 1}`)])
  change({ edit: 'mass.remove', scheme: court, id: massNamed(name).id })
const block = newMass(project.schemes[court] as Scheme, mint, {
  name: 'Court of homes',
  use: useNamed('homes'),
  level: quay,
  height: 14.85,
  upTo: { level: levelNamed('Fourth'), above: 0 },
  shape: box(0, 0, 72, 44.4),
})
change({
  edit: 'mass.add',
  scheme: court,
  thing: { ...block, material: materialNamed('brick'), takes: { kind: 'all-but', levels: [mezzanine] } },
})
change(addHole(project, project.schemes[court] as Scheme, block.id, box(14.4, 14.4, 43.2, 15.6)))

// The halls and the stepped homes are converted; then the lowest step grows, and what stood on its west face has drifted.
const { context } = studyScheme(project, scheme().id)
const choices: Choices = { ...usualChoices(project), overhang: 0.6 }
const made = ['Market hall', 'Ferry hall', ...steps.map((_, i) => `Stepped homes ${i + 1}`)].map(
  (name) => massNamed(name).id,
)
change(addParts(context, partsFrom(context, mint, propose(context, made, howOf(choices)).candidates, choices)))
recipeOf('Stepped homes 1', (r) =>
  r.map((m) => (m.move === 'outline' && m.shape.kind === 'rectangle' ? { ...m, shape: { ...m.shape, width: 15 } } : m)),
)

await layGround()

// Kept views: each says all that it shows, and how.
const shows = {
  masses: 'solid' as const,
  fabric: false,
  context: true,
  labels: true,
  materials: false,
  levels: 'marks' as const,
  pictures: true,
  terrain: true,
  envelope: true,
}
const keep = (order: number, name: string, more: Partial<KeptView>): SingleEdit => ({
  edit: 'view.add',
  scheme: scheme().id,
  thing: {
    id: mint(),
    name,
    order,
    pane: '3d',
    camera: { target: [38, 20, 10], azimuth: -38, elevation: 31, scale: 6.4 },
    blade: null,
    upright: null,
    shows,
    hidden: [],
    ...more,
  },
})
change(
  batch([
    keep(0, 'From the water', {
      camera: { target: [38, 20, 12], azimuth: -62, elevation: 18, scale: 6.6 },
      shows: { ...shows, materials: true, labels: false, levels: 'none', envelope: false },
    }),
    keep(1, 'Cut at the second floor', { blade: levelNamed('Second') }),
    keep(2, 'Quay, plan', {
      pane: 'plan',
      blade: quay,
      camera: { target: [38, 20, 0], azimuth: -90, elevation: 90, scale: 7 },
    }),
    keep(3, 'Fabric in its forms', { shows: { ...shows, masses: 'see-through', fabric: true } }),
  ]),
)

byHand(levelNamed, useNamed, materialNamed)
kilnCluster(levelNamed, useNamed, materialNamed)

// The brief, which all schemes share: the cluster meets it, the one by hand lacks homes, the other two rise too high.
change(
  readBrief(
    project,
    [
      'name;target;tolerance;bound;size',
      'homes;8,000;;at least;',
      'flats, homes;100;;at least;75',
      'studios;500;5 %;at least;',
      'height;36;;at most;',
      'ratio;1.75;;at most;',
    ].join('\n'),
    mint,
  ),
)

await writeFile(new URL('./kiln-quay.geotome.json', import.meta.url), `${writeProjectText(project)}\n`)
for (const s of inOrder(project.schemes)) {
  const study = studyScheme(project, s.id)
  const ledger = ledgerOf(study)
  process.stdout.write(
    `${s.name}\n${JSON.stringify(
      ledger.levels.map((l) => [l.name, l.height, l.area, l.low, l.uses]),
      null,
      0,
    )}\n${JSON.stringify(ledger.totals)}\n${study.findings.map((f) => `${f.kind}: ${f.say}`).join('\n')}\n`,
  )
}

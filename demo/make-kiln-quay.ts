import { writeFile } from 'node:fs/promises'
import { applyEdit, batch, type Edit, type SingleEdit } from '@geotome/core/edits'
import { addParts, partsFrom, propose, type Choices } from '@geotome/core/fabric'
import { joinMasses, moveCorner, newMass, setPitch } from '@geotome/core/form'
import { addStoreys } from '@geotome/core/levels'
import { blankProject, inOrder, writeProjectText, type Mass, type Project } from '@geotome/core/project'
import { openKernel, type Vec2 } from '@geotome/core/solid'
import { firstScheme, ledgerOf, studyScheme } from '@geotome/core/study'

/**
 * Kiln Quay, a made-up harbour town's disused brick-kiln quay: a market hall with homes and studios above and around it.
 * Written to demo/kiln-quay.geotome.json; the ids count up, so that it comes out the same each time.
 */
let count = 0
const mint = () => `6b1c4a00-0000-4000-8000-${(++count).toString(16).padStart(12, '0')}`

await openKernel()
let project: Project = { ...blankProject(mint, 'Kiln Quay', 'm', 4200) }
const scheme = () => firstScheme(project)
const change = (...edits: Edit[]) => { for (const edit of edits) project = applyEdit(project, edit).project }
const levelNamed = (name: string) => Object.values(scheme().levels).find((l) => l.name === name)?.id ?? ''
const useNamed = (name: string) => Object.values(project.uses).find((u) => u.name === name)?.id ?? ''
const massNamed = (name: string): Mass => Object.values(scheme().masses).find((m) => m.name === name) as Mass

change({ edit: 'scheme.change', id: scheme().id, set: { name: 'Two bars' } })
const bay = mint()
change({ edit: 'dial.add', scheme: scheme().id, thing: { id: bay, order: 0, name: 'bay', quantity: 'length', value: 7.2, least: 5.4, most: 9, step: 0.3 } })

const quay = levelNamed('Ground')
const stacked = (name: string, on: string, above: number, kind: 'storey' | 'mark' = 'storey'): SingleEdit => ({ edit: 'level.add', scheme: scheme().id, thing: { id: mint(), name, kind, tie: { kind: 'stacked', on, above }, floorBuildUp: 0 } })
change({ edit: 'level.change', scheme: scheme().id, id: quay, set: { name: 'Quay' } })
change(batch([stacked('Undercroft', quay, -3.3), stacked('Mezzanine', quay, 3.1), stacked('First', quay, 5.4)]))
change(addStoreys(project, scheme(), mint, { on: levelNamed('First'), count: 9, each: 3.15, pattern: 'Storey {n}', first: 2 }, 'held'))
const ordinals = ['Second', 'Third', 'Fourth', 'Fifth', 'Sixth', 'Seventh', 'Eighth', 'Ninth', 'Tenth']
change(batch(ordinals.map((name, i): SingleEdit => ({ edit: 'level.change', scheme: scheme().id, id: levelNamed(`Storey ${i + 2}`), set: { name } }))))
const fixed = (name: string, height: number): SingleEdit => ({ edit: 'level.add', scheme: scheme().id, thing: { id: mint(), name, kind: 'mark', tie: { kind: 'fixed', height }, floorBuildUp: 0 } })
change(batch([fixed('permitted', 36), fixed('parapet', 38.1)]))

const mezzanine = levelNamed('Mezzanine')
const addMass = (name: string, use: string, level: string, height: number, shape: Parameters<typeof newMass>[2]['shape'], takesMezzanine = false) => {
  const mass = newMass(scheme(), mint, { name, use: useNamed(use), level: levelNamed(level), height, shape })
  change({ edit: 'mass.add', scheme: scheme().id, thing: { ...mass, takes: { kind: 'all-but', levels: takesMezzanine ? [] : [mezzanine] } } })
}
const box = (x: number, y: number, w: number, d: number) => ({ kind: 'rectangle' as const, from: [x, y] as Vec2, to: [x + w, y + d] as Vec2 })

// The undercroft lies under the bar's two arms; the market hall stands in the angle that they make.
addMass('Undercroft parking', 'parking', 'Undercroft', 3.3, { kind: 'polygon', points: [[0, 30], [57.6, 30], [57.6, 0], [72, 0], [72, 44.4], [0, 44.4]] })
addMass('Long arm', 'homes', 'Quay', 21.15, box(0, 30, 57.6, 14.4))
addMass('Short arm', 'homes', 'Quay', 14.85, box(57.6, 0, 14.4, 44.4))
addMass('Market hall', 'market', 'Quay', 6.6, box(14.4, 3.6, 28.8, 19.2), true)
addMass('Ferry hall', 'ferry', 'Quay', 5.4, box(84, 2, 15, 12))
addMass('Lookout', 'studios', 'Quay', 38.1, box(81.6, 27.6, 12, 12))
change(setPitch(scheme(), massNamed('Market hall'), mint, { angle: 32, direction: 0 }))
change(joinMasses(project, scheme(), mint, massNamed('Long arm').id, massNamed('Short arm').id))
const bar = massNamed('Long arm')
const outlineInBays = bar.recipe.map((m) => (m.move === 'outline' && m.shape.kind === 'rectangle' ? { ...m, shape: { ...m.shape, width: { formula: `{${bay}} * 8` } } } : m))
change({ edit: 'mass.change', scheme: scheme().id, id: bar.id, set: { name: 'Bar of homes', recipe: outlineInBays } })
change({ edit: 'mass.change', scheme: scheme().id, id: massNamed('Market hall').id, set: { takes: { kind: 'only', levels: [quay, mezzanine] } } })
change({ edit: 'mass.change', scheme: scheme().id, id: massNamed('Lookout').id, set: { place: { x: 81.6, y: 27.6, turn: -12 } } })

// The ferry hall and the market hall are converted; then a corner of the ferry hall moves, and what stood on it has drifted.
const { context } = studyScheme(project, scheme().id)
const first = (kind: string) => inOrder(project.buildUps).find((b) => b.for === kind)?.id ?? ''
const choices: Choices = { wall: first('wall'), slab: first('slab'), roof: first('roof'), wallSide: 'inside', overhang: 0.6 }
change(addParts(context, partsFrom(context, mint, propose(context, [massNamed('Market hall').id, massNamed('Ferry hall').id]).candidates, choices)))
change(moveCorner(project, scheme(), massNamed('Ferry hall').id, 'east', [16.8, 0]))

await writeFile(new URL('./kiln-quay.geotome.json', import.meta.url), `${writeProjectText(project)}\n`)
const ledger = ledgerOf(studyScheme(project, scheme().id))
process.stdout.write(`${JSON.stringify(ledger.levels.map((l) => [l.name, l.height, l.area, l.low, l.uses]), null, 0)}\n${JSON.stringify(ledger.totals)}\n`)

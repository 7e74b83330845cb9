import { beforeAll, describe, expect, it } from 'vitest'
import { inOrder } from '@geotome/core/project'
import { moveLevel } from '@geotome/core/levels'
import { openKernel } from '@geotome/core/solid'
import type { Offer } from '@geotome/core/fabric'
import { StudyCache, studyScheme, type Study } from '@geotome/core/study'
import type { Project } from '@geotome/core/project'
import {
  apply,
  changeMass,
  choicesOf,
  converted,
  projectWith,
  schemeOf,
  thick,
  withMass,
} from '../../../core/testing/make'
import { LastOffer } from './proposal-view'
import type { Ask } from './protocol'
import { GeometryStore } from '../stage/geometry-store'
import { forget, nothingSent, viewOf } from './view'

beforeAll(() => openKernel())

const ask = (project: Project, proposal = false): Ask => ({
  scheme: schemeOf(project).id,
  preview: null,
  compare: null,
  section: null,
  proposal: proposal ? { masses: null, choices: choicesOf(project) } : null,
})
const offers = new LastOffer()
function offerOf(study: Study, wanted: NonNullable<Ask['proposal']>): Offer {
  const steps = offers.steps(study, wanted)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}
/** A page as the worker sees it: what it has been sent, and a cache that goes on. */
function page() {
  const [cache, sent] = [new StudyCache(), nothingSent()]
  return (project: Project, proposal = false) => {
    const study = studyScheme(project, schemeOf(project).id, cache)
    const wanted = ask(project, proposal)
    const view = viewOf(study, wanted, sent, 0, wanted.proposal && offerOf(study, wanted.proposal))
    forget(view, sent)
    return view
  }
}
const tower = () => withMass(projectWith([0, 3, 6, 9, 12]), { name: 'Tower', box: [0, 0, 10, 8], height: 15 })

describe('what is sent to the page', () => {
  it('says how high each part stands: a roof of 0.32 on a form of 9.75 to 10.07', () => {
    const form = withMass(projectWith([0, 3, 6]), { name: 'Bar', box: [5, 5, 10, 10], height: 9.75 })
    const { fresh } = page()(thick(converted(form), { roof: 0.32 }))
    expect(Math.max(...fresh.parts.map((p) => p.top))).toBeCloseTo(10.07, 6)
    expect(fresh.masses[0]?.top).toBeCloseTo(9.75, 9)
  })
  it('calls the sides of a mass by where they look', () => {
    const turned = changeMass(tower(), 'Tower', { place: { x: 0, y: 0, turn: 90 } })
    const labels = Object.fromEntries(
      page()(turned).fresh.masses.flatMap((m) => m.faces.map((f) => [f.name.split('/')[1], f.label])),
    )
    expect(labels).toMatchObject({ south: 'east side', east: 'north side', top: 'top' })
  })
  it('is sent once: floors of one shape together, bodies and shapes not again while they stay', () => {
    const show = page()
    const first = show(tower())
    expect([first.floors.length, first.shapes.length, first.geometry.length]).toEqual([5, 1, 1])
    expect(new Set(first.floors.map((f) => f.shape)).size).toBe(1)
    const again = show(apply(tower(), { edit: 'project.change', set: { name: 'Other' } }))
    expect([again.shapes.length, again.geometry.length]).toEqual([0, 0])
  })
  it('is nothing but figures when a level moves within an upright form', () => {
    const show = page()
    const project = tower()
    show(project)
    const moved = show(apply(project, moveLevel(project, schemeOf(project), 'L2', 6.5, 'held')))
    expect([moved.shapes.length, moved.geometry.length]).toEqual([0, 0])
    expect(moved.levels[2]?.height).toBe(6.5)
  })
  it('has the bodies of parts when a drag rests, or where they are drawn; figures and bonds of them at once', () => {
    const [cache, sent] = [new StudyCache(), nothingSent()]
    const project = converted(tower())
    const moved = moveLevel(project, schemeOf(project), 'L4', 12.5, 'held')
    const see = (p: Project, more: Partial<Ask>) =>
      viewOf(studyScheme(p, schemeOf(p).id, cache), { ...ask(p), ...more }, sent, 0)
    see(project, { fabric: false })
    const all = see(apply(project, moved), { preview: moved, fabric: false })
    const meshes = all.fresh.parts.flatMap((p) => p.mesh ?? [])
    const bodies = (view: typeof all) => view.geometry.filter((g) => meshes.includes(g.key)).length
    expect([meshes.length > 0, bodies(all)]).toEqual([true, 0])
    expect(bodies(see(apply(project, moved), { preview: moved, fabric: false, whole: true }))).toBe(meshes.length)
  })
  it('gives each piece of floor to one mass', () => {
    const project = withMass(withMass(projectWith([0]), { name: 'A', box: [0, 0, 20, 10], height: 3 }), {
      name: 'B',
      box: [15, 0, 20, 10],
      height: 3,
      use: 'market',
    })
    const [piece] = page()(project).pieces
    expect(piece?.plates.map((p) => p.area.toFixed(2))).toEqual(['200.00', '150.00'])
  })
  it('has of a floor only the pieces that changed, and the page puts it together again', () => {
    const two = withMass(tower(), { name: 'Shed', box: [30, 0, 6, 5], height: 15 })
    const [show, store] = [page(), new GeometryStore()]
    store.keep(show(two))
    for (const x of [31, 32.5]) {
      const moved = changeMass(two, 'Shed', { place: { x, y: 0, turn: 12 } })
      const view = show(moved)
      expect([view.shapes.length, view.pieces.map((p) => p.plates.length)]).toEqual([1, [1]])
      const whole = new GeometryStore().keep(page()(moved))
      expect(store.keep(view).floors.map((f) => [f.plates, f.lows])).toEqual(
        whole.floors.map((f) => [f.plates, f.lows]),
      )
    }
    // Back again: what is not named any more was forgotten on both sides, and is sent anew.
    const back = show(two)
    expect(back.pieces).toHaveLength(1)
    expect(store.keep(back).floors[0]?.plates.map((p) => p.area)).toEqual([80, 30])
  })
  it('tells while something is dragged how many findings there are; the list itself where it is open, and at rest', () => {
    const [cache, sent, store] = [new StudyCache(), nothingSent(), new GeometryStore()]
    const project = changeMass(tower(), 'Tower', { base: { level: 'L0', above: -1 } })
    const moved = moveLevel(project, schemeOf(project), 'L4', 13.5, 'held')
    const see = (more: Partial<Ask>) =>
      store.keep(
        viewOf(studyScheme(apply(project, moved), schemeOf(project).id, cache), { ...ask(project), ...more }, sent, 0),
      )
    const at = store.keep(viewOf(studyScheme(project, schemeOf(project).id, cache), ask(project), sent, 0))
    const held = see({ preview: moved })
    // Its floor is low, and its top lies just above it.
    expect([at.open, held.open]).toEqual([0, 2])
    expect(held.findings).toBe(at.findings)
    expect(see({ preview: moved, findings: true }).findings).toHaveLength(held.open)
    expect(see({ preview: moved, whole: true }).findings).toHaveLength(held.open)
  })
  it('shows what the blade cuts of a mass that takes no floor there', () => {
    const project = changeMass(tower(), 'Tower', { takes: { kind: 'all-but', levels: ['L1'] } })
    const view = page()(project)
    expect(view.floors.map((f) => f.untaken.length)).toEqual([0, 1, 0, 0, 0])
    expect(view.floors[1]?.area).toBe(0)
  })
  it('stays near zero for a site at map coordinates', () => {
    const view = page()(withMass(projectWith([0]), { box: [350000, 5600000, 20, 10], height: 3 }))
    expect(view.origin).toEqual([350000, 5600000])
    expect(Math.max(...(view.pieces[0]?.plates[0]?.region.flat(2) ?? []))).toBeLessThan(100)
  })
  it('is only those masses and parts that a change touches, and the page has all of them as the worker does', () => {
    const [show, store] = [page(), new GeometryStore()]
    const project = converted(tower())
    const first = store.keep(show(project))
    expect(first.parts.map((p) => p.id)).toEqual(show(project).parts)
    const edit = moveLevel(project, schemeOf(project), 'L3', 9.2, 'held')
    const moved = show(apply(project, edit))
    expect(moved.fresh.parts.length).toBeGreaterThan(0)
    expect(moved.fresh.parts.length).toBeLessThan(moved.parts.length / 2)
    const whole = new GeometryStore().keep(page()(apply(project, edit)))
    expect({ ...store.keep(moved), floors: [] }).toEqual({ ...whole, floors: [] })
    const [wall = ''] = moved.parts
    const less = store.keep(show(apply(project, { edit: 'part.remove', scheme: schemeOf(project).id, id: wall })))
    expect(less.parts.map((p) => p.id)).not.toContain(wall)
    expect(store.keep(show(project)).parts).toEqual(first.parts)
  })
  it('offers a building with counts and areas, and draws the parts once they are made', () => {
    const show = page()
    const offer = show(tower(), true).proposal
    expect(offer?.candidates.filter((c) => c.role === 'wall')).toHaveLength(20)
    expect(offer?.candidates.filter((c) => c.role === 'floor slab').reduce((s, c) => s + c.area, 0)).toBeCloseTo(320, 6)
    const made = page()(converted(tower()))
    expect(made.fresh.parts.every((p) => p.mesh !== null)).toBe(true)
    expect(made.geometry.every((g) => g.positions.length === g.normals.length && g.positions.length % 9 === 0)).toBe(
      true,
    )
    expect(made.fresh.parts.map((p) => p.buildUp)).toEqual(
      made.fresh.parts.map(
        (p) =>
          inOrder(converted(tower()).buildUps).find(
            (b) => b.for === (p.role === 'wall' ? 'wall' : p.role.endsWith('slab') ? 'slab' : 'roof'),
          )?.id,
      ),
    )
  })
})

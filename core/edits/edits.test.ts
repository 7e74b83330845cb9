import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { writeProjectText, type Project } from '../project'
import { openKernel } from '../solid'
import { converted, massNamed, minter, projectWith, schemeOf, withMass } from '../testing/make'
import { joinMasses, moveCorner, moveMasses, newMass, removeMass, setPitch } from '../form'
import { addLevel, addStoreys, moveLevel, removeLevel, retieLevel, tieAs } from '../levels'
import { applyEdit, batch, parseEdit, singles, type Edit } from './index'

beforeAll(() => openKernel())

const start = (): Project => {
  let project = projectWith([-3, 0, 3, 6])
  project = withMass(project, { name: 'Bar', box: [0, 0, 20, 10], height: 9, level: 'L1' })
  project = withMass(project, { name: 'Wing', points: [[20, 0], [28, 0], [28, 12], [20, 10]], height: 6, level: 'L1', use: 'studios' })
  return converted(project)
}

/** One random step of a person's work; null where it does not apply. */
const STEPS: ((p: Project, pick: (n: number) => number, mint: () => string) => Edit | null)[] = [
  (_p, pick) => ({ edit: 'project.change', set: { name: `Name ${pick(9)}`, headroom: 1.5 + pick(10) / 10, siteArea: pick(2) ? 400 : null } }),
  (p, pick) => moveLevel(p, schemeOf(p), anyOf(schemeOf(p).levels, pick), pick(200) / 10 - 4, pick(2) ? 'carried' : 'held'),
  (p, pick, mint) => addLevel(schemeOf(p), mint, { name: `Level ${mint()}`, kind: pick(2) ? 'storey' : 'mark', on: anyOf(schemeOf(p).levels, pick), above: pick(60) / 10 - 3 }),
  (p, pick, mint) => addStoreys(p, schemeOf(p), mint, { on: anyOf(schemeOf(p).levels, pick), count: 1 + pick(4), each: 3, pattern: `S${mint()} {n}`, first: 1 }, pick(2) ? 'carried' : 'held'),
  (p, pick) => removeLevel(p, schemeOf(p), anyOf(schemeOf(p).levels, pick)),
  (p, pick) => { const id = anyOf(schemeOf(p).levels, pick); return retieLevel(p, schemeOf(p), id, tieAs(p, schemeOf(p), id, pick(2) ? 'fixed' : 'stacked'), 'held') },
  (p, pick, mint) => ({ edit: 'mass.add', scheme: schemeOf(p).id, thing: newMass(schemeOf(p), mint, { name: `Mass ${mint()}`, use: Object.keys(p.uses)[pick(5)] ?? '', level: anyOf(schemeOf(p).levels, pick), height: 1 + pick(30), shape: { kind: 'rectangle', from: [pick(40), pick(40)], to: [41 + pick(40), 41 + pick(40)] } }) }),
  (p, pick) => moveMasses(p, schemeOf(p), [anyOf(schemeOf(p).masses, pick)], [pick(90) / 10, -pick(50) / 10], pick(24) * 15, [3, 4]),
  (p, pick) => removeMass(schemeOf(p), anyOf(schemeOf(p).masses, pick), pick(2) === 1),
  (p, pick, mint) => { const mass = schemeOf(p).masses[anyOf(schemeOf(p).masses, pick)]; return mass ? setPitch(schemeOf(p), mass, mint, pick(4) ? { angle: 5 + pick(40), direction: pick(4) * 45 } : null) : null },
  (p, pick) => { const mass = schemeOf(p).masses[anyOf(schemeOf(p).masses, pick)]; const outline = mass?.recipe[0]; return mass && outline?.move === 'outline' && outline.shape.kind === 'polygon' ? moveCorner(p, schemeOf(p), mass.id, outline.shape.corners[0]?.id ?? '', [-pick(30) / 10, -pick(30) / 10]) : null },
  (p, pick, mint) => { const [a, b] = Object.keys(schemeOf(p).masses); return a && b && pick(3) === 0 ? joinMasses(p, schemeOf(p), mint, a, b) : null },
  (p, pick) => ({ edit: 'part.remove', scheme: schemeOf(p).id, id: anyOf(schemeOf(p).parts, pick) }),
  (p, pick) => ({ edit: 'part.change', scheme: schemeOf(p).id, id: anyOf(schemeOf(p).parts, pick), set: { name: `Part ${pick(99)}`, side: 'outside' } }),
  (p, pick, mint) => ({ edit: 'dial.add', scheme: schemeOf(p).id, thing: { id: mint(), order: pick(9), name: `d${mint().replace(/\W/g, '_')}`, quantity: 'length', value: pick(90) / 10, least: null, most: null, step: null } }),
  (p, pick) => ({ edit: 'build-up.change', id: Object.values(p.buildUps).filter((b) => b.for === 'wall')[pick(2)]?.id ?? '', set: { layers: [{ name: 'wall', material: 'clay', thickness: 0.1 + pick(30) / 100 }] } }),
]
const anyOf = (things: Record<string, unknown>, pick: (n: number) => number) => { const keys = Object.keys(things); return keys[pick(Math.max(1, keys.length))] ?? 'none' }

describe('the inverse of an edit', () => {
  it('restores the canonical file byte for byte, through any work and all the way back', () => {
    const base = start()
    fc.assert(fc.property(fc.array(fc.array(fc.nat(9999), { minLength: 12, maxLength: 12 }), { minLength: 1, maxLength: 14 }), (work) => {
      const mint = minter('new')
      let project = base
      const before: string[] = []
      const inverses: Edit[] = []
      for (const dice of work) {
        let k = 0
        const pick = (n: number) => (dice[k++ % dice.length] ?? 0) % n
        try {
          const edit = STEPS[pick(STEPS.length)]?.(project, pick, mint)
          if (!edit) continue
          const text = writeProjectText(project)
          const done = applyEdit(project, edit)
          before.push(text)
          inverses.push(done.inverse)
          // What is sent to the server and stored is JSON: it must mean the same.
          expect(writeProjectText(applyEdit(project, parseEdit(JSON.parse(JSON.stringify(edit)))).project)).toBe(writeProjectText(done.project))
          expect(writeProjectText(project)).toBe(text)
          project = done.project
        } catch (e) { if (!(e instanceof Error) || e.name !== 'Refusal') throw e }
      }
      for (let i = inverses.length - 1; i >= 0; i--) {
        const inverse = inverses[i]
        if (!inverse) continue
        project = applyEdit(project, parseEdit(JSON.parse(JSON.stringify(inverse)))).project
        expect(writeProjectText(project)).toBe(before[i])
      }
    }), { numRuns: 150 })
  })
})

describe('an edit that cannot be made', () => {
  const refused = (edit: unknown, sentence: RegExp, from: Project = start()) => {
    const text = writeProjectText(from)
    expect(() => applyEdit(from, parseEdit(edit))).toThrow(sentence)
    expect(writeProjectText(from)).toBe(text)
  }
  const scheme = () => schemeOf(start()).id
  it('says so for an unknown id, an unknown edit, a malformed one', () => {
    refused({ edit: 'mass.remove', scheme: scheme(), id: 'nobody' }, /no mass with the id "nobody"/)
    refused({ edit: 'mass.remove', scheme: 'nowhere', id: 'x' }, /no scheme with the id "nowhere"/)
    refused({ edit: 'mass.explode', scheme: scheme(), id: 'x' }, /mass\.explode/)
    refused({ edit: 'storm.add' }, /no edit that this Geotome knows/)
    refused({ edit: 'project.change', set: { unit: 'yard' } }, /malformed at set\.unit/)
    refused({ edit: 'project.change', set: { headroom: null } }, /malformed at set\.headroom/)
    refused({ edit: 'level.change', scheme: scheme(), id: 'L1', set: { id: 'L9' } }, /malformed/)
    refused('nonsense', /malformed/)
  })
  it('half-applies nothing: a batch whose last step fails changes nothing', () => {
    refused({ edit: 'batch', edits: [{ edit: 'project.change', set: { name: 'Half' } }, { edit: 'level.remove', scheme: scheme(), id: 'nobody' }] }, /no level/)
    refused({ edit: 'level.remove', scheme: scheme(), id: 'L1' }, /not there/)
  })
  it('keeps levels from standing on themselves, and names the circle', () => {
    refused({ edit: 'level.change', scheme: scheme(), id: 'L1', set: { tie: { kind: 'stacked', on: 'L3', above: 3 } } }, /Level 1 on Level 3 on Level 2 on Level 1/)
    refused({ edit: 'level.change', scheme: scheme(), id: 'L1', set: { tie: { kind: 'stacked', on: 'L1', above: 3 } } }, /circle/)
  })
  it('keeps forms buildable: crossing outlines, zero sizes, a raise without an outline', () => {
    const project = start()
    const wing = massNamed(project, 'Wing')
    const change = (recipe: unknown) => ({ edit: 'mass.change', scheme: schemeOf(project).id, id: wing.id, set: { recipe } })
    const outline = (points: number[][]) => ({ id: 'o', move: 'outline', on: true, shape: { kind: 'polygon', corners: points.map(([x, y], i) => ({ id: `e${i}`, x, y })) } })
    const raise = (height: number) => ({ id: 'r', move: 'raise', on: true, height })
    refused(change([outline([[0, 0], [10, 10], [10, 0], [0, 10]]), raise(3)]), /crosses itself: side 1 meets side 3/, project)
    refused(change([outline([[0, 0], [10, 0], [10, 0], [0, 10]]), raise(3)]), /two corners at one place/, project)
    refused(change([outline([[0, 0], [10, 0], [20, 0]]), raise(3)]), /crosses itself|no area/, project)
    refused(change([outline([[0, 0], [10, 0]]), raise(3)]), /fewer than three corners/, project)
    refused(change([outline([[0, 0], [10, 0], [0, 10]]), raise(0)]), /height of "Wing" is zero/, project)
    refused(change([raise(3)]), /begin with an outline/, project)
    refused(change([]), /begin with an outline/, project)
  })
  it('keeps names apart and build-ups fitting', () => {
    const project = start()
    refused({ edit: 'level.change', scheme: schemeOf(project).id, id: 'L1', set: { name: 'level 2' } }, /a level named "Level 2" already|a level named "level 2" already/i, project)
    const part = Object.values(schemeOf(project).parts).find((p) => p.kind === 'wall')
    const slabType = Object.values(project.buildUps).find((b) => b.for === 'slab')
    refused({ edit: 'part.change', scheme: schemeOf(project).id, id: part?.id, set: { buildUp: slabType?.id } }, /build-up for a slab/, project)
    refused({ edit: 'project.change', set: { siteArea: 0 } }, /site area is zero/, project)
  })
})

it('a batch of one is the edit itself, and a gesture tells its single edits', () => {
  const one: Edit = { edit: 'project.change', set: { name: 'A' } }
  expect(batch([one])).toBe(one)
  expect(singles(batch([one, one]))).toHaveLength(2)
})

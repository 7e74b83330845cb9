import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { changeRecipe, newMass } from '../form'
import type { Move } from '../moves'
import { canonical, fingerprint, Refusal, writeProjectText, type Id, type Project } from '../project'
import { openKernel } from '../solid'
import { apply, changeMass, massNamed, minter, projectWith, schemeOf, withMass } from '../testing/make'
import { busyProject, WORK, workOf } from '../testing/work'
import {
  applyEdit,
  applyLogged,
  asMeant,
  differences,
  editOfLog,
  LOG_FORMAT,
  parseEdit,
  projectOfLog,
  singles,
} from './index'
import type { Edit } from './index'

beforeAll(() => openKernel())

const tower = () => withMass(projectWith([0, 3, 6]), { name: 'Bar', box: [0, 0, 20, 10], height: 6 })
const recipe = (p: Project, next: (moves: Move[]) => Move[]): Edit =>
  changeRecipe(schemeOf(p), massNamed(p, 'Bar'), next)
const raised = (p: Project, height: number): Edit =>
  recipe(p, (moves) => moves.map((m) => (m.move === 'raise' ? { ...m, height } : m)))
const tapered = (p: Project, scale: number): Edit =>
  recipe(p, (moves) => [...moves, { id: 'taper', move: 'taper', on: true, by: { kind: 'scale', scale } }])
const heightOf = (p: Project) => massNamed(p, 'Bar').recipe.find((m) => m.move === 'raise')?.height
const movesOf = (p: Project) => massNamed(p, 'Bar').recipe.map((m) => m.move)

describe('what one person takes back leaves the work of another', () => {
  it('a height that is taken back leaves the taper that somebody has put behind it since', () => {
    const start = tower()
    const first = applyEdit(start, raised(start, 9))
    const second = applyEdit(first.project, tapered(first.project, 0.5))
    const back = applyEdit(second.project, first.inverse)
    expect(heightOf(back.project)).toBe(6)
    expect(movesOf(back.project)).toEqual(['outline', 'raise', 'taper'])
    // And the other way: the taper goes, the height stays.
    const other = applyEdit(second.project, second.inverse)
    expect([heightOf(other.project), movesOf(other.project)]).toEqual([9, ['outline', 'raise']])
  })

  it('is refused with the place where somebody has changed the same', () => {
    const start = tower()
    const first = applyEdit(start, raised(start, 9))
    const second = applyEdit(first.project, raised(first.project, 12))
    expect(() => applyEdit(second.project, first.inverse)).toThrow(/height of the raise of "Bar" is not as it was then/)
    // A mass that was drawn and that somebody has worked on since is not taken away.
    const mass = newMass(schemeOf(start), minter('drawn'), {
      name: 'Annex',
      use: massNamed(start, 'Bar').use,
      level: 'L0',
      height: 3,
      shape: { kind: 'rectangle', from: [30, 0], to: [40, 8] },
    })
    const drawn = applyEdit(start, { edit: 'mass.add', scheme: schemeOf(start).id, thing: mass })
    expect(() => applyEdit(changeMass(drawn.project, 'Annex', { name: 'Boat house' }), drawn.inverse)).toThrow(
      /"Boat house" is not as it was then/,
    )
  })

  it('lists of names keep what others have put in, and their order', () => {
    const start = tower()
    const mass = (p: Project) => massNamed(p, 'Bar').takes.levels
    const leave = (p: Project, levels: Id[]) => changeMass(p, 'Bar', { takes: { kind: 'all-but', levels } })
    const first = leave(start, ['L1'])
    const back = { edit: 'patch' as const, changes: differences(first, start) }
    expect(mass(apply(leave(first, ['L1', 'L2']), back))).toEqual(['L2'])
  })

  it('layers by their ids: an undo leaves the thickness of a layer that somebody has inserted before', () => {
    const start = tower()
    const wall = wallOf(start)
    const first = applyEdit(start, thicker(start, 0, 0.02))
    const put = applyEdit(first.project, putFirst(first.project, 0.02))
    const back = wallOf(applyEdit(put.project, first.inverse).project).layers
    expect(back.map((l) => l.thickness)).toEqual([0.02, ...wall.layers.map((l) => l.thickness)])
  })

  it('own facts by their ids', () => {
    const facts = (p: Project, custom: Project['facts']['custom']): Edit => ({
      edit: 'project.change',
      set: { facts: { ...p.facts, custom } },
    })
    const fact = (id: string, text: string) => ({ id, name: id, text })
    const start = apply(tower(), facts(tower(), [fact('plot', 'E 14')]))
    const first = applyEdit(start, facts(start, [fact('plot', 'E 15')]))
    const put = applyEdit(first.project, facts(first.project, [fact('lot', 'E 15'), fact('plot', 'E 15')]))
    const back = applyEdit(put.project, first.inverse).project.facts.custom
    expect(back).toEqual([fact('lot', 'E 15'), fact('plot', 'E 14')])
  })
})

const wallOf = (p: Project) => {
  const wall = Object.values(p.buildUps).find((b) => b.for === 'wall' && b.layers.length > 1)
  if (!wall) throw new Error('no wall of several layers')
  return wall
}
const thicker = (p: Project, n: number, thickness: number): Edit => ({
  edit: 'build-up.change',
  id: wallOf(p).id,
  set: { layers: wallOf(p).layers.map((l, i) => (i === n ? { ...l, thickness } : l)) },
})
const putFirst = (p: Project, thickness: number): Edit => ({
  edit: 'build-up.change',
  id: wallOf(p).id,
  set: { layers: [{ id: 'render', name: 'render', material: 'plaster', thickness }, ...wallOf(p).layers] },
})

it('an edit of a layer lands on that layer, whatever somebody has put in its place meanwhile', () => {
  const seen = tower()
  const edit = meant(seen, thicker(seen, 0, 0.5))
  const both = wallOf(apply(seen, meant(seen, putFirst(seen, wallOf(seen).layers[0]?.thickness as number)), edit))
  expect(both.layers.map((l) => [l.id, l.thickness]).slice(0, 2)).toEqual([
    ['render', wallOf(seen).layers[0]?.thickness],
    [wallOf(seen).layers[0]?.id, 0.5],
  ])
})

const meant = (p: Project, edit: Edit): Edit => {
  const is = asMeant(p, edit)
  if (!is) throw new Error('It changes nothing.')
  return is
}

it('an edit that asks for what is there already means nothing; beside one that changes something it is left out', () => {
  const seen = tower()
  expect(asMeant(seen, raised(seen, 6))).toBeNull()
  expect(asMeant(seen, { edit: 'project.change', set: { name: seen.name } })).toBeNull()
  const both: Edit = { edit: 'batch', edits: [raised(seen, 6), raised(seen, 9)].flatMap(singles) }
  expect(asMeant(seen, both)).toEqual(asMeant(seen, raised(seen, 9)))
})

it('two who change one mass at the same moment both get what they meant', () => {
  const seen = tower()
  // Both see the same; the second one's edit comes in when the first one's is there already.
  const [a, b] = [meant(seen, raised(seen, 9)), meant(seen, tapered(seen, 0.5))]
  const both = apply(seen, parseEdit(JSON.parse(JSON.stringify(a))), parseEdit(JSON.parse(JSON.stringify(b))))
  expect([heightOf(both), movesOf(both)]).toEqual([9, ['outline', 'raise', 'taper']])
  expect(() => apply(seen, a, meant(seen, raised(seen, 12)))).toThrow(/has been changed since/)
})

it('what gets in by a change of leaves is read by the same schemas as what gets in whole', () => {
  const start = tower()
  const scheme = schemeOf(start).id
  const to = (at: string[], is: unknown): unknown => ({ edit: 'patch', changes: [{ at, was: null, to: { is } }] })
  for (const edit of [
    to(['schemes', scheme, 'masses', massNamed(start, 'Bar').id, 'spirit'], 7),
    to(['schemes', scheme, 'levels', 'L9'], { id: 'L9', name: '', kind: 'storey' }),
    to(['storms'], {}),
    to(['constructor'], {}),
    to(['uses', '__proto__'], {}),
    { edit: 'patch', changes: [{ at: ['id'], was: { is: start.id }, to: { is: 'x' } }] },
  ])
    expect(() => applyEdit(start, parseEdit(edit))).toThrow(Refusal)
  expect(({} as { spirit?: unknown }).spirit).toBeUndefined()
})

const within = (project: Project, at: readonly string[]): unknown =>
  at.reduce<unknown>((value, key) => (value as Record<string, unknown> | undefined)?.[key], project)
const same = (a: unknown, b: unknown) => (a === undefined ? b === undefined : canonical(a) === canonical(b))

it('random work of three, in any interleaving, taken back in any order, never changes what another made last', () => {
  const base = busyProject()
  let [taken, refused] = [0, 0]
  fc.assert(
    fc.property(WORK, fc.array(fc.nat(9999), { minLength: 40, maxLength: 40 }), (work, dice) => {
      let [project, die] = [base, 0]
      const roll = (n: number) => (dice[die++ % dice.length] ?? 0) % n
      const done: { author: string; inverse: Edit; after: Project }[] = []
      const next = workOf(work)
      for (let i = 0; i < work.length; i++) {
        const author = ['ann', 'ben', 'cleo'][roll(3)] ?? ''
        try {
          const edit = next(project)
          if (!edit) continue
          const step = applyEdit(project, edit)
          project = step.project
          done.push({ author, inverse: step.inverse, after: project })
        } catch (e) {
          if (!(e instanceof Refusal)) throw e
        }
      }
      for (let tries = done.length * 2; tries > 0; tries--) {
        const author = ['ann', 'ben', 'cleo'][roll(3)] ?? ''
        const last = done.findLast((d) => d.author === author)
        if (!last) continue
        try {
          const back = applyEdit(project, last.inverse).project
          // Whatever it changes stands as its author left it: nobody has made anything else of it since.
          for (const change of differences(project, back))
            if (!('order' in change))
              expect(same(within(project, change.at), within(last.after, change.at)), change.at.join('/')).toBe(true)
          project = back
          taken++
        } catch (e) {
          if (!(e instanceof Refusal)) throw e
          // By the names of things, in words: no ids, no field names of the file.
          expect(e.message.replace(/"[^"]*"/g, '')).not.toMatch(/new-?\d|id-\d|L\d|[a-z][A-Z]|\w\/\w/)
          refused++
        }
        done.splice(done.indexOf(last), 1)
      }
    }),
    { numRuns: 150 },
  )
  expect(taken).toBeGreaterThan(100)
  expect(refused).toBeGreaterThan(5)
})

it('a log that an older Geotome wrote is read to the last digit', () => {
  for (let format = 1; format <= LOG_FORMAT; format++) {
    const golden = JSON.parse(
      readFileSync(new URL(`../testing/logs/format-${format}.json`, import.meta.url), 'utf8'),
    ) as { start: unknown; edits: unknown[]; end: string; version?: number }
    const start = projectOfLog(format, golden.start)
    const end = golden.edits.reduce<Project>((p, e) => applyLogged(p, editOfLog(format, e)), start)
    const then = withoutLater(
      JSON.parse(writeProjectText(end)) as Written,
      golden.start as Written['project'],
      golden.version,
    )
    expect(fingerprint(canonical(then))).toBe(golden.end)
  }
  expect(() => editOfLog(LOG_FORMAT + 1, {})).toThrow(/newer Geotome/)
})

interface Written {
  version: number
  project: Record<string, unknown> & { schemes: Record<string, Record<string, unknown>> }
}

/** A project as an older Geotome would have written it: without what has come since, of which nothing is said in it. */
function withoutLater(now: Written, then: Written['project'], version = 4): Written {
  const without = (thing: Record<string, unknown>, known: readonly string[]) => {
    for (const [key, value] of Object.entries(thing))
      if (!known.includes(key)) {
        expect([{}, null, false, 0, { kind: 'datum' }, 'bearing'], key).toContainEqual(value)
        delete thing[key]
      }
  }
  now.version = version
  without(now.project, Object.keys(then))
  for (const scheme of Object.values(now.project.schemes))
    without(scheme, Object.keys(Object.values(then.schemes)[0] ?? {}))
  const first = (uses: unknown) => Object.values(uses as Record<string, Record<string, unknown>>)
  for (const use of first(now.project.uses)) without(use, Object.keys(first(then.uses)[0] ?? {}))
  const layersOf = (p: Record<string, unknown>) =>
    first(p.buildUps).flatMap((b) => b.layers as Record<string, unknown>[])
  if (!layersOf(then).some((l) => 'id' in l)) for (const layer of layersOf(now.project)) delete layer.id
  return now
}

import * as v from 'valibot'
import { describe, expect, it } from 'vitest'
import { projectFamilies, schemeFamilies } from '../edits/collection'
import { readBodies, readSite } from '../exchange'
import {
  blankProject,
  emptyOf,
  IdSchema,
  inOrder,
  NameSchema,
  NO_LOCATION,
  PROJECT_COLLECTIONS,
  recordsOf,
  type Project,
} from '../project'
import { checkRecipe, MOVES, offers, type Move } from '../moves'
import { moveKind } from '../moves/define'
import type { MoveBase } from '../moves/kind'
import { boxOf, openKernel, placeSolid, type Solid } from '../solid'
import type { AtLevel, Num } from '../values'
import { box, build, outline, plainNumbers, raise } from './recipes'
import { StudyCache, studySteps } from '../study'
import { finding } from '../study/finding'

/**
 * The doors of the house: a collection, a move, a finding, a reader of bodies or of sites is one thing and one line of its list. Each is added
 * here, and all that follows from the list follows.
 */
const blank = (): Project => blankProject(() => crypto.randomUUID(), 'Quay', 'm', null)

describe('a new thing is one file and one line', () => {
  it('a collection has its schema, its edits and its place in a blank project', () => {
    const BenchSchema = v.strictObject({ id: IdSchema, name: NameSchema })
    const bench = { one: 'bench', thing: BenchSchema, apart: 'bench', record: v.record(IdSchema, BenchSchema) }
    const collections = { ...PROJECT_COLLECTIONS, benches: bench }
    expect(emptyOf(collections).benches).toEqual({})
    const id = crypto.randomUUID()
    const thing = { id, name: 'by the water' }
    expect(v.parse(v.strictObject(recordsOf({ benches: bench })), { benches: { [id]: thing } })).toBeTruthy()
    const family = projectFamilies(collections).bench
    const add = v.parse(family?.schema as v.GenericSchema, { edit: 'bench.add', thing })
    const project = family?.apply(blank(), add as never, { fresh: new WeakSet(), isLogged: false }) as Project & {
      benches: object
    }
    expect(project.benches).toEqual({ [id]: thing })
    const change = v.parse(family?.schema as v.GenericSchema, { edit: 'bench.change', id, set: { name: 'inland' } })
    expect(family?.place?.(change as never)).toEqual(['benches', id])
    expect(() => v.parse(family?.schema as v.GenericSchema, { edit: 'bench.add', thing: { id } })).toThrow()
    expect(() => family?.apply(project, add as never, { fresh: new WeakSet(), isLogged: false })).toThrow(
      /There is a bench with the same id/,
    )
    const own = schemeFamilies({ benches: bench }).bench
    const scheme = inOrder(project.schemes)[0]?.id
    const inScheme = own?.apply(project, { ...(add as object), scheme } as never, {
      fresh: new WeakSet(),
      isLogged: false,
    })
    expect(inScheme?.schemes[scheme ?? '']).toMatchObject({ benches: { [id]: thing } })
  })
  it('a move has its schema, numbers and ties by its fields, is offered where it fits, and is built', async () => {
    await openKernel()
    interface Lift extends MoveBase {
      move: 'lift'
      by: Num
      level: AtLevel | null
    }
    const lift = moveKind<Lift>({
      move: 'lift',
      called: 'a lift',
      group: 'shape',
      takes: 'body',
      gives: 'body',
      spans: true,
      fields: { by: { is: 'height', label: 'by', level: 'level' } },
      starts: () => ({ by: 1, level: null }),
      build: (form, m, { numbers }) => ({
        ...form,
        solid: placeSolid(form.solid as Solid, { x: 0, y: 0, z: numbers.length(m.by), turn: 0 }),
      }),
    })
    ;(MOVES as unknown as unknown[]).push(lift)
    try {
      const move = { id: 'l', on: true, move: 'lift' as const, by: 2, level: { level: 'L1', above: 0.5 } }
      expect(v.parse(lift.schema(v.never() as never), move)).toEqual(move)
      expect(() => v.parse(lift.schema(v.never() as never), { ...move, by: 'high' })).toThrow()
      expect(lift.numbers(move).map(([num]) => num)).toEqual([2, 0.5])
      expect(lift.ties?.(move)).toEqual([{ level: 'L1', above: 0.5 }])
      const recipe = [outline(box(4, 3)), raise(2)]
      const offer = offers(recipe, plainNumbers, () => 'l', { others: [], faces: [] }).find((o) => o.title === 'lift')
      const lifted = offer?.to(recipe) ?? []
      checkRecipe(lifted, 'M', plainNumbers)
      expect(boxOf(build(...lifted).solid.positions)).toMatchObject({ z0: 1, z1: 3 })
      expect(() => checkRecipe([outline(box(4, 3)), lifted[2] as Move, raise(2)], 'M', plainNumbers)).toThrow(
        /a lift stands behind an outline.*put it behind the raise/,
      )
    } finally {
      ;(MOVES as unknown as unknown[]).pop()
    }
  })
  it('a finding is found, and muted like any other', () => {
    const project = blank()
    const [scheme] = Object.values(project.schemes)
    const check = { kind: 'no mass', run: () => [finding('no mass', 'all', 'Nothing stands here.', 'Draw a mass.')] }
    const run = (p: Project) => {
      const steps = studySteps(p, scheme?.id ?? '', new StudyCache(), undefined, false, [check])
      for (;;) {
        const step = steps.next()
        if (step.done) return step.value
      }
    }
    expect(run(project).findings.map((f) => f.say)).toEqual(['Nothing stands here.'])
    const mute = { id: crypto.randomUUID(), finding: 'no mass:all', reason: 'not yet' }
    const muted = {
      ...project,
      schemes: { [scheme?.id ?? '']: { ...scheme, mutes: { [mute.id]: mute } } },
    } as unknown as Project
    expect(run(muted)).toMatchObject({ findings: [], muted: [{ mute: { reason: 'not yet' } }] })
  })
  it('a format that bodies are read from is held to all that holds of bodies', async () => {
    const box = [0, 0, 0, 4, 0, 0, 4, 3, 0, 0, 3, 0, 0, 0, 2, 4, 0, 2, 4, 3, 2, 0, 3, 2]
    const sides = [
      0, 2, 1, 0, 3, 2, 4, 5, 6, 4, 6, 7, 0, 1, 5, 0, 5, 4, 1, 2, 6, 1, 6, 5, 2, 3, 7, 2, 7, 6, 3, 0, 4, 3, 4, 7,
    ]
    const reader = {
      id: 'crate',
      label: 'Crates',
      extensions: ['crate'],
      read: async () => ({ meshes: [{ name: 'a crate', corners: box, triangles: sides }], remarks: [], asks: [] }),
    }
    const bytes = new Uint8Array([1])
    const read = await readBodies('one.crate', bytes, false, null, {}, [reader])
    expect(read.bodies[0]?.body.faces).toHaveLength(6)
    expect(read.bodies[0]?.fault).toBeNull()
    await expect(readBodies('one.box', bytes, false, null, {}, [reader])).rejects.toThrow('Choose one of .crate')
  })
  it('and one that sites are read from likewise', async () => {
    const reader = {
      id: 'stakes',
      label: 'Stakes',
      extensions: ['stk'],
      read: async () => ({
        outlines: [],
        points: [[1, 2, 3] as [number, number, number]],
        lines: [],
        remarks: [],
        asks: [],
        system: null,
      }),
    }
    const { read } = await readSite('a.stk', new Uint8Array([1]), NO_LOCATION, {}, [reader as never])
    expect(read.points).toEqual([[1, 2, 3]])
  })
})

import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { writeProjectText, type Project } from '../project'
import { openKernel } from '../solid'
import { massNamed, schemeOf } from '../testing/make'
import { busyProject as start, grownProject, WORK, workOf } from '../testing/work'
import { AREA_STEPS } from '../testing/work-areas'
import { GROWN_STEPS } from '../testing/work-grown'
import { STEPS } from '../testing/work-steps'
import { applyEdit, batch, parseEdit, singles, type Edit } from './index'

beforeAll(() => openKernel())

describe('the inverse of an edit', () => {
  it.each([
    ['any work', start, STEPS, 80],
    ['work on what grows', grownProject, GROWN_STEPS, 25],
    ['work on areas', start, AREA_STEPS, 30],
  ] as const)(
    'restores the canonical file byte for byte, through %s and all the way back',
    (_, begun, steps, numRuns) => {
      const base = begun()
      fc.assert(
        fc.property(WORK, (work) => {
          const next = workOf(work, steps)
          let project = base
          const before: string[] = []
          const inverses: Edit[] = []
          for (let i = 0; i < work.length; i++) {
            try {
              const edit = next(project)
              if (!edit) continue
              const text = writeProjectText(project)
              const done = applyEdit(project, edit)
              before.push(text)
              inverses.push(done.inverse)
              // What is sent to the server and stored is JSON: it must mean the same.
              expect(writeProjectText(applyEdit(project, parseEdit(JSON.parse(JSON.stringify(edit)))).project)).toBe(
                writeProjectText(done.project),
              )
              expect(writeProjectText(project)).toBe(text)
              project = done.project
            } catch (e) {
              if (!(e instanceof Error) || e.name !== 'Refusal') throw e
            }
          }
          for (let i = inverses.length - 1; i >= 0; i--) {
            const inverse = inverses[i]
            if (!inverse) continue
            project = applyEdit(project, parseEdit(JSON.parse(JSON.stringify(inverse)))).project
            expect(writeProjectText(project)).toBe(before[i])
          }
        }),
        { numRuns },
      )
    },
  )
})

describe('an edit that cannot be made', () => {
  const refused = (edit: unknown, sentence: RegExp, from: Project = start()) => {
    const text = writeProjectText(from)
    expect(() => applyEdit(from, parseEdit(edit))).toThrow(sentence)
    expect(writeProjectText(from)).toBe(text)
  }
  const scheme = () => schemeOf(start()).id
  it('says so for an unknown id, an unknown edit, a malformed one', () => {
    refused(
      { edit: 'mass.remove', scheme: scheme(), id: 'nobody' },
      /The mass is not there; somebody may have removed it/,
    )
    refused({ edit: 'mass.remove', scheme: 'nowhere', id: 'x' }, /The scheme is not there/)
    refused({ edit: 'mass.explode', scheme: scheme(), id: 'x' }, /mass\.explode/)
    refused({ edit: 'storm.add' }, /no edit that this Geotome knows/)
    refused({ edit: 'project.change', set: { unit: 'yard' } }, /malformed at set\.unit/)
    refused({ edit: 'project.change', set: { headroom: null } }, /malformed at set\.headroom/)
    refused({ edit: 'level.change', scheme: scheme(), id: 'L1', set: { id: 'L9' } }, /malformed/)
    refused('nonsense', /malformed/)
  })
  it('half-applies nothing: a batch whose last step fails changes nothing', () => {
    refused(
      {
        edit: 'batch',
        edits: [
          { edit: 'project.change', set: { name: 'Half' } },
          { edit: 'level.remove', scheme: scheme(), id: 'nobody' },
        ],
      },
      /The level is not there/,
    )
    refused({ edit: 'level.remove', scheme: scheme(), id: 'L1' }, /not there/)
  })
  it('keeps levels from standing on themselves, and names the circle', () => {
    refused(
      { edit: 'level.change', scheme: scheme(), id: 'L1', set: { tie: { kind: 'stacked', on: 'L3', above: 3 } } },
      /Level 1 on Level 3 on Level 2 on Level 1/,
    )
    refused(
      { edit: 'level.change', scheme: scheme(), id: 'L1', set: { tie: { kind: 'stacked', on: 'L1', above: 3 } } },
      /circle/,
    )
  })
  it('keeps forms buildable: crossing outlines, zero sizes, a raise without an outline', () => {
    const project = start()
    const wing = massNamed(project, 'Wing')
    const change = (recipe: unknown) => ({
      edit: 'mass.change',
      scheme: schemeOf(project).id,
      id: wing.id,
      set: { recipe },
    })
    const outline = (points: number[][]) => ({
      id: 'o',
      move: 'outline',
      on: true,
      shape: { kind: 'polygon', corners: points.map(([x, y], i) => ({ id: `e${i}`, x, y })) },
    })
    const raise = (height: number) => ({ id: 'r', move: 'raise', on: true, height })
    refused(
      change([
        outline([
          [0, 0],
          [10, 10],
          [10, 0],
          [0, 10],
        ]),
        raise(3),
      ]),
      /crosses itself: side 1 meets side 3/,
      project,
    )
    refused(
      change([
        outline([
          [0, 0],
          [10, 0],
          [10, 0],
          [0, 10],
        ]),
        raise(3),
      ]),
      /two corners at one place/,
      project,
    )
    refused(
      change([
        outline([
          [0, 0],
          [10, 0],
          [20, 0],
        ]),
        raise(3),
      ]),
      /crosses itself|no area/,
      project,
    )
    refused(
      change([
        outline([
          [0, 0],
          [10, 0],
        ]),
        raise(3),
      ]),
      /fewer than three corners/,
      project,
    )
    refused(
      change([
        outline([
          [0, 0],
          [10, 0],
          [0, 10],
        ]),
        raise(0),
      ]),
      /height of "Wing" is zero/,
      project,
    )
    refused(change([raise(3)]), /a raise comes first.*Begin with an outline/, project)
    refused(change([]), /makes no body.*Begin with an outline/, project)
  })
  it('keeps names apart and build-ups fitting', () => {
    const project = start()
    refused(
      { edit: 'level.change', scheme: schemeOf(project).id, id: 'L1', set: { name: 'level 2' } },
      /a level named "Level 2" already|a level named "level 2" already/i,
      project,
    )
    const part = Object.values(schemeOf(project).parts).find((p) => p.kind === 'wall')
    const slabType = Object.values(project.buildUps).find((b) => b.for === 'slab')
    refused(
      { edit: 'part.change', scheme: schemeOf(project).id, id: part?.id, set: { buildUp: slabType?.id } },
      /build-up for a slab/,
      project,
    )
    refused({ edit: 'project.change', set: { siteArea: 0 } }, /site area is nothing/, project)
  })
})

it('a batch of one is the edit itself, and a gesture tells its single edits', () => {
  const one: Edit = { edit: 'project.change', set: { name: 'A' } }
  expect(batch([one])).toBe(one)
  expect(singles(batch([one, one]))).toHaveLength(2)
})

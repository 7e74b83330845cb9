import { describe, expect, it, vi } from 'vitest'
import { applyEdit, type Edit } from '@geotome/core/edits'
import { levelHeights } from '@geotome/core/levels'
import { projectWith, schemeOf, withMass } from '../../../core/testing/make'
import { Rehearsal } from './rehearsal'

const tower = () => withMass(projectWith([0, 3, 6, 9]), { name: 'Tower', box: [0, 0, 10, 8], height: 12 })
/** What is tried, of a study that is left off after so many. */
const asked = (after = Infinity) => {
  const tried: (Edit | null)[] = []
  return { tried, study: (edit: Edit | null) => Promise.resolve(tried.push(edit) < after) }
}

describe('a rehearsal', () => {
  it('moves a level that carries those above, less than anyone sees, and ends with what stands', async () => {
    const project = tower()
    const { tried, study } = asked()
    await new Rehearsal().of(project, project, schemeOf(project).id, study)
    expect(tried.at(-1)).toBeNull()
    const heights = (p: typeof project) => levelHeights(p, schemeOf(p)).map((l) => l.height)
    const moved = tried.flatMap((edit) => (edit ? [heights(applyEdit(project, edit).project)] : []))
    expect(moved.length).toBeGreaterThan(1)
    for (const [i, now] of moved.entries()) {
      const by = now.map((z, k) => z - (heights(project)[k] as number))
      expect(by[0]).toBe(0)
      // All three above go along, and each time to a place of its own: nothing is found done already.
      expect(by.slice(1).every((d) => Math.abs(d - (by[1] as number)) < 1e-9 && d > 0 && d < 0.01)).toBe(true)
      expect(now).not.toEqual(moved[i - 1])
    }
  })
  it('is made once for a project, however often it rests, and anew for the next one', async () => {
    const [project, other] = [tower(), tower()]
    const rehearsal = new Rehearsal()
    const counts: number[] = []
    for (const opened of [project, project, other]) {
      const { tried, study } = asked()
      await rehearsal.of(opened, opened, schemeOf(opened).id, study)
      counts.push(tried.length)
    }
    expect(counts[0]).toBeGreaterThan(1)
    expect(counts).toEqual([counts[0], 0, counts[0]])
  })
  it('leaves off where something else is asked for', async () => {
    const project = tower()
    const { tried, study } = asked(2)
    await new Rehearsal().of(project, project, schemeOf(project).id, study)
    expect(tried).toHaveLength(2)
  })
  it('is content with one move where that takes long, and puts it back', async () => {
    const project = tower()
    const { tried, study } = asked()
    const slow = async (edit: Edit | null) => {
      vi.spyOn(performance, 'now').mockReturnValue(performance.now() + 2000)
      return study(edit)
    }
    await new Rehearsal().of(project, project, schemeOf(project).id, slow)
    vi.restoreAllMocks()
    expect(tried).toHaveLength(2)
    expect(tried[1]).toBeNull()
  })
  it('says nothing of what cannot be moved, or does not stand', async () => {
    const bare = projectWith([])
    const { tried, study } = asked()
    await new Rehearsal().of(bare, bare, schemeOf(bare).id, study)
    expect(tried).toEqual([null])
    const project = tower()
    const broken = { ...project, headroom: { formula: 'nothing + ' } }
    await expect(new Rehearsal().of(broken, broken, schemeOf(project).id, study)).resolves.toBeUndefined()
    expect(tried).toEqual([null])
  })
})

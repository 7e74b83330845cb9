import { beforeAll, expect, it } from 'vitest'
import type { Project } from '../project'
import { openKernel } from '../solid'
import { siteOf } from '../testing/grounds'
import { converted, projectWith, studied, thick, withMass } from '../testing/make'

beforeAll(() => openKernel())

const said = (of: Project) =>
  studied(of).findings.flatMap((f) => (f.kind === 'fabric over the envelope' ? [f.say] : []))

it('a roof on top of a form under the limit passes it, and says by how much', () => {
  const under = thick(withMass(projectWith([0, 3, 6]), { name: 'Bar', box: [5, 5, 10, 10], height: 9.75 }), {
    roof: 0.32,
  })
  const project: Project = { ...converted(under), site: siteOf(30, 30, { limit: 9.9 }) }
  expect(said(project)).toEqual(['Bar, roof 1 is over the permitted height by 0.170 m'])
  expect(said({ ...project, site: siteOf(30, 30, { limit: 10.07 }) })).toEqual([])
  // Without its fabric nothing is over.
  expect(said({ ...under, site: project.site })).toEqual([])
})

it('a wall outside of its face passes the setback that the form keeps', () => {
  const bar = thick(withMass(projectWith([0, 3]), { name: 'Bar', box: [3, 3, 10, 10], height: 6 }), { wall: 0.4 })
  const outside: Project = {
    ...converted(bar, 0, undefined, { wallSide: 'outside' }),
    site: siteOf(30, 30, { setbacks: [3, 3, 3, 3] }),
  }
  const over = said(outside).map((say) => say.replace(/^.* is over/, 'over'))
  expect(over).toContain('over the setback of the south side by 0.400 m')
  expect(over).toContain('over the setback of the west side by 0.400 m')
  expect(said({ ...converted(bar), site: outside.site })).toEqual([])
})

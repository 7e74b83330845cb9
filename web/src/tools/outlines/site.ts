import { siteEdit } from '@geotome/core/groundwork'
import type { OutlineUse } from './kind'
import { pointsOf } from './points'

export const site: OutlineUse = {
  name: 'site',
  what: () => 'the site',
  isNamed: true,
  on: 'ground',
  rises: false,
  make: (shape, _, { project, id }) => ({
    label: 'draw the site',
    edit: () => {
      let n = 0
      return siteEdit(project, () => id(n++), pointsOf(shape))
    },
  }),
}

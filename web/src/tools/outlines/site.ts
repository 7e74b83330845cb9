import { siteEdit } from '../../ground/ground-edits'
import type { OutlineUse } from './kind'
import { pointsOf } from './points'

export const site: OutlineUse = {
  name: 'site',
  what: () => 'the site',
  isNamed: true,
  on: 'ground',
  rises: false,
  make: (shape, _, { project }) => ({ label: 'draw the site', edit: () => siteEdit(project, pointsOf(shape)) }),
}

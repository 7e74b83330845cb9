import { neighbourEdit } from '@geotome/core/groundwork'
import type { OutlineUse } from './kind'
import { pointsOf } from './points'

export const neighbour: OutlineUse = {
  name: 'neighbour',
  what: () => 'the neighbour',
  isNamed: true,
  on: 'ground',
  rises: true,
  make: (shape, raised, world) => ({
    label: 'draw a neighbour',
    edit: () => neighbourEdit(world.project, world.id(0), pointsOf(shape), raised?.height ?? 0),
  }),
}

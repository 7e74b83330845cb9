import { NeighbourSchema, type Neighbour } from '../project'
import { projectCollection, type CollectionEdit } from './collection'

export type NeighbourEdit = CollectionEdit<'neighbour', Neighbour>

export const neighbourEdits = projectCollection<'neighbour', Neighbour>('neighbour', NeighbourSchema, 'neighbours')

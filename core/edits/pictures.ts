import { PictureSchema, type Picture } from '../project'
import { projectCollection, type CollectionEdit } from './collection'

export type PictureEdit = CollectionEdit<'picture', Picture>

export const pictureEdits = projectCollection<'picture', Picture>('picture', PictureSchema, 'pictures')

import { Figure } from '../../common/fields'
import type { MoveOnPage } from './kind'

export const body: MoveOnPage<'body'> = {
  Fields: ({ move }) => (
    <div className="mb-1.5 rounded-md border border-line p-2">
      <Figure label="body from">{move.file}</Figure>
      <Figure label="faces">{move.faces.length}</Figure>
    </div>
  ),
}

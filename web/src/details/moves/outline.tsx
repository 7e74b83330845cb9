import { OutlineFields } from '../OutlineFields'
import type { MoveOnPage } from './kind'

export const outline: MoveOnPage<'outline'> = {
  Fields: ({ move, recipe, change, attempt }) => (
    <OutlineFields recipe={recipe} change={change} attempt={attempt} outline={move} />
  ),
}

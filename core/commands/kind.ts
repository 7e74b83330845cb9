import type * as v from 'valibot'
import type { Edit } from '../edits'
import type { Id } from '../project'
import type { Study } from '../study'

/** Something that a person does, by name and with its arguments as plain data: makes the edit, and applies nothing. */
export interface Command<E extends v.ObjectEntries = v.ObjectEntries> {
  name: string
  /** what it does, for lists */
  say: string
  args: v.StrictObjectSchema<E, undefined>
  /** arguments of which one must be given */
  oneOf?: (keyof E & string)[]
  run(study: Study, args: v.InferOutput<v.StrictObjectSchema<E, undefined>>, mint: () => Id): Edit
}

/** Keeps the types of a command's arguments while it is written. */
export const command = <E extends v.ObjectEntries>(made: Command<E>): Command => made as unknown as Command

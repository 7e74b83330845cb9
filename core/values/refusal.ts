/**
 * What the core throws when it cannot do as told: a sentence that says what happened, and what to do about it.
 * `code` is for programs, `message` for people.
 */
export class Refusal extends Error {
  /** `say` is what happened; the message is that and the remedy */
  constructor(
    readonly code: RefusalCode,
    readonly say: string,
    readonly remedy: string,
  ) {
    super(remedy ? `${say} ${remedy}` : say)
    this.name = 'Refusal'
  }
}

export type RefusalCode =
  | 'unknown-id'
  | 'id-taken'
  | 'name-taken'
  | 'in-use'
  | 'formula'
  | 'formula-circle'
  | 'level-circle'
  | 'outline'
  | 'size'
  | 'file'
  | 'newer-file'
  | 'edit'
  | 'geometry'
  | 'no-undo'
  | 'stale'
  | 'changed'
  | 'unforeseen'

/** Throws a refusal: what happened, and what to do. */
export const refuse = (code: RefusalCode, message: string, remedy = ''): never => {
  throw new Refusal(code, message, remedy)
}

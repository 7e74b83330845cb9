import { Refusal, type RefusalCode } from '@geotome/core/project'

/** What goes to a thread, and what comes back. */
export interface Question<Ask> {
  id: number
  ask: Ask
}
export interface Answer<Result> {
  id: number
  result?: Result
  failure?: Failure
}

/** An error as plain data: classes do not pass between threads. */
interface Failure {
  message: string
  code: string | null
  /** of HTTP, where what was asked is at fault */
  status: number | null
  refusal: { code: RefusalCode; say: string; remedy: string } | null
}

export function failureOf(e: unknown): Failure {
  const { code, status } = (e ?? {}) as { code?: unknown; status?: unknown }
  return {
    message: e instanceof Error ? e.message : String(e),
    code: typeof code === 'string' ? code : null,
    status: typeof status === 'number' ? status : null,
    refusal: e instanceof Refusal ? { code: e.code, say: e.say, remedy: e.remedy } : null,
  }
}

/** The error as it was thrown in the thread. */
export function errorOf({ message, code, status, refusal }: Failure): Error {
  if (refusal) return new Refusal(refusal.code, refusal.say, refusal.remedy)
  return Object.assign(new Error(message), code ? { code } : {}, status ? { status } : {})
}

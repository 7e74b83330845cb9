import { transferHandlers } from 'comlink'
import { Refusal, type RefusalCode } from '@geotome/core/project'

/**
 * How a refusal crosses between the page and its workers: a call in a worker throws it, and the call in the page throws the same one. What
 * was not foreseen is told in the worker's console, and crosses as a refusal that says so. To be called on both sides.
 */
export function refusalsCross(unforeseen: [say: string, remedy: string]): void {
  const usual = transferHandlers.get('throw')
  if (!usual) throw new Error('comlink has no handler of what is thrown')
  type Crossing = { code: RefusalCode; say: string; remedy: string }
  transferHandlers.set('throw', {
    canHandle: (value: unknown): value is unknown => usual.canHandle(value),
    serialize: (thrown): [Crossing, Transferable[]] => {
      const { value } = thrown as { value: unknown }
      if (!(value instanceof Refusal)) console.error(value)
      const r = value instanceof Refusal ? value : new Refusal('unforeseen', ...unforeseen)
      return [{ code: r.code, say: r.say, remedy: r.remedy }, []]
    },
    deserialize: (crossing) => {
      const { code, say, remedy } = crossing as Crossing
      throw new Refusal(code, say, remedy)
    },
  })
}

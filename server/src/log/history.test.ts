import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { historyOf, type Step } from './history'

/** A log as an author makes it: e edits, u undoes, r redoes; an undo or redo that has nothing to do is left out, as the server does. */
function log(keys: string): Step[] {
  const steps: Step[] = []
  for (const key of keys) {
    const { undo, redo } = historyOf(steps)
    const of = key === 'u' ? undo.at(-1) : key === 'r' ? redo.at(-1) : undefined
    if (key !== 'e' && !of) continue
    steps.push({
      seq: steps.length + 1,
      kind: key === 'e' ? 'edit' : key === 'u' ? 'undo' : 'redo',
      ofSeq: of?.seq ?? null,
      label: of?.label ?? `edit ${steps.length + 1}`,
    })
  }
  return steps
}
const labels = (keys: string) => {
  const { undo, redo } = historyOf(log(keys))
  return { undo: undo.map((s) => s.label), redo: redo.map((s) => s.label) }
}

describe("an author's history", () => {
  it('goes back and forth', () => {
    expect(labels('ee')).toEqual({ undo: ['edit 1', 'edit 2'], redo: [] })
    expect(labels('eeu')).toEqual({ undo: ['edit 1'], redo: ['edit 2'] })
    expect(labels('eeuu')).toEqual({ undo: [], redo: ['edit 2', 'edit 1'] })
    expect(labels('eeuur')).toEqual({ undo: ['edit 1'], redo: ['edit 2'] })
    expect(labels('eeuurr')).toEqual({ undo: ['edit 1', 'edit 2'], redo: [] })
  })
  it('forgets what was taken back when something new is made', () => {
    expect(labels('eeue')).toEqual({ undo: ['edit 1', 'edit 4'], redo: [] })
  })
  it('is that of a plain pair of stacks, whatever is pressed', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('e', 'u', 'r'), { maxLength: 60 }), (keys) => {
        let [undo, redo]: [string[], string[]] = [[], []]
        let made = 0
        for (const key of keys) {
          if (key === 'e') {
            undo = [...undo, `edit ${++made}`]
            redo = []
            continue
          }
          const [from, to] = key === 'u' ? [undo, redo] : [redo, undo]
          const top = from.pop()
          if (top === undefined) continue
          made++
          to.push(top)
        }
        expect(labels(keys.join(''))).toEqual({ undo, redo })
      }),
    )
  })
})

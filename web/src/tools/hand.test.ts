import { describe, expect, it } from 'vitest'
import type { Edit } from '@geotome/core/edits'
import type { Vec2 } from '@geotome/core/solid'
import type { World } from './kind'
import { createHand, type Grip } from './hand'

const world = {} as World
const move = (by: number): Edit => ({ edit: 'project.change', set: { name: `by ${by}` } })

/** A hand with nothing in it, and all that it did, in order. */
function bare() {
  const did: string[] = []
  let escape: (() => void) | null = null
  let viewed = 0
  const nameOf = (edit: (w: World) => Edit) => (edit(world) as { set: { name: string } }).set.name
  const hand = createHand<string>({
    attempt: (edit) => void did.push(edit ? `try ${nameOf(edit)}` : 'try nothing'),
    make: (label, edit) => void did.push(`make ${label}: ${nameOf(edit)}`),
    onEscape: (back) => {
      escape = () => {
        escape = null
        back()
      }
      return () => (escape = null)
    },
    tell: (key, now) => void did.push(now ? `${key} says ${now.say.join() || 'nothing'}` : `${key} is free`),
  })
  /** What is moved in whole steps of ten pixels to the right; back at the first of them nothing comes of it. */
  const grip = (more: Partial<Grip> = {}): Grip => ({
    label: 'move',
    slack: 4,
    click: ({ shift }) => void did.push(shift ? 'click with Shift' : 'click'),
    done: () => void did.push('done'),
    undone: () => void did.push('undone'),
    answer: ({ at }) => {
      const by = Math.round((at[0] - 100) / 10)
      return by === 0 ? null : { say: [`${by}`], edit: () => move(by), look: () => (viewed = by) }
    },
    ...more,
  })
  const at = (x: number, y = 100, shift = false) => ({ at: [x, y] as Vec2, alt: false, shift })
  return { hand, did, grip, at, press: () => escape?.(), isHeard: () => escape !== null, viewed: () => viewed }
}

describe('what is held', () => {
  it('is tried while it is dragged, and made once, as it was tried last, when it is let go', () => {
    const { hand, did, grip, at, isHeard, viewed } = bare()
    hand.take('a', grip(), [100, 100])
    for (const x of [103, 112, 128]) hand.move(at(x))
    expect(viewed()).toBe(3)
    hand.up(at(128))
    expect(did).toEqual(['try by 1', 'a says 1', 'try by 3', 'a says 3', 'a is free', 'make move: by 3', 'done'])
    // The hand is empty: nothing is heard of what the pointer or Escape does then.
    hand.move(at(200))
    hand.up(at(200))
    expect([did.length, isHeard()]).toEqual([7, false])
  })
  it('is a click where it was let go within a few pixels, whatever was tried meanwhile', () => {
    const { hand, did, grip, at } = bare()
    hand.take('a', grip(), [100, 100])
    hand.move(at(102))
    hand.up(at(102, 100, true))
    expect(did).toEqual(['a is free', 'click with Shift'])
    did.length = 0
    // One that goes along from the first pixel is put back.
    hand.take('b', grip({ follows: true, slack: 30 }), [100, 100])
    hand.move(at(112))
    hand.up(at(112))
    expect(did).toEqual(['try by 1', 'b says 1', 'b is free', 'try nothing', 'click'])
  })
  it('is a drag for good once it has left its place; dragged back there, all is as before, and nothing is made', () => {
    const { hand, did, grip, at } = bare()
    hand.take('a', grip(), [100, 100])
    for (const x of [112, 101, 100]) hand.move(at(x))
    hand.up(at(100))
    expect(did).toEqual(['try by 1', 'a says 1', 'try nothing', 'a says nothing', 'a is free', 'done'])
  })
  it('is dragged out again from there', () => {
    const { hand, did, grip, at } = bare()
    hand.take('a', grip(), [100, 100])
    for (const x of [112, 100, 88]) hand.move(at(x))
    hand.up(at(88))
    expect(did.filter((d) => d.startsWith('make'))).toEqual(['make move: by -1'])
  })
  it('is taken back by Escape or by a lost pointer, with what it did to the view; letting go then does nothing', () => {
    for (const how of ['Escape', 'lost'] as const) {
      const { hand, did, grip, at, press, isHeard } = bare()
      hand.take('a', grip(), [100, 100])
      hand.move(at(130))
      did.length = 0
      if (how === 'Escape') press()
      else hand.takeBack()
      hand.up(at(130))
      expect([did, isHeard()]).toEqual([['a is free', 'try nothing', 'undone'], false])
    }
  })
  it('takes nothing back of what only was looked at', () => {
    const { hand, did, grip, at } = bare()
    let turned = 0
    hand.take('view', grip({ answer: ({ at: [x] }) => ({ say: [], look: () => (turned = x) }) }), [100, 100])
    hand.move(at(140))
    hand.takeBack()
    expect([turned, did]).toEqual([140, ['view is free', 'undone']])
  })
})

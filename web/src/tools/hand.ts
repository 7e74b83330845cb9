import type { Edit } from '@geotome/core/edits'
import { gapOf, type Vec2 } from '@geotome/core/solid'
import type { World } from './kind'

/** Where the pointer holds something: px in the window, and the keys held with it. */
export interface HeldAt {
  at: Vec2
  alt: boolean
  shift: boolean
}

/** What a handle answers to a place of the pointer: what is said beside it, what is tried, or what of the view changes at once. */
export interface Held {
  say: string[]
  edit?: (world: World) => Edit
  look?: () => void
}

/** A handle in somebody's hand. */
export interface Grip {
  /** what the edit is called in the history */
  label: string
  /** null: nothing comes of it, as where it was taken hold of */
  answer: (at: HeldAt) => Held | null
  /** px below which what is pressed and let go was a click; with `follows` it goes along from the first pixel all the same */
  slack: number
  follows?: boolean
  click?: (at: HeldAt) => void
  /** it was dragged and let go */
  done?: () => void
  /** it was taken back: a view goes back to what it was */
  undone?: () => void
}

/** What a hand does with what it holds. */
export interface HandPlace<K> {
  /** shows what is tried; null: nothing any more */
  attempt: (edit: ((world: World) => Edit) | null) => void
  make: (label: string, edit: (world: World) => Edit) => void
  /** calls back at Escape, until it is ended by what it gives */
  onEscape: (back: () => void) => () => void
  /** what is said of what is held, and where (px in the window); null: it is let go */
  tell: (key: K, said: { say: string[]; at: Vec2 } | null) => void
}

/**
 * A hand that holds one thing at a time: it tells a click from a drag, tries while the drag lasts and makes at its end. Escape, or a lost
 * pointer, takes it back; and where it is dragged back to where it was taken hold of, all is as before.
 */
export function createHand<K>(place: HandPlace<K>) {
  let hand: { key: K; grip: Grip; from: Vec2; moved: boolean; edit: Held['edit']; end: () => void } | null = null
  const letGo = () => {
    const now = hand
    hand = null
    now?.end()
    if (now) place.tell(now.key, null)
    return now
  }
  const takeBack = () => {
    const now = letGo()
    if (!now) return
    if (now.edit) place.attempt(null)
    now.grip.undone?.()
  }
  return {
    take(key: K, grip: Grip, from: Vec2): void {
      hand = { key, grip, from, moved: false, edit: undefined, end: place.onEscape(takeBack) }
    },
    move(to: HeldAt): void {
      const now = hand
      if (!now) return
      if (gapOf(to.at, now.from) >= now.grip.slack) now.moved = true
      if (!now.moved && !now.grip.follows) return
      const answer = now.grip.answer(to)
      answer?.look?.()
      const { edit, say = [] } = answer ?? {}
      if (edit) place.attempt(edit)
      else if (now.edit) place.attempt(null)
      const isLess = now.edit !== undefined && !edit
      now.edit = edit
      if (say.length || isLess) place.tell(now.key, { say, at: to.at })
    },
    up(at: HeldAt): void {
      const now = letGo()
      if (!now) return
      const { grip, edit } = now
      if (!now.moved) {
        if (edit) place.attempt(null)
        grip.click?.(at)
        return
      }
      if (edit) place.make(grip.label, edit)
      grip.done?.()
    },
    takeBack,
  }
}

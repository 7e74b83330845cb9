import { useRef, useState, useSyncExternalStore, type PointerEvent as PE } from 'react'
import type { Edit } from '@geotome/core/edits'
import type { Vec2 } from '@geotome/core/solid'
import { makeEdit, tryEdit } from '../app/session'
import { worldNow } from './at-work'
import type { World } from './kind'
import { onEscape } from '../common/on-escape'

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
  /** null: as before */
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

const heldAt = (e: PE): HeldAt => ({ at: [e.clientX, e.clientY], alt: e.altKey, shift: e.shiftKey || e.ctrlKey })

/** What is said beside something that is held, for a part of the page that alone is drawn anew with it. */
class Saying {
  private lines: string[] = []
  private readonly listeners = new Set<() => void>()
  readonly now = () => this.lines
  readonly listen = (listener: () => void) => {
    this.listeners.add(listener)
    return () => void this.listeners.delete(listener)
  }
  say(lines: string[]): void {
    this.lines = lines
    for (const listener of this.listeners) listener()
  }
}
export const useSaid = (said: Pick<Saying, 'now' | 'listen'>): string[] => useSyncExternalStore(said.listen, said.now)

/**
 * The one way to hold something with the pointer: it captures the pointer, tells a click from a drag, tries while it lasts and makes at its
 * end; Escape, or a lost pointer, takes it back. Gives what to put on an element, and what is held. `apart`: what is said, and where the
 * pointer is, draws nothing anew but what listens to `said`.
 */
export function useHold<K>(how?: 'apart') {
  const [held, setHeld] = useState<{ key: K; say: string[]; at: Vec2 } | null>(null)
  const [said] = useState(() => new Saying())
  const hand = useRef<{ key: K; grip: Grip; from: Vec2; moved: boolean; edit: Held['edit']; letGo: () => void } | null>(
    null,
  )
  const letGo = () => {
    const now = hand.current
    hand.current = null
    now?.letGo()
    setHeld(null)
    return now
  }
  const takeBack = () => {
    const now = letGo()
    if (!now) return
    if (now.edit) tryEdit(null)
    now.grip.undone?.()
  }
  return {
    held,
    said,
    hold: (e: PE, key: K, grip: Grip) => {
      e.currentTarget.setPointerCapture(e.pointerId)
      hand.current = {
        key,
        grip,
        from: [e.clientX, e.clientY],
        moved: false,
        edit: undefined,
        letGo: onEscape(takeBack),
      }
    },
    moves: {
      onPointerMove: (e: PE) => {
        const now = hand.current
        if (!now) return
        const far = Math.hypot(e.clientX - now.from[0], e.clientY - now.from[1])
        if (far >= now.grip.slack) now.moved = true
        if (!now.moved && !now.grip.follows) return
        const answer = now.grip.answer(heldAt(e))
        if (!answer) return
        answer.look?.()
        if (answer.edit) {
          const { edit } = answer
          now.edit = edit
          tryEdit(() => edit(worldOrThrow()))
        }
        if (answer.say.length === 0) return
        if (how === 'apart') said.say(answer.say)
        if (how !== 'apart' || held?.key !== now.key)
          setHeld({ key: now.key, say: answer.say, at: [e.clientX, e.clientY] })
      },
      onPointerUp: (e: PE) => {
        const now = letGo()
        if (!now) return
        const { grip, edit } = now
        if (!now.moved) {
          if (edit) tryEdit(null)
          grip.click?.(heldAt(e))
          return
        }
        if (edit) makeEdit(grip.label, () => edit(worldOrThrow()))
        grip.done?.()
      },
      onPointerCancel: takeBack,
    },
  }
}

function worldOrThrow(): World {
  const world = worldNow()
  if (!world) throw new Error('No project is open.')
  return world
}

import { useState, useSyncExternalStore, type PointerEvent as PE } from 'react'
import type { Vec2 } from '@geotome/core/solid'
import { makeEdit, tryEdit } from '../app/session'
import { worldNow } from './at-work'
import type { World } from './kind'
import { onEscape } from '../common/on-escape'
import { createHand, type Grip, type HeldAt } from './hand'

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
 * The one way to hold something with the pointer, which is captured for it. Gives what to put on an element, and what is held. `apart`:
 * what is said, and where the pointer is, draws nothing anew but what listens to `said`.
 */
export function useHold<K>(how?: 'apart') {
  const [held, setHeld] = useState<{ key: K; say: string[]; at: Vec2 } | null>(null)
  const [said] = useState(() => new Saying())
  const [hand] = useState(() =>
    createHand<K>({
      attempt: (edit) => void tryEdit(edit && (() => edit(worldOrThrow()))),
      make: (label, edit) => void makeEdit(label, () => edit(worldOrThrow())),
      onEscape,
      tell: (key, now) => {
        if (how !== 'apart' || !now) return setHeld(now && { key, ...now })
        said.say(now.say)
        setHeld((had) => (had?.key === key ? had : { key, ...now }))
      },
    }),
  )
  return {
    held,
    said,
    hold: (e: PE, key: K, grip: Grip) => {
      e.currentTarget.setPointerCapture(e.pointerId)
      hand.take(key, grip, [e.clientX, e.clientY])
    },
    moves: {
      onPointerMove: (e: PE) => hand.move(heldAt(e)),
      onPointerUp: (e: PE) => hand.up(heldAt(e)),
      onPointerCancel: hand.takeBack,
    },
  }
}

function worldOrThrow(): World {
  const world = worldNow()
  if (!world) throw new Error('No project is open.')
  return world
}

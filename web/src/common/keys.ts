import { useLayoutEffect, useRef } from 'react'

/** Hears a key, and whether it is typed into a field; true where it is taken and nobody else is to hear it. */
export type KeyEar = (event: KeyboardEvent, typing: boolean) => boolean

/** Who hears keys: those who came last hear first. */
const ears: KeyEar[] = []

function hear(event: KeyboardEvent): void {
  const typing =
    event.target instanceof Element && event.target.matches('input, textarea, select, [contenteditable="true"]')
  for (const ear of [...ears].reverse())
    if (ear(event, typing)) {
      event.preventDefault()
      event.stopImmediatePropagation()
      return
    }
}

/** Hears keys before all who listened until now; gives what ends that. */
export function takeKeys(ear: KeyEar): () => void {
  if (ears.length === 0) window.addEventListener('keydown', hear)
  ears.push(ear)
  return () => {
    const i = ears.lastIndexOf(ear)
    if (i >= 0) ears.splice(i, 1)
    if (ears.length === 0) window.removeEventListener('keydown', hear)
  }
}

/** Keys that act wherever the focus is, as what is on screen at that moment has it. */
export function useKeys(ear: KeyEar): void {
  const now = useRef(ear)
  useLayoutEffect(() => {
    now.current = ear
  }, [ear])
  useLayoutEffect(() => takeKeys((event, typing) => now.current(event, typing)), [])
}

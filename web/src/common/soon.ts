/**
 * Does something in a task of its own, so that what is at hand is on screen before; or at once when a key or a button is pressed
 * before that, so that whatever is pressed finds it done. What was asked for first is done first.
 */
export function soon(work: () => void): void {
  waiting.push(work)
  setTimeout(() => waiting.shift()?.())
}
const waiting: (() => void)[] = []

if (typeof window !== 'undefined')
  for (const kind of ['keydown', 'pointerdown'])
    window.addEventListener(kind, () => waiting.splice(0).forEach((work) => work()), true)

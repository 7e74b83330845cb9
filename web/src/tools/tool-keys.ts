import { runner } from './at-work'

/**
 * The keys of the tool at work: Enter accepts, Escape goes one step back, its own key goes to its next choice, and digits go into its first
 * live field, wherever the focus is. True where one is taken.
 */
export function toolKeys(event: KeyboardEvent, typing: boolean): boolean {
  const running = runner.running()
  if (!running || document.querySelector('dialog[open]')) return false
  const live = event.target instanceof HTMLInputElement && event.target.closest('[data-live]') ? event.target : null
  if (typing && !live) return false
  if (event.key === 'Escape') return runner.answer({ kind: 'back' })
  if (event.key === 'Enter') return runner.answer({ kind: 'accept' })
  if (event.ctrlKey || event.metaKey || event.altKey) return false
  const { choices } = running
  if (choices?.key && event.key.toUpperCase() === choices.key && !live?.value) {
    const next = (choices.options.indexOf(choices.chosen) + 1) % choices.options.length
    return runner.answer({ kind: 'choose', choice: choices.options[next] ?? choices.chosen })
  }
  if (event.key === 'd' && !live?.value) return runner.answer({ kind: 'hold' })
  if (event.key === 's' && !live?.value) return runner.answer({ kind: 'size' })
  if (live) return false
  // The digit itself is then typed into the field that has got the focus.
  if (/^[\d.('"-]$/.test(event.key))
    document.querySelector<HTMLInputElement>('[data-live] input')?.focus({ preventScroll: true })
  return false
}

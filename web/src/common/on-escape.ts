/**
 * Takes Escape for itself while something is dragged, before anything else hears it. Gives what ends that; it ends by itself when it is pressed.
 */
export function onEscape(cancel: () => void): () => void {
  const listen = (event: KeyboardEvent) => {
    if (event.key !== 'Escape') return
    event.preventDefault()
    event.stopImmediatePropagation()
    end()
    cancel()
  }
  const end = () => window.removeEventListener('keydown', listen, true)
  window.addEventListener('keydown', listen, true)
  return end
}

/** How the page knows that a worker has died, whatever it died of: a worker holds a lock of its own name for as long as it lives. */

/** In a worker: ends when its lock is held, or at once where the browser has none. */
export const holdLife = (): Promise<void> =>
  new Promise((held) => {
    if (!navigator.locks) held()
    else
      void navigator.locks.request(self.name, () => {
        held()
        return new Promise(() => {})
      })
  })

/** In the page, once a worker holds its lock: `died` is called when it lets go. */
export const onDeath = (name: string, died: () => void): void => void navigator.locks?.request(name, died)

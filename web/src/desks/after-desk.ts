let waiting: { desk: string; run: () => void } | null = null

/** Goes to a desk and does something there, once the desk has put down what was taken up at the last one. */
export function atDesk(desk: string, go: (desk: string) => void, run: () => void): void {
  if (location.pathname.endsWith(`/${desk}`)) {
    run()
    return
  }
  waiting = { desk, run }
  go(desk)
}

/** A desk has been arrived at: does what waited for it. */
export function arrived(desk: string): void {
  const now = waiting
  waiting = null
  if (now?.desk === desk) now.run()
}

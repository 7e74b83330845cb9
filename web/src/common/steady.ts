import { useCallback, useLayoutEffect, useRef } from 'react'

/** A function that is one object for ever, and does what the last one that was given does: for what is drawn only when it changes. */
export function useSteady<A extends unknown[], R>(act: (...args: A) => R): (...args: A) => R {
  const latest = useRef(act)
  useLayoutEffect(() => {
    latest.current = act
  })
  return useCallback((...args: A) => latest.current(...args), [])
}

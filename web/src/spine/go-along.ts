import { useLayoutEffect, useRef, type RefObject } from 'react'
import { levelHeights, type LevelHeight } from '@geotome/core/levels'
import { selectTried, selectTriedScheme } from '../app/project-slice'
import { store } from '../app/store'
import type { SpineScale } from './layout'

/**
 * Lets the rows of the level in hand (`data-row`: its id) go along with the pointer at once, while the spine is drawn anew only with the
 * figures of what is tried: they are moved by what the level lies off where it is drawn. What it carries follows with the figures.
 */
export function useGoAlong(
  box: RefObject<HTMLElement | null>,
  levels: LevelHeight[],
  scale: SpineScale,
  held: string | null,
): void {
  const place = useRef(() => {})
  useLayoutEffect(() => {
    place.current = () => {
      if (!held) return
      const [drawn, tried] = [levels.find((l) => l.id === held)?.height, heightTried(held)]
      if (drawn === undefined || tried === undefined) return
      const translate = drawn === tried ? '' : `0 ${(scale.y(tried) - scale.y(drawn)).toFixed(2)}px`
      for (const row of rowsOf(box.current, held)) row.style.translate = translate
    }
    place.current()
  })
  // With the commit that draws the row where it has been put, or put back.
  useLayoutEffect(() => {
    if (!held) return
    let last = store.getState().project.preview
    const stop = store.subscribe(() => {
      const { preview } = store.getState().project
      if (preview === last) return
      last = preview
      place.current()
    })
    const holder = box.current
    return () => {
      stop()
      for (const row of rowsOf(holder, held)) row.style.translate = ''
    }
  }, [box, held])
}

const rowsOf = (box: HTMLElement | null, level: string) =>
  [...(box?.querySelectorAll<HTMLElement | SVGElement>('[data-row]') ?? [])].filter((r) => r.dataset.row === level)

/** m: where a level lies in what is tried */
function heightTried(level: string): number | undefined {
  const state = store.getState()
  const [project, scheme] = [selectTried(state), selectTriedScheme(state)]
  return project && scheme ? levelHeights(project, scheme).find((l) => l.id === level)?.height : undefined
}

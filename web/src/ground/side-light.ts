import { useAppDispatch } from '../app/store'
import { siteSideLit } from '../app/view-slice'

/** Lights up a side of the site in the plan, by its number from 0, while the focus or the pointer is on an element. */
export function useSideLight(side: number) {
  const dispatch = useAppDispatch()
  const light = () => dispatch(siteSideLit(side))
  const off = () => dispatch(siteSideLit(null))
  return { onFocus: light, onBlur: off, onPointerEnter: light, onPointerLeave: off }
}

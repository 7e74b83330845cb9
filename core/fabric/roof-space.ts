import { rawName, TOLERANCE } from '../solid'
import type { MassForm } from '../form'
import { lowestOf } from './pieces'
import { facesOfForm } from './context'
import { LIMITS } from './limits'

/**
 * Whether all that lies across some edges is mere roof space above a floor (m): sloping faces, by their names, that spring lower than a
 * person needs. No wall stands on it, and an opening to it is closed up.
 */
export function roofSpaceOver(form: MassForm, names: string[], floor: number): boolean {
  const faces = facesOfForm(form)
  return (
    names.length > 0 &&
    names.every((name) => {
      const slopes = faces.filter(
        (f) =>
          rawName(f.name) === rawName(name) && f.plane.n[2] > TOLERANCE.slope && f.plane.n[2] < 1 - TOLERANCE.rounding,
      )
      return slopes.length > 0 && slopes.every((f) => lowestOf(f) < floor + LIMITS.leastUpright)
    })
  )
}

/** The same as a question about one floor of a mass. */
export const closedOver =
  (form: MassForm, floor: number) =>
  (names: string[]): boolean =>
    roofSpaceOver(form, names, floor)

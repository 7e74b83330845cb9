import { TOLERANCE } from '../solid'
import type { MassForm } from '../form'
import type { LevelHeight } from '../levels'

/** A storey of a mass as a range of height (m): walls stand in it. `above`: how far it begins above its level. */
export interface StoreyRange {
  level: string
  name: string
  above: number
  from: number
  to: number
}

/** The storeys of a mass as ranges of height; what lies below the lowest taken storey is a range of its own, from the mass's base. */
export function storeyRanges(
  form: MassForm,
  storeys: LevelHeight[],
  baseLevel: string,
  baseHeight: number,
): StoreyRange[] {
  const starts: Omit<StoreyRange, 'to'>[] = storeys.map((l) => ({
    level: l.id,
    name: l.name,
    above: 0,
    from: l.height,
  }))
  const first = starts[0]
  if (!first || first.from > form.base + TOLERANCE.touch)
    starts.unshift({ level: baseLevel, name: 'base', above: form.base - baseHeight, from: form.base })
  return starts.map((s, i) => ({ ...s, to: starts[i + 1]?.from ?? Infinity }))
}

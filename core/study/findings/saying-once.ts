import type { Grown, MassForm } from '../../form'

/** The forms that speak for themselves: of what a repeat makes of a mass, and is the very same body, the mass says it once. */
export function sayingOnce(forms: readonly MassForm[], { from }: Grown): MassForm[] {
  const bodies = new Map(forms.map((f) => [f.id, f.body]))
  return forms.filter((f) => {
    const of = from.get(f.id)
    return of?.by !== 'repeat' || of.mass === null || bodies.get(of.mass) !== f.body
  })
}

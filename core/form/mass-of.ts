import type { Scheme, Mass } from '../project'
import { bodyFault } from '../solid'
import { type Id, refuse } from '../values'

/** The mass with that id. Errors: 'unknown-id'. */
export const massOf = (scheme: Scheme, id: Id): Mass =>
  scheme.masses[id] ?? refuse('unknown-id', 'That mass is not there any more.', 'Pick another one.')
/** A body from a file that is open cannot be joined to anything. */

export function closedOrRefused(mass: Mass): void {
  const body = mass.recipe.find((m) => m.move === 'body')
  if (body?.move !== 'body') return
  const fault = bodyFault(
    { positions: Float64Array.from(body.corners), triangles: Uint32Array.from(body.faces.flatMap((f) => f.triangles)) },
    'edges',
  )
  if (fault)
    refuse(
      'geometry',
      `The body of "${mass.name}" is not closed, and cannot be joined.`,
      'Mend it where it was drawn and import it again, or keep it as context.',
    )
}

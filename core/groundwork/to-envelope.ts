import type { Edit } from '../edits'
import { changeRecipe, massOf } from '../form'
import { envelopeOf, highestUnder, limitOver } from '../ground'
import { planOf, withMove, withPlaced, type Move } from '../moves'
import { heightsOf, numbersOf, refuse, tidy, type Id, type Project, type Scheme } from '../project'
import { inside, placePoint, TOLERANCE, turnOf, type Vec2 } from '../solid'

/**
 * Raises a drawn mass as far as the site's envelope lets it: to the permitted height, and cut by each sloping limit that it would pass. Its
 * height and its cuts are moves like any others, and do not follow the envelope from then on. Errors: 'geometry' where nothing limits it, or
 * it is not raised from an outline.
 */
export function raiseToEnvelope(project: Project, scheme: Scheme, mint: () => Id, id: Id): Edit {
  const mass = massOf(scheme, id)
  const numbers = numbersOf(project, scheme)
  const { site } = project
  const raise = mass.recipe.find((m) => m.move === 'raise')
  const plan = planOf(mass.recipe, numbers, mass.name)
  if (!site) return refuse('geometry', 'There is no site.', 'Draw its site at the Ground desk first.')
  if (raise?.move !== 'raise' || plan.length === 0)
    return refuse('geometry', `"${mass.name}" is not raised from an outline.`, 'Pick a mass that was drawn and raised.')
  const envelope = envelopeOf(site, numbers)
  const base = (heightsOf(scheme, numbers).get(mass.base.level) ?? 0) + numbers.length(mass.base.above)
  const { x, y, turn } = mass.place
  const at = { x: numbers.length(x), y: numbers.length(y), z: 0, turn: numbers.angle(turn) }
  const loops = plan.map((l) => l.points.map((p) => placePoint(p, at)))
  const isIn = (p: Vec2) => loops.reduce((odd, loop) => odd !== inside(loop, p), false)
  // As high as the lowest of the limits lets it be anywhere over its plan.
  const top = Math.max(...loops.map((loop) => highestUnder(envelope.slopes, loop, isIn, envelope.limit ?? Infinity)))
  if (!Number.isFinite(top))
    return refuse('geometry', 'The site limits no height.', 'Give it a permitted height, or a sloping limit, first.')
  if (top - base < TOLERANCE.least)
    return refuse('geometry', `The envelope lies below the base of "${mass.name}".`, 'Put its base lower.')
  const cuts = envelope.slopes
    .filter((s) => loops.flat().some((p) => (limitOver(s, p) ?? Infinity) < top - TOLERANCE.height))
    .map((s): Move => {
      const [a, b] = [envelope.ring[s.side] as Vec2, envelope.ring[(s.side + 1) % envelope.ring.length] as Vec2]
      const { c, s: sin } = turnOf(-at.turn)
      const [dx, dy] = [a[0] - at.x, a[1] - at.y]
      return {
        id: mint(),
        move: 'cut',
        on: true,
        x: tidy(c * dx - sin * dy),
        y: tidy(sin * dx + c * dy),
        z: tidy(s.from - base),
        direction: tidy((Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI - at.turn),
        rises: s.angle,
        keeps: 'below',
      }
    })
  return changeRecipe(scheme, mass, (recipe) =>
    cuts.reduce((r, cut) => withPlaced(r, cut) ?? r, withMove(recipe, raise, { height: tidy(top - base), upTo: null })),
  )
}

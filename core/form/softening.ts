import type { Edit } from '../edits'
import { withMove } from '../moves'
import { refuse, type Id, type Mass, type Num, type Scheme } from '../project'
import { rawName } from '../solid'
import { changeRecipe } from './commands'
import { massOf } from './mass-of'

/** The move that softens a mass. Errors: 'geometry' where none does. */
function softOf(mass: Mass) {
  const move = mass.recipe.find((m) => m.move === 'soft')
  return move?.move === 'soft'
    ? move
    : refuse('geometry', `"${mass.name}" is no soft form.`, 'Let it be one first: "a soft form" under Shape.')
}

const sameEdge = (one: { a: string; b: string }, [a, b]: readonly string[]) =>
  [one.a, one.b].map(rawName).sort().join(' ') ===
  [a, b]
    .map((f) => rawName(f ?? ''))
    .sort()
    .join(' ')

/** For how many steps the edge between two faces of a soft form stays crisp (10: for ever); null: as the others do. */
export const crispnessOf = (mass: Mass, faces: readonly string[]) =>
  softOf(mass).own.find((o) => sameEdge(o, faces))?.degree ?? null

/** Lets the edge between two faces of a soft form stay crisp for so many steps; with null, as the others do. */
export function crispEdge(scheme: Scheme, mint: () => Id, id: Id, faces: readonly string[], degree: Num | null): Edit {
  const mass = massOf(scheme, id)
  const soft = softOf(mass)
  const [a, b] = faces.map(rawName)
  if (a === undefined || b === undefined) return refuse('geometry', 'An edge is where two faces meet.', 'Pick an edge.')
  const others = soft.own.filter((o) => !sameEdge(o, faces))
  const own = degree === null ? others : [...others, { id: mint(), a, b, degree }]
  return changeRecipe(scheme, mass, (recipe) => withMove(recipe, soft, { own }))
}

/** Whether a face of a soft form is open. */
export const isOpen = (mass: Mass, face: string): boolean =>
  softOf(mass).open.some((o) => rawName(o.face) === rawName(face))

/** Leaves a face of a soft form open, or closes it again: what has open faces is a skin. */
export function openFace(scheme: Scheme, mint: () => Id, id: Id, face: string, open: boolean): Edit {
  const mass = massOf(scheme, id)
  const soft = softOf(mass)
  const others = soft.open.filter((o) => rawName(o.face) !== rawName(face))
  return changeRecipe(scheme, mass, (recipe) =>
    withMove(recipe, soft, { open: open ? [...others, { id: mint(), face: rawName(face) }] : others }),
  )
}

import { capital } from '../project'
import { planOf, type Move } from '../moves'
import type { Numbers } from '../project'
import { cutAt, faceLabel, parseFaceName, sideTitles } from '../solid'
import type { Body, MassForm } from './mass-form'

/**
 * What a face of a mass is called: its sides by where they look on the site, as the sides of the site are ("south side 2"), all others by
 * the words of the move that made them. A face that does not reach the foot is called as the side of the same name is there.
 */
export const faceTitle = ({ body, at }: Pick<MassForm, 'body' | 'at'>, face: string): string =>
  faceLabel(face, titlesOf(body, at.turn))

/** The names of a body's sides when it is turned by so many degrees, by face and, where that is one, by edge. */
function titlesOf(body: Body, turn: number): ReadonlyMap<string, string> {
  let known = byTurn.get(body)
  if (!known) byTurn.set(body, (known = new Map()))
  let titles = known.get(turn)
  if (!titles) {
    // A drag that turns a mass leaves a few behind.
    if (known.size > 20) known.clear()
    known.set(turn, (titles = withEdges(body, turn)))
  }
  return titles
}
const byTurn = new WeakMap<Body, Map<number, ReadonlyMap<string, string>>>()

function withEdges(body: Body, turn: number): ReadonlyMap<string, string> {
  const foot = cutAt(body.solid, body.box.z0)
  const titles = sideTitles(
    foot.map(({ points, faces }) => ({ points, names: faces })),
    turn,
  )
  const edges = new Map<string, string | null>()
  for (const [face, title] of titles) {
    const { own } = parseFaceName(face)
    edges.set(own, (edges.get(own) ?? title) === title ? title : null)
  }
  for (const [edge, title] of edges) if (title !== null) titles.set(edge, title)
  return titles
}

/** A sentence of a move, which knows no place and says sides as they were drawn, with the sides of the mass as they are called. */
export function withTitles(form: Pick<MassForm, 'body' | 'at'>, sentence: string): string {
  const titles = new Map<string, string | null>()
  for (const { name } of form.body.solid.facets) {
    const [label, title] = [faceLabel(name), faceTitle(form, name)]
    if (label !== title) titles.set(label, (titles.get(label) ?? title) === title ? title : null)
  }
  return sentence
    .split('"')
    .map((part, i) => (i % 2 === 0 ? told(part, titles) : part))
    .join('"')
}

function told(text: string, titles: ReadonlyMap<string, string | null>): string {
  if (titles.size === 0) return text
  const labels = [...titles.keys()].sort((a, b) => b.length - a.length).map((l) => l.replace(/[^\w\s]/g, '\\$&'))
  const there = new RegExp(`(?<![\\w-])(?:${labels.join('|')})(?![\\w-])`, 'gi')
  return text.replace(there, (was) => {
    const title = titles.get(was) ?? titles.get(was.toLowerCase())
    return !title ? was : was[0] === was[0]?.toLowerCase() ? title : capital(title)
  })
}

/** The names of the sides of an outline that is drawn, by edge; `turn`: degrees from its frame to the site's. Errors: as those of its moves. */
export const outlineTitles = (recipe: Move[], numbers: Numbers, turn: number): ReadonlyMap<string, string> =>
  sideTitles(
    planOf(recipe, numbers).map(({ points, edges }) => ({ points, names: edges })),
    turn,
  )

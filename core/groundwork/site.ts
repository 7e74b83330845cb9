import type { Edit } from '../edits'
import {
  namesOf,
  nextOrder,
  numberedName,
  tidy,
  type Id,
  type Num,
  type Project,
  type Site,
  type SiteCorner,
} from '../project'
import type { Vec2 } from '../solid'

/** A site from its corners (m): what its sides carried stays where the number of corners stays. */
export function siteEdit(
  project: Project,
  mint: () => Id,
  points: Vec2[],
  limit: Site['limit'] = project.site?.limit ?? null,
): Edit {
  const old = project.site?.corners ?? []
  const stays = old.length === points.length
  const corners = points.map(([x, y], i): SiteCorner => ({
    id: stays ? (old[i]?.id ?? mint()) : mint(),
    x: tidy(x),
    y: tidy(y),
    setback: stays ? (old[i]?.setback ?? 0) : 0,
    slope: stays ? (old[i]?.slope ?? null) : null,
  }))
  return { edit: 'project.change', set: { site: { corners, limit } } }
}

/** A building around the site, by its outline (m) and its height; `base` null: it stands on the ground. */
export function neighbourEdit(
  project: Project,
  id: Id,
  points: Vec2[],
  height: Num,
  name?: string,
  base: Num | null = null,
): Edit {
  const names = namesOf(project.neighbours)
  return {
    edit: 'neighbour.add',
    thing: {
      id,
      name: name ?? numberedName('Neighbour', names, names.length + 1),
      order: nextOrder(project.neighbours),
      outline: points.map(([x, y]): Vec2 => [tidy(x), tidy(y)]),
      base,
      height,
    },
  }
}

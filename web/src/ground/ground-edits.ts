import type { Edit } from '@geotome/core/edits'
import {
  nextOrder,
  tidy,
  type Num,
  type Project,
  type Site,
  type SiteCorner,
  numberedName,
} from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'

/** A site from its corners (m): what its sides carried stays where the number of corners stays. */
export function siteEdit(project: Project, points: Vec2[], limit: Site['limit'] = project.site?.limit ?? null): Edit {
  const old = project.site?.corners ?? []
  const corners = points.map(([x, y], i): SiteCorner => ({
    id: old.length === points.length ? (old[i]?.id ?? crypto.randomUUID()) : crypto.randomUUID(),
    x: tidy(x),
    y: tidy(y),
    setback: old.length === points.length ? (old[i]?.setback ?? 0) : 0,
    slope: old.length === points.length ? (old[i]?.slope ?? null) : null,
  }))
  return { edit: 'project.change', set: { site: { corners, limit } } }
}

export function neighbourEdit(
  project: Project,
  points: Vec2[],
  height: Num,
  id: string,
  name?: string,
  base: Num | null = null,
): Edit {
  // While one is drawn it is among them already, as what is tried.
  const others = Object.values(project.neighbours).filter((o) => o.id !== id)
  return {
    edit: 'neighbour.add',
    thing: {
      id,
      name:
        name ??
        numberedName(
          'Neighbour',
          others.map((o) => o.name),
          others.length + 1,
        ),
      order: nextOrder(project.neighbours),
      outline: points.map(([x, y]): Vec2 => [tidy(x), tidy(y)]),
      base,
      height,
    },
  }
}

import { batch, type Edit, type SingleEdit } from '../edits'
import { levelHeights, takeName } from '../levels'
import { namesOf, tidy, TOLERANCE, type Id, type Level, type Project, type Scheme } from '../project'

/** A height (m above the datum) that was read off something, and what it becomes. */
export interface ReadLevel {
  height: number
  name: string
  kind: Level['kind']
}

/** Levels at heights: fixed, or each stacked on the next level below it, whether that was there or is made now. Taken names get a number. */
export function addReadLevels(
  project: Project,
  scheme: Scheme,
  mint: () => Id,
  read: ReadLevel[],
  stacked: boolean,
): Edit {
  const names = new Set(namesOf(scheme.levels).map((n) => n.toLowerCase()))
  const there = levelHeights(project, scheme).map(({ id, height }) => ({ id, height }))
  const edits: SingleEdit[] = []
  for (const { height, name, kind } of [...read].sort((a, b) => a.height - b.height)) {
    const id = mint()
    const on = stacked
      ? there.filter((l) => l.height < height - TOLERANCE.rounding).sort((a, b) => b.height - a.height)[0]
      : undefined
    edits.push({
      edit: 'level.add',
      scheme: scheme.id,
      thing: {
        id,
        name: takeName(name, names),
        kind,
        tie: on
          ? { kind: 'stacked', on: on.id, above: tidy(height - on.height) }
          : { kind: 'fixed', height: tidy(height) },
        floorBuildUp: 0,
        slab: 0,
      },
    })
    there.push({ id, height })
  }
  return batch(edits)
}

import { applyEdit, batch, singles, type Edit } from '../edits'
import { addHole, newMass } from '../form'
import { inOrder, namesOf, numberedName, refuse, type Id, type Project, type Scheme } from '../project'
import type { Vec2 } from '../solid'

/** A loop in plan, m, with the bulge of the side behind each point. */
export interface PlanLoop {
  points: Vec2[]
  bulges: number[]
}

/** A mass from loops: the first is its outline, the others are holes in it. It has the wished name, or a number where that is taken. */
export function massFromLoops(
  project: Project,
  scheme: Scheme,
  mint: () => Id,
  loops: PlanLoop[],
  wish: { name: string; level: Id; height: number },
): { edit: Edit; id: Id } {
  const [outer, ...holes] = loops
  if (!outer) return refuse('outline', `"${wish.name}" has no outline.`, 'Trace it once more.')
  const names = namesOf(scheme.masses)
  const mass = newMass(scheme, mint, {
    name: names.includes(wish.name) ? numberedName('Mass', names, names.length + 1) : wish.name,
    use: inOrder(project.uses)[0]?.id ?? '',
    level: wish.level,
    height: wish.height,
    shape: { kind: 'polygon', ...outer },
  })
  const edits = singles({ edit: 'mass.add', scheme: scheme.id, thing: mass })
  let now = applyEdit(project, batch([...edits])).project
  for (const hole of holes) {
    const edit = addHole(now, now.schemes[scheme.id] ?? scheme, mass.id, { kind: 'polygon', ...hole })
    edits.push(...singles(edit))
    now = applyEdit(now, edit).project
  }
  return { edit: batch(edits), id: mass.id }
}

import type { Rule, Step } from '../rules'
import { batch, type Edit, type SingleEdit } from '../edits'
import { refuse, type Id, type Project } from '../project'

/** Removes a material; what was drawn in it is paper again. */
export function removeMaterial(project: Project, id: Id): Edit {
  if (!project.materials[id])
    return refuse('unknown-id', 'That material is not there any more.', 'Choose one of the materials of the project.')
  const edits: SingleEdit[] = Object.values(project.schemes).flatMap((scheme) =>
    Object.values(scheme.masses).flatMap((mass): SingleEdit[] => {
      const faces = Object.fromEntries(Object.entries(mass.faces).filter(([, material]) => material !== id))
      const set = {
        ...(mass.material === id ? { material: null } : {}),
        ...(Object.keys(faces).length < Object.keys(mass.faces).length ? { faces } : {}),
      }
      return Object.keys(set).length ? [{ edit: 'mass.change', scheme: scheme.id, id: mass.id, set }] : []
    }),
  )
  for (const scheme of Object.values(project.schemes))
    for (const rule of Object.values(scheme.rules)) {
      const set = withoutMaterial(rule, id)
      if (JSON.stringify(set) !== JSON.stringify({ steps: rule.steps, own: rule.own, frozen: rule.frozen }))
        edits.push({ edit: 'rule.change', scheme: scheme.id, id: rule.id, set })
    }
  const kinds = Object.fromEntries(Object.entries(project.kinds).filter(([, material]) => material !== id))
  if (Object.keys(kinds).length < Object.keys(project.kinds).length)
    edits.push({ edit: 'project.change', set: { kinds } })
  return batch([...edits, { edit: 'material.remove', id }])
}

/** The steps, exceptions and frozen bodies of a rule without a material. */
function withoutMaterial({ steps, own, frozen }: Rule, id: Id): Pick<Rule, 'steps' | 'own' | 'frozen'> {
  const clean = <T>(thing: T): T => {
    const { material, materials, faces, ...rest } = thing as {
      material?: Id | null
      materials?: Id[]
      faces?: Record<string, Id>
    }
    return {
      ...rest,
      ...(material === undefined ? {} : { material: material === id ? null : material }),
      ...(materials ? { materials: materials.filter((m) => m !== id) } : {}),
      ...(faces ? { faces: Object.fromEntries(Object.entries(faces).filter(([, m]) => m !== id)) } : {}),
    } as T
  }
  const each = <T>(things: Record<string, T>) =>
    Object.fromEntries(Object.entries(things).map(([key, thing]) => [key, clean(thing)]))
  return { steps: steps.map((s): Step => clean(s)), own: each(own), frozen: frozen && each(frozen) }
}

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
  const kinds = Object.fromEntries(Object.entries(project.kinds).filter(([, material]) => material !== id))
  if (Object.keys(kinds).length < Object.keys(project.kinds).length)
    edits.push({ edit: 'project.change', set: { kinds } })
  return batch([...edits, { edit: 'material.remove', id }])
}

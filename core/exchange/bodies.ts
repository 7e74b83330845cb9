import { bodyMesh } from '../fabric'
import type { Material } from '../project'
import { placeSolid, type Mesh, faceFileName } from '../solid'
import { givesFloor, type Study } from '../study'

/** A thing to be drawn in a file: a closed mesh in metres, z up, with its faces' names where it is a form, and what it is drawn in. */
export interface NamedBody {
  id: string
  name: string
  mesh: Mesh
  /** per triangle, the number of its face in `faces` */ faceOf: Uint32Array | null
  faces: { name: string; material: Material | null }[]
  material: Material | null
}

/** The forms of a scheme, context last, voids left out, each with the materials of its faces. */
export function formBodies({ project, scheme, forms, around }: Study): NamedBody[] {
  const materialOf = (id: string | null | undefined) => (id ? (project.materials[id] ?? null) : null)
  return [...forms.filter((f) => givesFloor(scheme, f)), ...around].map((form): NamedBody => {
    const mass = scheme.masses[form.id]
    const solid = placeSolid(form.body.solid, form.at)
    const names = [...new Set(solid.facets.map((f) => f.name))]
    const number = solid.facets.map((f) => names.indexOf(f.name))
    return {
      id: form.id,
      name: form.name,
      mesh: solid,
      faceOf: solid.facetOf.map((f) => number[f] ?? 0),
      material: materialOf(mass?.material),
      faces: names.map((name) => ({ name: faceFileName(name), material: materialOf(mass?.faces[name]) })),
    }
  })
}

/** The building: its parts, and the forms that have none. */
export function buildingBodies(study: Study): NamedBody[] {
  const { project } = study
  const made = new Set(study.parts.filter((p) => p.body).map((p) => p.part.host.mass))
  const parts = study.parts.flatMap((p): NamedBody[] => {
    const id = project.kinds[p.part.kind]
    return p.body
      ? [
          {
            id: p.id,
            name: p.part.name,
            mesh: bodyMesh(p.body),
            faceOf: null,
            faces: [],
            material: (id ? project.materials[id] : null) ?? null,
          },
        ]
      : []
  })
  return [...parts, ...formBodies(study).filter((b) => !made.has(b.id))]
}

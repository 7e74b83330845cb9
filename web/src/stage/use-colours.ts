import { useMemo } from 'react'
import type { Material } from '@geotome/core/project'
import { useProject, useStudy } from '../app/hooks'

/** What things are drawn in, by the ids of masses and the kinds of parts. */
export interface Colours {
  masses: Record<string, { whole: Material | null; faces: Record<string, Material> }>
  kinds: Record<string, Material | null>
}

/** The materials of masses, their faces, and kinds of parts; nothing where the view is to be paper. */
export function useColours(wanted: boolean): Colours | null {
  const { project, scheme } = useProject()
  const study = useStudy()
  return useMemo(() => {
    if (!wanted) return null
    const of = (id: string | null | undefined) => (id ? (project.materials[id] ?? null) : null)
    // What grows says itself what it is drawn in.
    const grown = (study?.masses ?? []).flatMap((m) =>
      m.grown ? [{ id: m.id, material: m.grown.material, faces: m.grown.dressed }] : [],
    )
    const masses = Object.fromEntries(
      [...Object.values(scheme.masses), ...grown].map((m) => [
        m.id,
        {
          whole: of(m.material),
          faces: Object.fromEntries(
            Object.entries(m.faces).flatMap(([face, id]) => {
              const material = of(id)
              return material ? [[face, material]] : []
            }),
          ),
        },
      ]),
    )
    return { masses, kinds: Object.fromEntries(Object.entries(project.kinds).map(([kind, id]) => [kind, of(id)])) }
  }, [wanted, project.materials, project.kinds, scheme.masses, study?.masses])
}

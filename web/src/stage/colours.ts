import type { Mass, Material, PartKind } from '@geotome/core/project'
import type { MassView } from '../worker/protocol'

/** What things are made of, as a project says it. */
export interface Dress {
  materials: Record<string, Material>
  kinds: Partial<Record<PartKind, string | null>>
  masses: Record<string, Pick<Mass, 'material' | 'faces'>>
}

/** What things are drawn in, by the ids of masses and the kinds of parts. */
export interface Colours {
  masses: Record<string, { whole: Material | null; faces: Record<string, Material> }>
  kinds: Record<string, Material | null>
}

/** The materials of masses, their faces, and kinds of parts. */
export function coloursOf(dress: Dress, shown: readonly MassView[]): Colours {
  const of = (id: string | null | undefined) => (id ? (dress.materials[id] ?? null) : null)
  const drawn = Object.entries(dress.masses).map(([id, m]) => ({ id, ...m }))
  // What grows says itself what it is drawn in.
  const grown = shown.flatMap((m) =>
    m.grown ? [{ id: m.id, material: m.grown.material, faces: m.grown.dressed }] : [],
  )
  const masses = Object.fromEntries(
    [...drawn, ...grown].map((m) => [
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
  return { masses, kinds: Object.fromEntries(Object.entries(dress.kinds).map(([kind, id]) => [kind, of(id)])) }
}

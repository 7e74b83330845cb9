import type { Geometry, StudyView } from '../worker/protocol'

type Named = Pick<StudyView, 'masses' | 'parts' | 'proposal'>

/** Triangles, beside the store: kept while the newest view names them. */
class GeometryStore {
  private readonly byKey = new Map<string, Geometry>()

  keep(fresh: Geometry[], view: Named): void {
    for (const g of fresh) this.byKey.set(g.key, g)
    const named = new Set<string | null>([...view.masses.map((m) => m.body), ...view.parts.map((p) => p.mesh), view.proposal?.mesh ?? null])
    for (const key of this.byKey.keys()) if (!named.has(key)) this.byKey.delete(key)
  }

  get(key: string | null): Geometry | null { return key === null ? null : this.byKey.get(key) ?? null }
  forgetAll(): void { this.byKey.clear() }
}

export const stageGeometry = new GeometryStore()

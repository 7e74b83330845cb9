import { groundKeys, type FloorShape, type Geometry, type PartView, type StudyView } from '../worker/protocol'

/** A study's view without its triangles, floors with their shapes: what the store holds. */
export type StoredView = Omit<StudyView, 'geometry' | 'shapes' | 'floors' | 'parts' | 'fresh'> & {
  floors: StoredFloor[]
  parts: PartView[]
}
export type StoredFloor = StudyView['floors'][number] & Pick<FloorShape, 'plates' | 'lows'>

/** Triangles, beside the store, and the shapes of floors: kept while the newest view names them, so that what stays is the same object. */
export class GeometryStore {
  private readonly byKey = new Map<string, Geometry>()
  private readonly shapes = new Map<string, FloorShape>()
  private parts = new Map<string, PartView>()

  /** Takes what is new, forgets what is not named any more, and gives the view as the store holds it. */
  keep({ geometry, shapes, floors, parts: ids, fresh, ...view }: StudyView): StoredView {
    for (const g of geometry) this.byKey.set(g.key, g)
    for (const s of shapes) this.shapes.set(s.key, s)
    const had = this.parts
    for (const part of fresh) had.set(part.id, part)
    const parts = ids.flatMap((id) => had.get(id) ?? [])
    this.parts = new Map(parts.map((p) => [p.id, p]))
    const named = new Set<string | null>([
      ...view.masses.map((m) => m.body),
      ...parts.map((p) => p.mesh),
      view.proposal?.mesh ?? null,
      ...groundKeys(view.ground),
      ...floors.map((f) => f.shape),
    ])
    for (const kept of [this.byKey, this.shapes]) for (const key of kept.keys()) if (!named.has(key)) kept.delete(key)
    // Frozen here, and only at its top: the store has no need to go through all of it.
    return Object.freeze({
      ...view,
      parts,
      floors: floors.map((f) => {
        const shape = this.shapes.get(f.shape)
        return { ...f, plates: shape?.plates ?? [], lows: shape?.lows ?? [] }
      }),
    })
  }

  get(key: string | null): Geometry | null {
    return key === null ? null : (this.byKey.get(key) ?? null)
  }
  forgetAll(): void {
    this.byKey.clear()
    this.shapes.clear()
    this.parts.clear()
  }
}

export const stageGeometry = new GeometryStore()

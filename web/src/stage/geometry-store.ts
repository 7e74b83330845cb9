import {
  groundKeys,
  type FloorShape,
  type Geometry,
  type MassView,
  type PartView,
  type StudyView,
} from '../worker/protocol'

/** A study's view without its triangles, floors with their shapes: what the store holds. */
export type StoredView = Omit<StudyView, 'geometry' | 'shapes' | 'floors' | 'masses' | 'parts' | 'fresh'> & {
  floors: StoredFloor[]
  masses: MassView[]
  parts: PartView[]
}
export type StoredFloor = StudyView['floors'][number] & Pick<FloorShape, 'plates' | 'lows'>

/** Things by id, as they were sent last. */
class Kept<T extends { id: string }> {
  private had = new Map<string, T>()

  /** All of `ids`, with what is new of them; the others go. */
  take(ids: string[], fresh: T[]): T[] {
    for (const thing of fresh) this.had.set(thing.id, thing)
    const all = ids.flatMap((id) => this.had.get(id) ?? [])
    this.had = new Map(all.map((thing) => [thing.id, thing]))
    return all
  }
  clear(): void {
    this.had.clear()
  }
}

/** Triangles, beside the store, and the shapes of floors: kept while the newest view names them, so that what stays is the same object. */
export class GeometryStore {
  private readonly byKey = new Map<string, Geometry>()
  private readonly shapes = new Map<string, FloorShape>()
  private readonly masses = new Kept<MassView>()
  private readonly parts = new Kept<PartView>()
  /** what schemes beside the one that is worked on name */
  private others = new Set<string>()

  /** Takes what is new, forgets what is not named any more, and gives the view as the store holds it. */
  keep({ geometry, shapes, floors, fresh, ...view }: StudyView): StoredView {
    for (const g of geometry) this.byKey.set(g.key, g)
    for (const s of shapes) this.shapes.set(s.key, s)
    const masses = this.masses.take(view.masses, fresh.masses)
    const parts = this.parts.take(view.parts, fresh.parts)
    const named = new Set<string | null>([
      ...masses.map((m) => m.body),
      ...parts.map((p) => p.mesh),
      view.proposal?.mesh ?? null,
      ...groundKeys(view.ground),
      ...floors.map((f) => f.shape),
    ])
    for (const kept of [this.byKey, this.shapes])
      for (const key of kept.keys()) if (!named.has(key) && !this.others.has(key)) kept.delete(key)
    // Frozen here, and only at its top: the store has no need to go through all of it.
    return Object.freeze({
      ...view,
      masses,
      parts,
      floors: floors.map((f) => {
        const shape = this.shapes.get(f.shape)
        return { ...f, plates: shape?.plates ?? [], lows: shape?.lows ?? [] }
      }),
    })
  }

  /** Takes whole views of other schemes, to be drawn beside: their pieces stay until other ones are taken. */
  keepBeside(views: StudyView[]): StoredView[] {
    this.others = new Set()
    return views.map(({ geometry, shapes, floors, fresh, masses: _masses, parts: _parts, ...view }) => {
      for (const g of geometry) {
        if (!this.byKey.has(g.key)) this.byKey.set(g.key, g)
        this.others.add(g.key)
      }
      const own = new Map(shapes.map((s) => [s.key, s]))
      return Object.freeze({
        ...view,
        masses: fresh.masses,
        parts: fresh.parts,
        floors: floors.map((f) => ({
          ...f,
          plates: own.get(f.shape)?.plates ?? [],
          lows: own.get(f.shape)?.lows ?? [],
        })),
      })
    })
  }

  get(key: string | null): Geometry | null {
    return key === null ? null : (this.byKey.get(key) ?? null)
  }
  forgetAll(): void {
    this.byKey.clear()
    this.shapes.clear()
    this.masses.clear()
    this.parts.clear()
  }
}

export const stageGeometry = new GeometryStore()

import { dropUnnamed } from '../worker/named'
import {
  groundKeys,
  type FindingView,
  type FloorPiece,
  type FloorView,
  type Geometry,
  type MassView,
  type PartView,
  type StudyView,
} from '../worker/protocol'

/** A study's view without its triangles, floors with their shapes: what the store holds. */
export type StoredView = Omit<
  StudyView,
  'geometry' | 'shapes' | 'pieces' | 'floors' | 'masses' | 'parts' | 'fresh' | 'findings'
> & { findings: FindingView[]; floors: StoredFloor[]; masses: MassView[]; parts: PartView[] }
export type StoredFloor = FloorView & Drawn
/** What is drawn of a floor. */
type Drawn = Pick<FloorPiece, 'plates' | 'lows'>

/** The shapes of floors, put together from their pieces; the same object while a floor has the same one. */
class Shapes {
  private readonly drawn = new Map<string, Drawn>()
  private readonly shapes = new Map<string, readonly number[]>()
  private readonly pieces = new Map<number, FloorPiece>()

  take({ shapes, pieces }: Pick<StudyView, 'shapes' | 'pieces'>): void {
    for (const piece of pieces) this.pieces.set(piece.key, piece)
    for (const { key, pieces } of shapes) {
      const own = pieces.flatMap((p) => this.pieces.get(p) ?? [])
      this.shapes.set(key, pieces)
      this.drawn.set(key, { plates: own.flatMap((p) => p.plates), lows: own.flatMap((p) => p.lows) })
    }
  }
  whole = (floor: FloorView): StoredFloor => ({ ...floor, ...(this.drawn.get(floor.shape) ?? NOTHING) })

  keepOnly(named: ReadonlySet<string>): void {
    dropUnnamed(named, this.shapes, this.pieces)
    for (const key of this.drawn.keys()) if (!named.has(key)) this.drawn.delete(key)
  }
  clear(): void {
    for (const kept of [this.drawn, this.shapes, this.pieces]) kept.clear()
  }
}
const NOTHING: Drawn = { plates: [], lows: [] }

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
  private readonly shapes = new Shapes()
  private readonly masses = new Kept<MassView>()
  private readonly parts = new Kept<PartView>()
  private last: Pick<StoredView, 'scheme' | 'findings'> = { scheme: '', findings: [] }
  /** what schemes beside the one that is worked on name */
  private others = new Set<string>()

  /** Takes what is new, forgets what is not named any more, and gives the view as the store holds it. */
  keep({ geometry, shapes, pieces, floors, fresh, ...view }: StudyView): StoredView {
    for (const g of geometry) this.byKey.set(g.key, g)
    this.shapes.take({ shapes, pieces })
    const masses = this.masses.take(view.masses, fresh.masses)
    const parts = this.parts.take(view.parts, fresh.parts)
    const named = new Set<string | null>([
      ...masses.map((m) => m.body),
      ...parts.map((p) => p.mesh),
      view.proposal?.mesh ?? null,
      ...groundKeys(view.ground),
    ])
    for (const key of this.byKey.keys()) if (!named.has(key) && !this.others.has(key)) this.byKey.delete(key)
    this.shapes.keepOnly(new Set(floors.map((f) => f.shape)))
    const findings = view.findings ?? (this.last.scheme === view.scheme ? this.last.findings : [])
    this.last = { scheme: view.scheme, findings }
    // Frozen here, and only at its top: the store has no need to go through all of it.
    return Object.freeze({ ...view, findings, masses, parts, floors: floors.map(this.shapes.whole) })
  }

  /** Takes whole views of other schemes, to be drawn beside: their pieces stay until other ones are taken. */
  keepBeside(views: StudyView[]): StoredView[] {
    this.others = new Set()
    return views.map(({ geometry, shapes, pieces, floors, fresh, masses: _masses, parts: _parts, ...view }) => {
      for (const g of geometry) {
        if (!this.byKey.has(g.key)) this.byKey.set(g.key, g)
        this.others.add(g.key)
      }
      const own = new Shapes()
      own.take({ shapes, pieces })
      const [whole, findings] = [floors.map(own.whole), view.findings ?? []]
      return Object.freeze({ ...view, findings, masses: fresh.masses, parts: fresh.parts, floors: whole })
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

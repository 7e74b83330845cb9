import type { Edit } from '@geotome/core/edits'
import type { Bond, Choices, FaceOffer, LeftOut, PartRole, Place, Remark } from '@geotome/core/fabric'
import type {
  BriefOf,
  Comparison,
  LimitFigure,
  PartKind,
  Project,
  Raster,
  SiteFigures,
  TraceOptions,
  FoundShape,
} from '@geotome/core/project'
import type { FaceAt, GrownFrom } from '@geotome/core/form'
import type { LevelHeight } from '@geotome/core/levels'
import type { SoftCage } from '@geotome/core/moves'
import type { Rect, Region, Vec2, Vec3 } from '@geotome/core/solid'
import type { Upright } from '@geotome/core/slice'
import type { AreasView, Wanted } from './areas-protocol'
import type {
  AccountItem,
  AccountOf,
  BriefFigure,
  Ledger,
  LevelDifference,
  MassGround,
  Met,
  PlateFigures,
  PlatesBy,
  SchemeSummary,
  Trial,
} from '@geotome/core/study'

/** The two sides of the computation: the page sends edits and questions, the worker answers with plain views. Metres, m2. */

export interface FindingView {
  key: string
  kind: string
  say: string
  remedy: string
  level: string | null
  masses: string[]
  parts: string[]
  area: number | null
  /** where it is on several levels: m2 on each */
  levels: { level: string; area: number }[]
  region: Region
  /** what its remedy is called; the worker makes the edit */ fix: string | null
  /** why it matters */
  why: string
  /** why it was left, and the id of that note */ muted: { id: string; reason: string } | null
}

/** A piece of floor to draw; coordinates from the view's origin. */
export interface PlateView {
  mass: string
  use: string
  region: Region
  area: number
}
export interface FloorView {
  level: string
  /** the storey at the same height at which its floor is counted */ oneWith: string | null
  area: number
  low: number
  net: number | null
  perimeter: number
  /** m2 by use id */ uses: Record<string, number>
  /** the key of its shape */ shape: string
  /** what the blade cuts there of masses that do not take the level: no floor, but seen */ untaken: Region
}
/** What is drawn of a floor, by the keys of its pieces; many floors have one shape. */
export interface FloorShape {
  key: string
  pieces: number[]
}
/** What is drawn of masses that meet on a floor: the same piece while they do so alike, on however many floors. */
export interface FloorPiece {
  key: number
  plates: PlateView[]
  lows: Region
}
export interface MassView {
  id: string
  name: string
  use: string
  body: string
  at: { x: number; y: number; z: number; turn: number }
  base: number
  top: number
  ridge: number | null
  volume: number
  /** in plan, m */ extent: Rect
  outline: Vec2[]
  storeys: string[]
  /** what it comes from, where it is one of a repeat or a rule, and what that is drawn in */
  grown: (GrownFrom & { material: string | null; dressed: Record<string, string> }) | null
  context: boolean
  /** what it gives instead of floor */ gives: 'void' | 'core' | null
  /** its faces, as its triangles are numbered by them */ faces: { name: string; label: string }[]
  /** what a soft form is drawn from, in its own frame */ cage: SoftCage | null
}
export interface PartView {
  id: string
  name: string
  role: PartRole
  mass: string
  level: string | null
  buildUp: string
  area: number
  volume: number
  thickness: number
  length: number | null
  /** m above the datum: what of it stands highest */ top: number
  bond: Bond
  mesh: string | null
  kind: PartKind
  /** walls: the outline in plan, from the origin */ plan: Region
  /** the faces below whose edges a roof can hang over */ eaves: { face: string; label: string }[]
}

/** Triangles with flat normals and the ink lines between faces. `faceOf` numbers each triangle's face. */
export interface Geometry {
  key: string
  positions: Float32Array
  normals: Float32Array
  edges: Float32Array
  /** 12 numbers each: two ends, and the directions of the two facets that meet there: drawn where one of them turns away */
  contours: Float32Array
  faceOf: Uint32Array
  /** triangles by their corners' numbers, where corners are shared: ground */ index?: Uint32Array
}

/** How a mass stands in the envelope: see core/ground. `over` is m3, `mesh` what lies beyond it. */
export interface FitView {
  limits: LimitFigure[]
  over: number
  clear: number[]
  mesh: string | null
}

/** The ground as it is drawn, from the view's origin. */
export interface GroundView {
  /** `line`: the boundary, laid on the ground */
  site: (SiteFigures & { ring: Vec2[]; line: string }) | null
  envelope: {
    region: Region
    area: number
    limit: number | null
    mesh: string | null
    /** listed number of each side of the ring, as it is drawn */ side: number[]
    /** of the sides as they are listed: "south side" */ names: string[]
    ring: Vec2[]
  } | null
  fits: Record<string, FitView>
  feet: Record<string, MassGround>
  terrain: {
    mesh: string | null
    low: number
    high: number
    points: number
    lost: number
    apart: number
    flat: number | null
  } | null
  neighbours: { id: string; name: string; outline: Vec2[]; base: number; top: number; body: string }[]
  /** the stored terrain is not at hand */
  missing: boolean
}

/**
 * A picture at one of its stands: four corners of what its crop leaves, clockwise from the upper left, and that part of the picture (0 to
 * 1, down).
 */
export interface LaidView {
  picture: string
  stand: string
  upright: number | null
  front: boolean
  shown: Vec3[]
  part: [number, number, number, number]
  corner: Vec3
  right: Vec3
  up: Vec3
  /** the points that are marked on it */ marks: Vec3[]
}

export interface StudyView {
  scheme: string
  /** world coordinates of the view's zero, m */
  origin: Vec2
  levels: LevelHeight[]
  /** masses and parts by id, all in their order; `fresh` has those of them that are not as the page has them */
  masses: string[]
  parts: string[]
  fresh: { masses: MassView[]; parts: PartView[] }
  floors: FloorView[]
  ledger: Ledger
  /** those that are not muted */ open: number
  /** null: those of before are left, while something is dragged and their list is closed */ findings:
    FindingView[] | null
  ground: GroundView
  pictures: LaidView[]
  /** the wing of each mass, where there are wings */
  wingOf: Record<string, string | null>
  /** what the upright plane that was asked for cuts, by mass, in (to the right, up); m from the view's origin along the plane */
  section: { upright: Upright; regions: { mass: string; use: string; region: Region; area: number }[] } | null
  /** another scheme's figures, when asked for */
  compare: {
    scheme: string
    name: string
    ledger: Ledger
    parts: number
    findings: number
    levels: LevelDifference[]
    brief: BriefFigure[]
  } | null
  /** the brief against it */
  brief: BriefFigure[]
  /** what the ledger tells, when asked for */
  areas: AreasView | null
  /** what could be made of the faces, when asked for */
  proposal: ProposalView | null
  /** bodies, parts and floors that the page has not had yet, placed from the origin where they are parts or floors */
  geometry: Geometry[]
  shapes: FloorShape[]
  pieces: FloorPiece[]
  /** ms that the study took */
  took: number
  /** volume, footprint and coverage are those of before: what is tried is computed first by its areas */ pending: boolean
}

export interface CandidateView {
  off: number | null
  /** m off flat */ warp: number | null
  key: string
  name: string
  role: PartRole
  mass: string
  level: string | null
  area: number
}
export interface ProposalView {
  candidates: CandidateView[]
  leftOut: LeftOut[]
  remarks: Remark[]
  faces: FaceOffer[]
  mesh: string | null
  /** m3; null: the parts have not been shaped yet */ volume: number | null
}

export interface Ask {
  scheme: string
  /** an edit that is tried while a gesture lasts, and not kept */
  preview: Edit | null
  /** what the fabric preview is set to, or null while it is closed */
  proposal: { masses: string[] | null; choices: Choices } | null
  /** the scheme to compare with */
  compare: string | null
  /** the upright plane that is cut, or null */
  section: Upright | null
  /** of what is tried or offered, all is computed: it rests */ whole?: boolean
  /** what the ledger tells is wanted too */ areas?: boolean
  /** false: parts are not drawn where the page is now */ fabric?: boolean
  /** the list of findings is open */ findings?: boolean
}

/** What the drawing worker hears of the study's: its results, as the page has them; `forget`: from now on all is sent anew. */
export type FromStudy = { view: StudyView } | { forget: true }

/** null: it was dropped for a newer one */
export type Answer = StudyView | null

/** What cannot be done is refused: thrown as a Refusal on both sides (`refusals.ts`). */
export interface StudyWorker {
  /** answers when the lock is held by which the page knows that the worker lives */
  alive(): Promise<void>
  /** where every result goes besides, to be drawn */
  draws(results: MessagePort): void
  open(project: Project): void
  edit(edits: Edit[]): void
  study(ask: Ask): Promise<Answer>
  /** `hear` is told from now on how much is done, 0 to 1, of a study that takes long */
  tell(hear: (share: number) => void): void
  /** figures of a scheme with some dials at given values; `hear` is told of each as it is known, and answers whether to go on */
  trials(
    scheme: string,
    dials: string[],
    values: number[][],
    hear: (trial: Trial, done: number) => boolean | Promise<boolean>,
  ): Promise<void>
  /** how an area came to be, with what is tried where something is */
  account(scheme: string, of: Partial<AccountOf>, trying: Edit | null): Promise<AccountItem[]>
  /** all schemes in one glance, one after the other */
  summaries(): Promise<SchemeSummary[]>
  /** the brief against a scheme of another moment of the project, and its total, m2; null where the scheme was not there */
  past(project: Project, scheme: string): Promise<{ area: number; brief: BriefFigure[] } | null>
  /** a figure at a moment and after each step (some edits) from there on; null where it is not known or the scheme was not there */
  history(start: Project, steps: Edit[][], scheme: string, of: BriefOf): Promise<(number | null)[]>
  /** whole views of schemes, as they stand: for panes of their own */
  beside(schemes: string[]): Promise<StudyView[]>
  /** the plates of a level, cut at it or so many m above, and their figures */
  plates(scheme: string, level: string, by: PlatesBy, above: number, trying: Edit | null): Promise<PlateFigures[]>
  /** seeks values at which one or two figures come out; `hear` answers whether to go on. null: it was left off */
  meet(
    scheme: string,
    wanted: readonly Wanted[],
    hear: (done: number) => boolean | Promise<boolean>,
  ): Promise<{ met: Met[]; edit: Edit | null } | null>
  /** the edit of all remedies of findings that have one, in one action */
  mendAll(scheme: string, findings: string[]): Promise<Edit>
  /** leaves off the study that is under way: its answer is null */
  stop(): void
  /** the edits that store what the preview offers, that bring parts in line, that remove parts */
  accept(ask: Ask): Promise<Edit>
  /** the edit of a finding's remedy */
  mend(scheme: string, finding: string): Promise<Edit>
  bringInLine(scheme: string, parts: string[] | null): Promise<Edit>
  keepAsIs(scheme: string, parts: string[]): Promise<Edit>
  /** where a part could be attached, the likeliest place first; and the edit that attaches it */
  places(scheme: string, part: string): Promise<Place[]>
  attach(scheme: string, part: string, place: Pick<Place, 'mass' | 'face'>): Promise<Edit>
  /** points (x, y, z each) as a survey, packed to be kept */
  packPoints(points: Float64Array): Promise<Uint8Array>
  /** closed shapes of a sketch; `progress` hears how far it is */
  trace(raster: Raster, options: TraceOptions, progress: (done: number, what: string) => void): Promise<FoundShape[]>
  /** m: the ground's height at a place, in world coordinates; null where it is not known */
  groundAt(scheme: string, x: number, y: number): Promise<number | null>
  /** a face of a mass as it stands, world coordinates */
  faceAt(scheme: string, mass: string, face: string): Promise<FaceAt>
  compareTrace(scheme: string, trace: string, stand: number): Promise<Comparison & { view: string }>
  /** a trace in plan, world coordinates */
  tracedPlan(scheme: string, trace: string): Promise<{ points: Vec2[]; bulges: number[] }[]>
}

/** The pieces of geometry that the ground names. */
export const groundKeys = (ground: GroundView): string[] =>
  [
    ground.site?.line,
    ground.envelope?.mesh,
    ground.terrain?.mesh,
    ...Object.values(ground.fits).map((f) => f.mesh),
    ...ground.neighbours.map((n) => n.body),
  ].flatMap((key) => key ?? [])

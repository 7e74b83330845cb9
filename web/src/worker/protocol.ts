import type { Edit } from '@geotome/core/edits'
import type { ReadBody } from '@geotome/core/exchange'
import type { Bond, Choices, FaceOffer, LeftOut, PartRole, Place, Remark } from '@geotome/core/fabric'
import type { PartKind, Project } from '@geotome/core/project'
import type { LevelHeight } from '@geotome/core/levels'
import type { Region, Vec2 } from '@geotome/core/solid'
import type { Ledger } from '@geotome/core/study'

/** The two sides of the computation: the page sends edits and questions, the worker answers with plain views. Metres, m2. */

export interface FindingView { key: string; kind: string; say: string; remedy: string; level: string | null; masses: string[]; parts: string[]; area: number | null; region: Region; /** what its remedy is called; the worker makes the edit */ fix: string | null; /** why it was left, and the id of that note */ muted: { id: string; reason: string } | null }

/** A piece of floor to draw and to write an area on; coordinates from the view's origin. */
export interface PlateView { mass: string; use: string; region: Region; area: number; label: Vec2 }
export interface FloorView { level: string; area: number; low: number; net: number | null; perimeter: number; /** m2 by use id */ uses: Record<string, number>; /** the key of its shape */ shape: string; /** what the blade cuts there of masses that do not take the level: no floor, but seen */ untaken: Region }
/** What is drawn of a floor; many floors have one shape. */
export interface FloorShape { key: string; plates: PlateView[]; lows: Region }
export interface MassView { id: string; name: string; use: string; body: string; at: { x: number; y: number; z: number; turn: number }; base: number; top: number; ridge: number | null; volume: number; outline: Vec2[]; storeys: string[]; context: boolean; /** its faces, as its triangles are numbered by them */ faces: { name: string; label: string }[] }
export interface PartView { id: string; name: string; role: PartRole; mass: string; level: string | null; buildUp: string; area: number; volume: number; thickness: number; length: number | null; bond: Bond; mesh: string | null; kind: PartKind; /** walls: the outline in plan, from the origin */ plan: Region; /** the faces below whose edges a roof can hang over */ eaves: { face: string; label: string }[] }

/** Triangles with flat normals and the ink lines between faces. `faceOf` numbers each triangle's face. */
export interface Geometry { key: string; positions: Float32Array; normals: Float32Array; edges: Float32Array; /** 12 numbers each: two ends, and the directions of the two facets that meet there: drawn where one of them turns away */ contours: Float32Array; faceOf: Uint32Array }

export interface StudyView {
  scheme: string
  /** world coordinates of the view's zero, m */
  origin: Vec2
  levels: LevelHeight[]
  masses: MassView[]
  floors: FloorView[]
  ledger: Ledger
  parts: PartView[]
  findings: FindingView[]
  /** another scheme's figures, when asked for */
  compare: { scheme: string; name: string; ledger: Ledger; parts: number; findings: number } | null
  /** what could be made of the faces, when asked for */
  proposal: ProposalView | null
  /** bodies, parts and floors that the page has not had yet, placed from the origin where they are parts or floors */
  geometry: Geometry[]
  shapes: FloorShape[]
  /** ms that the study took */
  took: number
}

export interface CandidateView { off: number | null; key: string; name: string; role: PartRole; mass: string; level: string | null; area: number }
export interface ProposalView { candidates: CandidateView[]; leftOut: LeftOut[]; remarks: Remark[]; faces: FaceOffer[]; mesh: string | null; volume: number }

export interface Ask {
  scheme: string
  /** an edit that is tried while a gesture lasts, and not kept */
  preview: Edit | null
  /** what the fabric preview is set to, or null while it is closed */
  proposal: { masses: string[] | null; choices: Choices } | null
  /** the scheme to compare with */
  compare: string | null
}

export type Answer = { view: StudyView } | { refused: string } | { dropped: true }

export interface StudyWorker {
  open(project: Project): void
  edit(edits: Edit[]): void
  study(ask: Ask): Promise<Answer>
  /** the edits that store what the preview offers, that bring parts in line, that remove parts */
  accept(ask: Ask): Promise<{ edit: Edit } | { refused: string }>
  /** the edit of a finding's remedy */
  mend(scheme: string, finding: string): Promise<{ edit: Edit } | { refused: string }>
  bringInLine(scheme: string, parts: string[] | null): Promise<{ edit: Edit } | { refused: string }>
  keepAsIs(scheme: string, parts: string[]): Promise<{ edit: Edit } | { refused: string }>
  /** where a part could be attached, the likeliest place first; and the edit that attaches it */
  places(scheme: string, part: string): Promise<{ places: Place[] } | { refused: string }>
  attach(scheme: string, part: string, place: Pick<Place, 'mass' | 'face'>): Promise<{ edit: Edit } | { refused: string }>
  /** the bodies of a file */
  read(name: string, bytes: Uint8Array, together: boolean): Promise<{ bodies: ReadBody[] } | { refused: string }>
}

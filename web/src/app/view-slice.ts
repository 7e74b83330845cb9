import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import type { Edit } from '@geotome/core/edits'
import type { Choices } from '@geotome/core/fabric'
import type { FaceAt } from '@geotome/core/form'
import type { KeptView, Num } from '@geotome/core/project'
import type { Upright } from '@geotome/core/slice'
import type { Region } from '@geotome/core/solid'
import type { StoredView } from '../stage/geometry-store'
import { sameSpot, type Spot } from '../stage/spot'
import type { Taken } from '../tools/kind'
import { made } from './project-slice'

export type Picked =
  | { kind: 'mass'; ids: string[] }
  | { kind: 'level'; ids: string[] }
  | { kind: 'part'; ids: string[] }
  | { kind: 'picture'; ids: string[] }
  /** a repeat or a rule, and which one of it by its key */
  | { kind: 'repeat' | 'rule'; ids: string[]; one: string | null }
  | { kind: 'nothing' }
export type Panes = '3d' | 'plan' | 'both' | 'elevation' | 'section' | 'four'
export const LABELS = ['use and area', 'name and area', 'area', 'name, use and area'] as const
export type LabelSays = (typeof LABELS)[number]
/** How schemes stand beside one another on the stage. */
export type Beside = '3d' | 'plan'
/** The dialog that is open over the desk. */
export type OpenDialog = 'find' | 'export' | 'import' | 'shortcuts' | 'restore-points' | null
/** A picture worked on at the bench, and at what. */
export type BenchTask = 'calibrate' | 'measure' | 'trace' | 'levels' | 'crop'
/** What the stage shows, and how: what a kept view says of itself. */
export type Shows = KeptView['shows']
/** what is compared with where it is all other schemes */
export const ALL_SCHEMES = 'all'

/** What the panel at the right shows besides the picked thing. */
export type Sheet = 'trials' | 'ledger' | 'brief' | 'target' | 'findings' | 'compare' | 'levels' | null

/** A result of the worker: its view, how far the project had come (selectReached), and what was tried on top of it. */
interface Result {
  view: StoredView
  edit: string | null
  trying: Edit | null
}

export interface ViewState {
  scheme: string | null
  picked: Picked
  /** faces, edges or corners of the picked masses */
  spots: Spot[]
  /** what a click on the stage picks */
  picks: 'mass' | Spot['kind']
  /** storeys chosen in the spine for what is done with the picked masses; none: all of it */
  storeys: string[]
  /** the first picked face as it stands, once it is known */
  face: FaceAt | null
  /** the level whose floor is looked at: the blade stands there, the plan shows it */
  level: string | null
  panes: Panes
  /** schemes side by side on the stage; null: only the one that is worked on */
  beside: Beside | null
  /** what the pointer does on the stage; null: it picks */
  tool: Taken | null
  sheet: Sheet
  dialog: OpenDialog
  study: StoredView | null
  /** m2 in all before the last edit, and after it: what a gesture under way is compared with */
  before: number | null
  after: number | null
  /** the edit that made this change */ changedBy: string | null
  /** what is tried is being typed: half of a number may stand for the whole */ typing: boolean
  /** raised whenever a result is shown, and how far the project had come: what a drag, and whoever waits, is measured by */
  shown: { count: number; edit: string | null; trying: Edit | null }
  refused: string | null
  /** how much is done of what takes long, 0 to 1; null while nothing does */
  computing: number | null
  /** the computation was left off by hand: what is shown is of before */
  stopped: boolean
  proposing: { masses: string[] | null; choices: Choices } | null
  /** the scheme that the figures are compared with, or ALL_SCHEMES */
  compare: string | null
  shows: Shows
  /** what the labels of plates say */
  labelSays: LabelSays
  /** things that are not shown, by id */
  hidden: string[]
  /** masses that cannot be picked in the stage, by id */
  locked: string[]
  /** the kept view that is looked at; null once anything of it was changed here */
  kept: string | null
  /** whether the panel of kept views is open */
  viewsOpen: boolean
  /** what is lit up on a level while a list is walked; regions from the view's origin */
  lit: Lit | null
  /** the side of the site whose field has the focus, from 0 as sides are listed */ siteSide: number | null
  hover: string | null
  /** what of a mass would be picked */
  hoverSpot: Spot | null
  /**
   * a height typed for a level in the spine (its value in m, and what is stored), while it is not decided whether those above go with it
   */
  moving: { level: string; height: number; num: Num } | null
  /** degrees that the elevation is looked at from, and the plane that the section is cut by */
  elevation: number
  section: Upright | null
  /** another level whose plan is shown faintly under the one that is worked on */
  behind: string | null
  bench: { picture: string; task: BenchTask } | null
  /** the part of the Ground desk that its details show */
  ground: GroundPart
  /** the step of a rule whose values are looked at, and which of them the pointer is on */
  looking: { rule: string; step: string; key: string | null } | null
}
/** Regions on a level: what a figure is made of, or what only one of two schemes has there. */
export interface Lit {
  level: string
  on: Region
  off: Region
}
export type GroundPart = 'project' | 'site' | 'terrain' | 'pictures'

const initialState: ViewState = {
  scheme: null,
  picked: { kind: 'nothing' },
  spots: [],
  picks: 'mass',
  storeys: [],
  face: null,
  level: null,
  panes: 'both',
  beside: null,
  tool: null,
  sheet: null,
  dialog: null,
  study: null,
  before: null,
  after: null,
  changedBy: null,
  typing: false,
  shown: { count: 0, edit: null, trying: null },
  refused: null,
  computing: null,
  stopped: false,
  proposing: null,
  lit: null,
  siteSide: null,
  hover: null,
  hoverSpot: null,
  moving: null,
  compare: null,
  shows: {
    masses: 'solid',
    fabric: true,
    context: true,
    labels: true,
    materials: false,
    levels: 'marks',
    pictures: true,
    terrain: true,
    envelope: true,
  },
  labelSays: 'use and area',
  hidden: [],
  locked: [],
  kept: null,
  viewsOpen: false,
  elevation: -90,
  section: null,
  behind: null,
  bench: null,
  ground: 'site',
  looking: null,
}

const slice = createSlice({
  name: 'view',
  initialState,
  reducers: {
    left: () => initialState,
    /** Another scheme is worked on; what was picked and compared belongs to the old one. */
    schemeShown: (state, { payload }: PayloadAction<string>) => ({
      ...state,
      scheme: payload,
      picked: { kind: 'nothing' as const },
      spots: [],
      storeys: [],
      face: null,
      level: null,
      before: null,
      after: null,
      changedBy: null,
      proposing: null,
      moving: null,
      tool: null,
      compare: state.compare === payload ? null : state.compare,
      hidden: [],
      locked: [],
      kept: null,
    }),
    compared: (state, { payload }: PayloadAction<string | null>) => ({ ...state, compare: payload }),
    showsChanged: (state, { payload }: PayloadAction<Partial<Shows>>) => ({
      ...state,
      shows: { ...state.shows, ...payload },
      kept: null,
    }),
    labelsChosen: (state, { payload }: PayloadAction<LabelSays>) => ({ ...state, labelSays: payload }),
    thingsHidden: (state, { payload }: PayloadAction<string[]>) => ({ ...state, hidden: payload, kept: null }),
    massesLocked: (state, { payload }: PayloadAction<string[]>) => ({ ...state, locked: payload }),
    keptOpened: (state, { payload }: PayloadAction<KeptView>) => ({
      ...state,
      kept: payload.id,
      shows: payload.shows,
      hidden: payload.hidden,
      level: payload.blade ?? state.level,
      panes: payload.pane,
      elevation: payload.pane === 'elevation' && payload.upright ? payload.upright.azimuth : state.elevation,
      section: payload.pane === 'section' ? payload.upright : state.section,
    }),
    elevationFrom: (state, { payload }: PayloadAction<number>) => ({ ...state, elevation: payload, kept: null }),
    sectionAt: (state, { payload }: PayloadAction<Upright>) => ({ ...state, section: payload, kept: null }),
    behindChosen: (state, { payload }: PayloadAction<string | null>) => ({ ...state, behind: payload }),
    benchOpened: (state, { payload }: PayloadAction<ViewState['bench']>) => ({ ...state, bench: payload, tool: null }),
    groundShown: (state, { payload }: PayloadAction<GroundPart>) => ({ ...state, ground: payload }),
    viewsToggled: (state, { payload }: PayloadAction<boolean>) => ({ ...state, viewsOpen: payload }),
    lookedAt: (state, { payload }: PayloadAction<ViewState['looking']>) => ({ ...state, looking: payload }),
    picked: (state, { payload }: PayloadAction<Picked>) => ({
      ...state,
      picked: payload,
      looking: payload.kind === 'rule' && payload.ids[0] === state.looking?.rule ? state.looking : null,
      spots: [],
      face: null,
      storeys: payload.kind === 'mass' && state.picked.kind === 'mass' ? state.storeys : [],
    }),
    /** Faces, edges or corners are picked, and with them their masses. */
    spotsPicked: (state, { payload }: PayloadAction<Spot[]>) => ({
      ...state,
      picked: payload.length
        ? { kind: 'mass' as const, ids: [...new Set(payload.map((s) => s.mass))] }
        : { kind: 'nothing' as const },
      spots: payload,
      face: null,
    }),
    picksChosen: (state, { payload }: PayloadAction<ViewState['picks']>) => ({
      ...state,
      picks: payload,
      spots: [],
      face: null,
      hoverSpot: null,
    }),
    storeysChosen: (state, { payload }: PayloadAction<string[]>) => ({ ...state, storeys: payload }),
    faceSeen: (state, { payload }: PayloadAction<FaceAt | null>) => ({ ...state, face: payload }),
    spotHovered: (state, { payload }: PayloadAction<Spot | null>) =>
      state.hoverSpot === payload || (state.hoverSpot && payload && sameSpot(state.hoverSpot, payload))
        ? state
        : { ...state, hoverSpot: payload },
    levelShown: (state, { payload }: PayloadAction<string | null>) => ({ ...state, level: payload }),
    panesChosen: (state, { payload }: PayloadAction<Panes>) => ({ ...state, panes: payload, beside: null }),
    setBeside: (state, { payload }: PayloadAction<Beside | null>) => ({ ...state, beside: payload, tool: null }),
    toolTaken: (state, { payload }: PayloadAction<Taken | null>) => ({ ...state, tool: payload }),
    dialogOpened: (state, { payload }: PayloadAction<OpenDialog>) => ({ ...state, dialog: payload }),
    sheetOpened: (state, { payload }: PayloadAction<Sheet>) => ({ ...state, sheet: payload, lit: null }),
    litUp: (state, { payload }: PayloadAction<Lit | null>) => ({ ...state, lit: payload }),
    siteSideLit: (state, { payload }: PayloadAction<number | null>) => ({ ...state, siteSide: payload }),
    levelMoved: (state, { payload }: PayloadAction<ViewState['moving']>) => ({ ...state, moving: payload }),
    hovered: (state, { payload }: PayloadAction<string | null>) =>
      state.hover === payload ? state : { ...state, hover: payload },
    proposed: (state, { payload }: PayloadAction<ViewState['proposing']>) => ({ ...state, proposing: payload }),
    computed: (state, { payload }: PayloadAction<Result>) => {
      const { view, edit, trying } = payload
      const settled = trying === null
      const shown = { count: state.shown.count + 1, edit: settled ? edit : null, trying }
      const { area } = view.ledger.totals
      if (!settled) return { ...state, study: view, shown, refused: null }
      const isSameScheme = state.after !== null && state.study?.scheme === view.scheme
      // A change belongs to one edit, and ends with the next one, whatever that does.
      const before = !isSameScheme ? null : edit === state.changedBy ? state.before : state.after
      return { ...state, study: view, shown, before, after: area, changedBy: edit, refused: null }
    },
    typed: (state, { payload }: PayloadAction<boolean>) =>
      state.typing === payload ? state : { ...state, typing: payload },
    computing: (state, { payload }: PayloadAction<number | null>) => ({ ...state, computing: payload }),
    leftOff: (state, { payload }: PayloadAction<boolean>) => ({ ...state, stopped: payload }),
    computationRefused: (state, { payload }: PayloadAction<{ say: string; edit: string | null }>) => ({
      ...state,
      refused: payload.say,
      shown: { ...state.shown, edit: payload.edit },
    }),
  },
  // What was tried is made, or let go.
  extraReducers: (on) => on.addCase(made, (state) => ({ ...state, shown: { ...state.shown, trying: null } })),
})

export const {
  left,
  lookedAt,
  schemeShown,
  compared,
  showsChanged,
  labelsChosen,
  thingsHidden,
  massesLocked,
  keptOpened,
  elevationFrom,
  sectionAt,
  behindChosen,
  benchOpened,
  groundShown,
  viewsToggled,
  picked,
  spotsPicked,
  picksChosen,
  storeysChosen,
  faceSeen,
  spotHovered,
  levelShown,
  panesChosen,
  setBeside,
  toolTaken,
  dialogOpened,
  sheetOpened,
  litUp,
  siteSideLit,
  typed,
  levelMoved,
  hovered,
  proposed,
  computed,
  computing,
  leftOff,
  computationRefused,
} = slice.actions
export const viewReducer = slice.reducer

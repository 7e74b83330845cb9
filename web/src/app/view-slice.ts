import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import type { StoredView } from '../stage/geometry-store'

export type Picked = { kind: 'mass'; ids: string[] } | { kind: 'level'; ids: string[] } | { kind: 'part'; ids: string[] } | { kind: 'nothing' }
export type Panes = '3d' | 'plan' | 'both'
/** What the pointer does on the stage; null: it picks. */
export type Tool = 'rectangle' | 'polygon' | 'move' | 'turn' | 'corner' | 'join' | null
/** What the panel at the right shows besides the picked thing. */
export type Sheet = 'ledger' | 'findings' | null

interface ViewState {
  scheme: string | null
  picked: Picked
  /** the level whose floor is looked at: the blade stands there, the plan shows it */
  level: string | null
  panes: Panes
  tool: Tool
  sheet: Sheet
  study: StoredView | null
  /** m2 in all before the last edit that changed it, and after it: what a gesture under way is compared with */
  before: number | null
  after: number | null
  refused: string | null
  computing: boolean
  proposing: { masses: string[] | null; wall: string; slab: string; roof: string; wallSide: 'inside' | 'outside'; overhang: number } | null
  hover: string | null
  /** a height (m) typed for a level in the spine, while it is not decided whether those above go with it */
  moving: { level: string; height: number } | null
}

const initialState: ViewState = { scheme: null, picked: { kind: 'nothing' }, level: null, panes: 'both', tool: null, sheet: null, study: null, before: null, after: null, refused: null, computing: false, proposing: null, hover: null, moving: null }

const slice = createSlice({
  name: 'view',
  initialState,
  reducers: {
    left: () => initialState,
    picked: (state, { payload }: PayloadAction<Picked>) => ({ ...state, picked: payload }),
    levelShown: (state, { payload }: PayloadAction<string | null>) => ({ ...state, level: payload }),
    panesChosen: (state, { payload }: PayloadAction<Panes>) => ({ ...state, panes: payload }),
    toolTaken: (state, { payload }: PayloadAction<Tool>) => ({ ...state, tool: payload }),
    sheetOpened: (state, { payload }: PayloadAction<Sheet>) => ({ ...state, sheet: payload }),
    levelMoved: (state, { payload }: PayloadAction<ViewState['moving']>) => ({ ...state, moving: payload }),
    hovered: (state, { payload }: PayloadAction<string | null>) => (state.hover === payload ? state : { ...state, hover: payload }),
    proposed: (state, { payload }: PayloadAction<ViewState['proposing']>) => ({ ...state, proposing: payload }),
    computed: (state, { payload }: PayloadAction<{ view: StoredView; settled: boolean }>) => {
      const { view, settled } = payload
      const { area } = view.ledger.totals
      if (!settled) return { ...state, study: view, refused: null }
      const changed = state.after !== null && state.study?.scheme === view.scheme && Math.abs(area - state.after) > 0.005
      return { ...state, study: view, before: changed ? state.after : state.before, after: area, refused: null }
    },
    computing: (state, { payload }: PayloadAction<boolean>) => ({ ...state, computing: payload }),
    computationRefused: (state, { payload }: PayloadAction<string>) => ({ ...state, refused: payload }),
  },
})

export const { left, picked, levelShown, panesChosen, toolTaken, sheetOpened, levelMoved, hovered, proposed, computed, computing, computationRefused } = slice.actions
export const viewReducer = slice.reducer

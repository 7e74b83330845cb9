import { createSelector, createSlice, type PayloadAction } from '@reduxjs/toolkit'
import { applyChecked, applyLogged, type Edit } from '@geotome/core/edits'
import { firstScheme } from '@geotome/core/study'
import { Refusal, type Project, type Scheme, thingOf } from '@geotome/core/project'
import type { History, LoggedEdit } from './api'

export interface PendingEdit {
  id: string
  label: string
  edit: Edit
}

/** An edit that the server did not take, kept here until it is tried again or let go. */
export interface RefusedEdit extends PendingEdit {
  /** the server's sentence */
  why: string
  /** what was to be put where; null: nothing that a sentence could say */
  value: string | null
}

interface ProjectState {
  /** as the server has acknowledged it */
  confirmed: Project | null
  seq: number
  /** what the log has brought since the project was opened; with the pending edits, the way from there to here */
  log: PendingEdit[]
  /** made here, not acknowledged yet; applied on top */
  pending: PendingEdit[]
  /** made here, and refused by the server, the last one last */
  refused: RefusedEdit[]
  /** somebody has taken the project away */
  gone: boolean
  /** tried while a gesture lasts */
  preview: Edit | null
  history: History
  saved: { state: 'saved' | 'saving' | 'away'; at: number | null }
  /** m2 of the first scheme as the project was when it was opened, computed by the server: shown until the first study is here */
  total: number | null
  /** the moment of the log that is looked at; null: the present, which can be changed */
  moment: number | null
}

const initialState: ProjectState = {
  total: null,
  confirmed: null,
  seq: 0,
  log: [],
  pending: [],
  refused: [],
  gone: false,
  preview: null,
  history: { undo: null, redo: null },
  saved: { state: 'saved', at: null },
  moment: null,
}

const slice = createSlice({
  name: 'project',
  initialState,
  reducers: {
    opened: (
      _state,
      {
        payload,
      }: PayloadAction<{ project: Project; seq: number; history: History; moment?: number; total?: number | null }>,
    ) => ({
      ...initialState,
      moment: payload.moment ?? null,
      confirmed: payload.project,
      seq: payload.seq,
      history: payload.history,
      total: payload.total ?? null,
    }),
    closed: () => initialState,
    made: (state, { payload }: PayloadAction<PendingEdit>) => ({
      ...state,
      pending: [...state.pending, payload],
      preview: null,
      history: { undo: payload.label, redo: null },
      saved: { ...state.saved, state: 'saving' as const },
    }),
    /** The server's log has gone on: by our own edits, or by another window's. */
    logged: (state, { payload }: PayloadAction<LoggedEdit[]>) => {
      let { confirmed, seq } = state
      let pending = state.pending
      const log = [...state.log]
      for (const entry of payload) {
        if (entry.seq !== seq + 1 || !confirmed) continue
        confirmed = applyLogged(confirmed, entry.edit)
        seq = entry.seq
        log.push({ id: entry.id, label: entry.label, edit: entry.edit })
        pending = pending.filter((p) => p.id !== entry.id)
      }
      return {
        ...state,
        confirmed,
        seq,
        log,
        pending,
        saved: pending.length ? state.saved : { state: 'saved' as const, at: Date.now() },
      }
    },
    /** No longer on its way: stored before this window was opened, or refused. The server has answered, so that it is not away. */
    dropped: (state, { payload }: PayloadAction<string>) => {
      const pending = state.pending.filter((p) => p.id !== payload)
      return {
        ...state,
        pending,
        saved: pending.length
          ? { ...state.saved, state: 'saving' as const }
          : { state: 'saved' as const, at: state.saved.at },
      }
    },
    refusedByServer: (state, { payload }: PayloadAction<RefusedEdit>) => ({
      ...state,
      refused: [...state.refused.filter((r) => r.id !== payload.id), payload],
    }),
    letRefusedGo: (state, { payload }: PayloadAction<string>) => ({
      ...state,
      refused: state.refused.filter((r) => r.id !== payload),
    }),
    /** The project was taken away, or brought back. */
    projectGone: (state, { payload }: PayloadAction<boolean>) => ({ ...state, gone: payload }),
    previewed: (state, { payload }: PayloadAction<Edit | null>) => ({ ...state, preview: payload }),
    historyRead: (state, { payload }: PayloadAction<History>) => ({ ...state, history: payload }),
    serverAway: (state, { payload }: PayloadAction<boolean>) => ({
      ...state,
      saved: {
        ...state.saved,
        state: payload ? ('away' as const) : state.pending.length ? ('saving' as const) : ('saved' as const),
      },
    }),
  },
})

export const {
  opened,
  closed,
  made,
  logged,
  dropped,
  refusedByServer,
  letRefusedGo,
  projectGone,
  previewed,
  historyRead,
  serverAway,
} = slice.actions
export const projectReducer = slice.reducer

type Root = { project: ProjectState; view: { scheme: string | null; shown: { trying: Edit | null } } }

/** The project as this window has it: acknowledged edits, then its own that are on their way. */
export const selectProject = createSelector(
  [(s: Root) => s.project.confirmed, (s: Root) => s.project.pending],
  (confirmed, pending): Project | null =>
    pending.reduce<Project | null>((project, { edit }) => (project ? tried(project, edit) : project), confirmed),
)

/**
 * How far the project has come since it was opened: how many edits, and the last. The last alone would not do: another's edit can come in
 * before one's own that is on its way.
 */
export const selectReached = ({ project: { log, pending, confirmed } }: Pick<Root, 'project'>): string => {
  const count = log.length + pending.length
  return `${count} ${(pending.at(-1) ?? log.at(-1) ?? confirmed)?.id ?? ''}`
}

/** The same with the gesture under way on it, as it is this very moment: what goes along under the pointer. */
export const selectTried = createSelector(
  [selectProject, (s: Root) => s.project.preview],
  (project, preview): Project | null => (project && preview ? tried(project, preview) : project),
)

/** The project without the gesture under way, and the scheme that is looked at: what a gesture begins from. */
export const selectPresent = createSelector(
  [selectProject, (s: Root) => s.view.scheme],
  (project, id): { project: Project; scheme: Scheme } | null =>
    project ? { project, scheme: schemeShown(project, id) } : null,
)

/**
 * The same with that much of the gesture under way as the figures that are shown were computed with: what lists and fields show,
 * so that a drag draws them once a result and not once a move.
 */
export const selectShown = createSelector(
  [selectProject, (s: Root) => (s.project.preview ? s.view.shown.trying : null)],
  (project, trying): Project | null => (project && trying ? tried(project, trying) : project),
)

export const selectScheme = createSelector([selectShown, (s: Root) => s.view.scheme], (project, id): Scheme | null =>
  project ? schemeShown(project, id) : null,
)

/** Project and scheme as they are shown. Only while a project is open. */
export function shownOf(s: Root): { project: Project; scheme: Scheme } {
  const [project, scheme] = [selectShown(s), selectScheme(s)]
  if (!project || !scheme) throw new Error('No project is open.')
  return { project, scheme }
}

/** The id of the scheme that is looked at. */
export const selectSchemeId = createSelector(
  [selectProject, (s: Root) => s.view.scheme],
  (project, id): string | null => (project ? schemeShown(project, id).id : null),
)

export const selectTriedScheme = createSelector(
  [selectTried, (s: Root) => s.view.scheme],
  (project, id): Scheme | null => (project ? schemeShown(project, id) : null),
)

/** Duplicated schemes hold things of the same ids: only its own id tells which one is meant. */
const schemeShown = (project: Project, id: string | null): Scheme =>
  (id ? thingOf(project.schemes, id) : undefined) ?? firstScheme(project)

/** An edit on its way that no longer fits is left out until the server has said so. What was tried last of a project is kept. */
function tried(project: Project, edit: Edit): Project {
  const known = triedOf.get(edit)
  if (known?.of === project) return known.is
  const is = triedAnew(project, edit)
  triedOf.set(edit, { of: project, is })
  return is
}
const triedOf = new WeakMap<Edit, { of: Project; is: Project }>()

function triedAnew(project: Project, edit: Edit): Project {
  try {
    return applyChecked(project, edit)
  } catch (e) {
    if (e instanceof Refusal) return project
    throw e
  }
}

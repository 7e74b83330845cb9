import {
  ClipboardList,
  Columns2,
  Crosshair,
  Download,
  Eye,
  Grid2x2,
  History,
  Keyboard,
  Layers,
  LayoutGrid,
  Maximize,
  Redo2,
  Search,
  SunMoon,
  Table2,
  TriangleAlert,
  Undo2,
  type LucideIcon,
} from 'lucide-react'
import { stepBack } from '../app/session'
import {
  dialogOpened,
  panesChosen,
  sheetOpened,
  viewsToggled,
  type OpenDialog,
  type Panes,
  type Sheet,
} from '../app/view-slice'
import { currentTheme, setTheme } from '../stage/theme'
import { DESK_NAMES, type Verb } from './kind'

/** A sheet is opened, and closed by the same key, at every desk; in the bar of those where it is worked with. */
const sheet = (label: string, icon: LucideIcon, key: string, which: NonNullable<Sheet>, help: string): Verb => ({
  label,
  icon,
  key,
  help,
  desks: 'all',
  on: ({ view }) => view.sheet === which,
  run: ({ view, dispatch }) => void dispatch(sheetOpened(view.sheet === which ? null : which)),
})

const dialog = (label: string, icon: LucideIcon, which: OpenDialog, key?: string): Verb => ({
  label,
  icon,
  ...(key ? { key } : {}),
  desks: 'all',
  run: ({ dispatch }) => void dispatch(dialogOpened(which)),
})

const panes = (label: string, which: Panes): Verb => ({
  label,
  icon: which === 'four' ? Grid2x2 : which === 'both' ? Columns2 : LayoutGrid,
  desks: 'all',
  on: ({ view }) => view.panes === which,
  run: ({ dispatch }) => void dispatch(panesChosen(which)),
})

export const LEDGER = sheet('Ledger', Table2, 'L', 'ledger', 'ledger')
export const BRIEF = sheet('Brief', ClipboardList, 'W', 'brief', 'brief')
export const TARGET = sheet('Meet a target', Crosshair, 'Z', 'target', 'meet a target')
export const FINDINGS = sheet('Findings', TriangleAlert, 'N', 'findings', 'findings')
export const FIND = dialog('Find any action, level, mass', Search, 'find', 'Ctrl K')
export const EXPORT = dialog('Export', Download, 'export')

export const EVERYWHERE_VERBS: readonly Verb[] = [
  { label: 'Undo', icon: Undo2, key: 'Ctrl Z', desks: 'all', run: () => void stepBack('undo') },
  { label: 'Redo', icon: Redo2, key: 'Ctrl Y', also: 'Ctrl Shift Z', desks: 'all', run: () => void stepBack('redo') },
  FIND,
  dialog('Restore points', History, 'restore-points'),
  dialog('Shortcuts', Keyboard, 'shortcuts', '?'),
  LEDGER,
  BRIEF,
  TARGET,
  FINDINGS,
  sheet('Table of levels', Table2, 'T', 'levels', 'table of levels'),
  EXPORT,
  {
    label: 'Kept views and what is shown',
    icon: Eye,
    key: 'V',
    desks: 'all',
    run: ({ view, dispatch }) => void dispatch(viewsToggled(!view.viewsOpen)),
  },
  {
    label: 'Show all',
    icon: Maximize,
    key: 'F',
    desks: 'all',
    run: () => document.querySelector<HTMLButtonElement>('[data-fit]')?.click(),
  },
  {
    label: 'Dark or light theme',
    icon: SunMoon,
    desks: 'all',
    run: () => setTheme(currentTheme() === 'paper' ? 'ink' : 'paper'),
  },
  panes('3D view', '3d'),
  panes('Plan view', 'plan'),
  panes('3D and plan side by side', 'both'),
  panes('Elevation', 'elevation'),
  panes('Section and plan', 'section'),
  panes('Four views', 'four'),
  ...DESK_NAMES.map((desk, i): Verb => ({
    label: `${desk[0]?.toUpperCase()}${desk.slice(1)} desk`,
    icon: Layers,
    key: String(i + 1),
    help: '',
    desks: 'all',
    // While something is drawn digits are lengths.
    off: ({ view }) => (view.tool || view.bench ? 'First put down what is in hand (Escape)' : null),
    run: ({ go }) => go(desk),
  })),
]

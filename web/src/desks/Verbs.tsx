import {
  AlignEndHorizontal,
  Building,
  Building2,
  Circle,
  CircleDashed,
  Download,
  FileUp,
  ImagePlus,
  LandPlot,
  Link2,
  PenTool,
  Square,
  Table2,
  Trash2,
  TriangleAlert,
  Home,
  Ruler,
  Scaling,
  Spline,
  type LucideIcon,
} from 'lucide-react'
import { usualChoices } from '@geotome/core/fabric'
import { joinMasses, massOf, ridgeAlongOf, setPitch } from '@geotome/core/form'
import { numbersOf } from '@geotome/core/project'
import { usePickedMasses, useProject, useStudy, useViewState } from '../app/hooks'
import { makeEdit } from '../app/session'
import { makeComputedEdit } from '../app/study-loop'
import { useAppDispatch } from '../app/store'
import {
  benchOpened,
  groundShown,
  picked,
  proposed,
  holeBegun,
  sheetOpened,
  toolTaken,
  type BenchTask,
} from '../app/view-slice'
import { deleteMasses } from '../form/delete-masses'
import { studyWorker } from '../worker/client'

export interface Verb {
  label: string
  icon: LucideIcon
  key?: string
  on?: boolean
  off?: string | null
  run: () => void
}

/** The actions of a desk, as words with icons; one line above says what is wanted next. */
export function Verbs({
  desk,
  hint,
  onExport,
  onImport,
}: {
  desk: string
  hint: string | null
  onExport: () => void
  onImport: () => void
}) {
  const verbs = useVerbs(desk, onExport, onImport)
  return (
    <div className="pointer-events-none absolute inset-x-0 bottom-4 z-10 flex flex-col items-center gap-2">
      <p className="rounded bg-paper/85 px-2 text-[12px] text-ink2" role="status" data-hint>
        {hint}
      </p>
      <div
        role="toolbar"
        aria-label="Verbs"
        className="pointer-events-auto flex gap-0.5 rounded-[10px] border border-line bg-panel p-1 shadow-[0_1px_3px_rgba(0,0,0,0.06)]"
      >
        {verbs.map((v) => (
          <button
            key={v.label}
            disabled={!!v.off}
            title={v.off ?? (v.key ? `${v.label} (${v.key})` : v.label)}
            aria-pressed={v.on ?? undefined}
            onClick={v.run}
            className={`flex h-9 cursor-pointer items-center gap-2 rounded-md px-2.5 font-medium disabled:cursor-default disabled:opacity-40 ${v.on ? 'bg-ink text-paper' : 'hover:bg-field'}`}
          >
            <v.icon size={15} strokeWidth={1.7} /> {v.label}
          </button>
        ))}
      </div>
    </div>
  )
}

export function useVerbs(desk: string, onExport: () => void, onImport: () => void): Verb[] {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const study = useStudy()
  const masses = usePickedMasses()
  const { tool, holeIn, sheet, proposing, picked: now } = useViewState('tool', 'holeIn', 'sheet', 'proposing', 'picked')
  const one = masses.length === 1 ? masses[0] : undefined
  const exporting: Verb = { label: 'Export', icon: Download, run: onExport }
  const sheets: Verb[] = [
    {
      label: 'Ledger',
      icon: Table2,
      key: 'L',
      on: sheet === 'ledger',
      run: () => dispatch(sheetOpened(sheet === 'ledger' ? null : 'ledger')),
    },
    {
      label: 'Findings',
      icon: TriangleAlert,
      key: 'N',
      on: sheet === 'findings',
      run: () => dispatch(sheetOpened(sheet === 'findings' ? null : 'findings')),
    },
  ]
  switch (desk) {
    case 'ground': {
      const on =
        now.kind === 'picture'
          ? (now.ids[0] ?? null)
          : Object.keys(project.pictures).length === 1
            ? (Object.keys(project.pictures)[0] ?? null)
            : null
      const none = on ? null : 'Pick a picture first, or add one'
      const bench = (task: BenchTask) => {
        if (on) {
          dispatch(groundShown('pictures'))
          dispatch(picked({ kind: 'picture', ids: [on] }))
          dispatch(benchOpened({ picture: on, task }))
        }
      }
      return [
        {
          label: 'Site',
          icon: LandPlot,
          key: 'S',
          on: tool === 'site',
          run: () => {
            dispatch(groundShown('site'))
            dispatch(picked({ kind: 'nothing' }))
            dispatch(toolTaken(tool === 'site' ? null : 'site'))
          },
        },
        {
          label: 'Neighbour',
          icon: Building,
          key: 'B',
          on: tool === 'neighbour',
          run: () => {
            dispatch(groundShown('terrain'))
            dispatch(picked({ kind: 'nothing' }))
            dispatch(toolTaken(tool === 'neighbour' ? null : 'neighbour'))
          },
        },
        {
          label: 'Picture',
          icon: ImagePlus,
          key: 'P',
          run: () => {
            dispatch(groundShown('pictures'))
            dispatch(picked({ kind: 'nothing' }))
            setTimeout(() => document.querySelector<HTMLInputElement>('input[aria-label="Picture file"]')?.click())
          },
        },
        { label: 'Calibrate', icon: Scaling, key: 'C', off: none, run: () => bench('calibrate') },
        { label: 'Trace', icon: Spline, key: 'X', off: none, run: () => bench('trace') },
        { label: 'Levels', icon: AlignEndHorizontal, key: 'H', off: none, run: () => bench('levels') },
        {
          label: 'Measure',
          icon: Ruler,
          key: 'M',
          on: tool === 'measure',
          run: () => {
            dispatch(groundShown('pictures'))
            dispatch(picked({ kind: 'nothing' }))
            dispatch(toolTaken(tool === 'measure' ? null : 'measure'))
          },
        },
      ]
    }
    case 'form':
      return [
        {
          label: 'Rectangle',
          icon: Square,
          key: 'R',
          on: tool === 'rectangle',
          run: () => dispatch(toolTaken(tool === 'rectangle' ? null : 'rectangle')),
        },
        {
          label: 'Polygon',
          icon: PenTool,
          key: 'P',
          on: tool === 'polygon',
          run: () => dispatch(toolTaken(tool === 'polygon' ? null : 'polygon')),
        },
        {
          label: 'Circle',
          icon: Circle,
          key: 'C',
          on: tool === 'circle' && !holeIn,
          run: () => dispatch(toolTaken(tool === 'circle' && !holeIn ? null : 'circle')),
        },
        {
          label: 'Hole',
          icon: CircleDashed,
          key: 'H',
          on: holeIn !== null,
          off: holeIn || (one && one.recipe[0]?.move === 'outline') ? null : 'Pick one drawn mass first',
          run: () => {
            if (holeIn) dispatch(toolTaken(null))
            else if (one) dispatch(holeBegun(one.id))
          },
        },
        {
          label: 'Pitch',
          icon: Home,
          key: 'G',
          off: one
            ? one.recipe.some((m) => m.move === 'pitch')
              ? 'It has a pitch: change it in the details'
              : null
            : 'Pick one mass first',
          run: () => {
            if (one)
              makeEdit(`pitch ${one.name}`, () =>
                setPitch(scheme, one, () => crypto.randomUUID(), {
                  angle: 35,
                  direction: ridgeAlongOf(one.recipe, numbersOf(project, scheme)),
                }),
              )
          },
        },
        {
          label: 'Join',
          icon: Link2,
          key: 'J',
          off: masses.length === 2 ? null : 'Pick two masses first: click one, Shift-click the other',
          run: () => {
            const [a, b] = masses
            if (
              a &&
              b &&
              makeEdit(`join ${massOf(scheme, b.id).name} to ${a.name}`, () =>
                joinMasses(project, scheme, () => crypto.randomUUID(), a.id, b.id),
              )
            )
              dispatch(picked({ kind: 'mass', ids: [a.id] }))
          },
        },
        { label: 'Import', icon: FileUp, run: onImport },
        {
          label: 'Delete',
          icon: Trash2,
          key: 'Delete',
          off: masses.length ? null : 'Pick a mass first',
          run: () => void deleteMasses(masses.map((m) => m.id)),
        },
      ]
    case 'slice':
      return [...sheets, exporting]
    case 'fabric': {
      const drifted = study?.parts.filter((p) => p.bond.status === 'drifted' && !p.bond.left).length ?? 0
      return [
        {
          label: 'Make building',
          icon: Building2,
          key: 'B',
          on: proposing !== null,
          off: study?.masses.length ? null : 'Draw a mass at the Form desk first',
          run: () =>
            dispatch(
              proposed(
                proposing
                  ? null
                  : { masses: masses.length ? masses.map((m) => m.id) : null, choices: usualChoices(project) },
              ),
            ),
        },
        {
          label: drifted ? `Bring ${drifted} in line` : 'Bring in line',
          icon: Ruler,
          key: 'I',
          off: drifted ? null : 'No part has drifted',
          run: () =>
            void makeComputedEdit(`bring ${drifted} parts in line`, () => studyWorker.bringInLine(scheme.id, null)),
        },
        ...sheets,
        exporting,
      ]
    }
    default:
      return []
  }
}

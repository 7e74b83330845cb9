import {
  AlignEndHorizontal,
  Building,
  ImagePlus,
  LandPlot,
  Ruler,
  Scaling,
  Spline,
  type LucideIcon,
} from 'lucide-react'
import { benchOpened, groundShown, picked, toolTaken, type BenchTask, type GroundPart } from '../app/view-slice'
import type { Taken } from '../tools/kind'
import type { Now, Verb } from './kind'

/** The picture that is picked, or the only one. */
function pictureOf({ view, project }: Now): string | null {
  if (view.picked.kind === 'picture') return view.picked.ids[0] ?? null
  const all = Object.keys(project.pictures)
  return all.length === 1 ? (all[0] ?? null) : null
}

const show = ({ dispatch }: Now, part: GroundPart) => {
  dispatch(groundShown(part))
  dispatch(picked({ kind: 'nothing' }))
}

const isTaken = ({ view }: Now, taken: Taken) => view.tool?.tool === taken.tool && view.tool.becomes === taken.becomes

const takes = (label: string, icon: LucideIcon, key: string, taken: Taken, part: GroundPart, help: string): Verb => ({
  label,
  icon,
  key,
  help,
  desks: ['ground'],
  on: (now) => isTaken(now, taken),
  run: (now) => {
    const was = isTaken(now, taken)
    show(now, part)
    now.dispatch(toolTaken(was ? null : taken))
  },
})

const onBench = (label: string, icon: LucideIcon, key: string, task: BenchTask, help: string): Verb => ({
  label,
  icon,
  key,
  help,
  desks: ['ground'],
  off: (now) => (pictureOf(now) ? null : 'Pick a picture first, or add one'),
  run: (now) => {
    const picture = pictureOf(now)
    if (!picture) return
    now.dispatch(groundShown('pictures'))
    now.dispatch(picked({ kind: 'picture', ids: [picture] }))
    now.dispatch(benchOpened({ picture, task }))
  },
})

export const GROUND_VERBS: readonly Verb[] = [
  takes('Site', LandPlot, 'S', { tool: 'polygon', becomes: 'site' }, 'site', 'draw the site'),
  takes('Neighbour', Building, 'B', { tool: 'polygon', becomes: 'neighbour' }, 'terrain', 'draw a neighbour'),
  {
    label: 'Picture',
    icon: ImagePlus,
    key: 'P',
    desks: ['ground'],
    help: 'add a picture',
    run: (now) => {
      show(now, 'pictures')
      setTimeout(() => document.querySelector<HTMLInputElement>('input[aria-label="Picture file"]')?.click())
    },
  },
  onBench('Calibrate', Scaling, 'C', 'calibrate', 'calibrate the picture'),
  onBench('Trace', Spline, 'X', 'trace', 'trace on the picture'),
  onBench('Levels', AlignEndHorizontal, 'H', 'levels', 'read levels from the picture'),
  takes('Measure', Ruler, 'M', { tool: 'measure' }, 'pictures', 'measure on the model'),
]

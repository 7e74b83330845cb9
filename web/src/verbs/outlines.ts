import {
  Circle,
  CircleDashed,
  Copy,
  FileUp,
  LandPlot,
  Layers,
  PanelTop,
  PenTool,
  RectangleVertical,
  Square,
  type LucideIcon,
} from 'lucide-react'
import { massFromFace, massFromRegion, massSetOff } from '@geotome/core/form'
import { levelHeights } from '@geotome/core/levels'
import { inOrder, namesOf, numberedName, tidy } from '@geotome/core/project'
import type { Region, Vec2 } from '@geotome/core/solid'
import { makeEdit } from '../app/session'
import { dialogOpened, picked, toolTaken } from '../app/view-slice'
import type { Taken } from '../tools/kind'
import type { Now, Verb } from './kind'

export const OUTLINE = 'Outline'
const mint = () => crypto.randomUUID()
const one = (now: Now) => (now.masses.length === 1 ? now.masses[0] : undefined)

/** What a drawing tool draws now: a hole while one is drawn, a patch where a flat face is picked, else a mass. */
export function drawnNow({ view }: Now): Omit<Taken, 'tool'> {
  if (view.tool?.becomes === 'hole' || view.tool?.on) return view.tool
  const { face } = view
  return face?.frame && view.spots.length === 1
    ? {
        becomes: 'patch',
        of: face.mass,
        on: {
          kind: 'face',
          mass: face.mass,
          face: face.face,
          label: face.label,
          frame: face.frame,
          region: face.region,
        },
      }
    : { becomes: 'mass' }
}

const isOn = ({ view }: Now, tool: string) => view.tool?.tool === tool && view.tool.becomes !== 'hole'

/** A way to draw: a mass, or what is drawn at the moment. */
const drawing = (label: string, tool: string, icon: LucideIcon, key: string): Verb => ({
  label,
  icon,
  key,
  desks: ['form'],
  on: (now) => isOn(now, tool),
  run: (now) => void now.dispatch(toolTaken(isOn(now, tool) ? null : { ...drawnNow(now), tool })),
})

const inHole = (now: Now) => now.view.tool?.becomes === 'hole'

/** m from the level that is looked at to the one above it */
function storeyHigh({ project, scheme, view }: Now): number {
  const levels = levelHeights(project, scheme)
  const here = levels.find((l) => l.id === view.level)?.height ?? 0
  const above = levels.find((l) => l.height > here + 1e-3)
  return above ? tidy(above.height - here) : 3
}

/** Makes a mass on the level that is looked at, and picks it. */
function make(
  now: Now,
  label: string,
  from: (to: { name: string; use: string; level: string }) => ReturnType<typeof massFromRegion>,
) {
  const { project, scheme, view, dispatch } = now
  const to = {
    name: numberedName('Mass', namesOf(scheme.masses), Object.keys(scheme.masses).length + 1),
    use: one(now)?.use ?? inOrder(project.uses)[0]?.id ?? '',
    level: view.level ?? '',
  }
  const made: { id?: string } = {}
  const edit = () => {
    const e = from(to)
    if (e.edit === 'mass.add') made.id = e.thing.id
    return e
  }
  if (makeEdit(label, edit) && made.id) dispatch(picked({ kind: 'mass', ids: [made.id] }))
}

const fromOrigin = ({ view }: Now, region: Region): Region => {
  const [ox, oy] = view.study?.origin ?? [0, 0]
  return region.map((l) => l.map(([x, y]): Vec2 => [x + ox, y + oy]))
}
/** The plate of the picked mass at the level that is looked at. */
const plateOf = (now: Now): Region => {
  const { study, level } = now.view
  const plates = study?.floors.find((f) => f.level === level)?.plates ?? []
  return plates.filter((p) => p.mass === one(now)?.id).flatMap((p) => p.region)
}

/** The ways to an outline, and those of them that stand in the bar. */
export const DRAWING_VERBS: readonly Verb[] = [
  drawing('Rectangle', 'rectangle', Square, 'R'),
  drawing('Polygon', 'polygon', PenTool, 'P'),
  drawing('Circle', 'circle', Circle, 'C'),
]

export const OUTLINE_VERBS: readonly Verb[] = [
  {
    label: 'Hole',
    icon: CircleDashed,
    key: 'H',
    under: OUTLINE,
    desks: ['form'],
    help: 'hole in the picked mass',
    on: inHole,
    off: (now) => (inHole(now) || one(now)?.recipe[0]?.move === 'outline' ? null : 'Pick one drawn mass first'),
    run: (now) => {
      const mass = one(now)
      if (inHole(now)) now.dispatch(toolTaken(null))
      else if (mass) now.dispatch(toolTaken({ tool: 'circle', becomes: 'hole', of: mass.id }))
    },
  },
  {
    label: 'On an upright plane',
    icon: RectangleVertical,
    key: 'U',
    under: OUTLINE,
    desks: ['form'],
    help: 'draw on an upright plane',
    on: ({ view }) => view.tool?.tool === 'upright' || view.tool?.on?.kind === 'upright',
    run: ({ view, dispatch }) => void dispatch(toolTaken(view.tool ? null : { tool: 'upright' })),
  },
  {
    label: 'From the picked face',
    icon: PanelTop,
    under: OUTLINE,
    desks: ['form'],
    help: '',
    off: ({ view }) => (view.face?.frame ? null : 'Pick a flat face first'),
    run: (now) => {
      const { face } = now.view
      const levelHeight = levelHeights(now.project, now.scheme).find((l) => l.id === now.view.level)?.height ?? 0
      if (face)
        make(now, 'mass from a face', (to) =>
          massFromFace(now.project, now.scheme, mint, { ...to, levelHeight, face, by: storeyHigh(now) }),
        )
    },
  },
  {
    label: 'From the plate of the picked mass',
    icon: Layers,
    under: OUTLINE,
    desks: ['form'],
    help: '',
    off: (now) => (plateOf(now).length ? null : 'Pick a mass that has a floor at the level that is looked at'),
    run: (now) =>
      make(now, 'form from a plate', (to) =>
        massFromRegion(now.scheme, mint, {
          ...to,
          name: `${one(now)?.name ?? 'Mass'}, plate`,
          height: storeyHigh(now),
          region: fromOrigin(now, plateOf(now)),
        }),
      ),
  },
  {
    label: 'Set off from the picked mass',
    icon: Copy,
    under: OUTLINE,
    desks: ['form'],
    help: '',
    off: (now) => (one(now)?.recipe[0]?.move === 'outline' ? null : 'Pick one drawn mass first'),
    run: (now) => {
      const mass = one(now)
      if (mass) make(now, `set off from ${mass.name}`, () => massSetOff(now.scheme, mint, mass.id, 1))
    },
  },
  {
    label: 'From the buildable area',
    icon: LandPlot,
    under: OUTLINE,
    desks: ['form'],
    help: '',
    off: ({ view }) => (view.study?.ground.envelope?.region.length ? null : 'Draw a site at the Ground desk first'),
    run: (now) =>
      make(now, 'mass from the buildable area', (to) =>
        massFromRegion(now.scheme, mint, {
          ...to,
          height: storeyHigh(now),
          region: fromOrigin(now, now.view.study?.ground.envelope?.region ?? []),
        }),
      ),
  },
  {
    label: 'A body from a file',
    icon: FileUp,
    under: OUTLINE,
    desks: ['form'],
    help: '',
    run: ({ dispatch }) => void dispatch(dialogOpened('import')),
  },
]

import { Circle, CircleDashed, FileUp, Home, Link2, PenTool, Square, Trash2, type LucideIcon } from 'lucide-react'
import { joinMasses, massOf, ridgeAlongOf, setPitch } from '@geotome/core/form'
import { numbersOf } from '@geotome/core/project'
import { makeEdit } from '../app/session'
import { dialogOpened, picked, toolTaken } from '../app/view-slice'
import { deleteMasses } from './delete-masses'
import type { Now, Verb } from './kind'

const one = (now: Now) => (now.masses.length === 1 ? now.masses[0] : undefined)
const inHole = (now: Now) => now.view.tool?.becomes === 'hole'

/** A way to draw; while a hole is drawn it draws that. */
const drawing = (label: string, tool: string, icon: LucideIcon, key: string): Verb => ({
  label,
  icon,
  key,
  desks: ['form'],
  on: ({ view }) => view.tool?.tool === tool && view.tool.becomes !== 'hole',
  run: ({ view, dispatch }) =>
    void dispatch(
      toolTaken(
        view.tool?.tool === tool && view.tool.becomes !== 'hole'
          ? null
          : view.tool?.becomes === 'hole'
            ? { ...view.tool, tool }
            : { tool, becomes: 'mass' },
      ),
    ),
})

/** Two picked masses become one. */
export function joinPicked({ project, scheme, dispatch }: Pick<Now, 'project' | 'scheme' | 'dispatch'>, ids: string[]) {
  const [a, b] = ids
  if (!a || !b) return
  const label = `join ${massOf(scheme, b).name} to ${massOf(scheme, a).name}`
  if (makeEdit(label, () => joinMasses(project, scheme, () => crypto.randomUUID(), a, b)))
    dispatch(picked({ kind: 'mass', ids: [a] }))
}

export const FORM_VERBS: readonly Verb[] = [
  drawing('Rectangle', 'rectangle', Square, 'R'),
  drawing('Polygon', 'polygon', PenTool, 'P'),
  drawing('Circle', 'circle', Circle, 'C'),
  {
    label: 'Hole',
    icon: CircleDashed,
    key: 'H',
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
    label: 'Pitch',
    icon: Home,
    key: 'G',
    desks: ['form'],
    off: (now) => {
      const mass = one(now)
      if (!mass) return 'Pick one mass first'
      return mass.recipe.some((m) => m.move === 'pitch') ? 'It has a pitch: change it in the details' : null
    },
    run: (now) => {
      const mass = one(now)
      if (mass)
        makeEdit(`pitch ${mass.name}`, () =>
          setPitch(now.scheme, mass, () => crypto.randomUUID(), {
            angle: 35,
            direction: ridgeAlongOf(mass.recipe, numbersOf(now.project, now.scheme)),
          }),
        )
    },
  },
  {
    label: 'Join',
    icon: Link2,
    key: 'J',
    desks: ['form'],
    help: 'join two picked masses',
    off: ({ masses }) => (masses.length === 2 ? null : 'Pick two masses first: click one, Shift-click the other'),
    run: (now) =>
      joinPicked(
        now,
        now.masses.map((m) => m.id),
      ),
  },
  { label: 'Import', icon: FileUp, desks: ['form'], run: ({ dispatch }) => void dispatch(dialogOpened('import')) },
  {
    label: 'Delete',
    icon: Trash2,
    key: 'Delete',
    desks: ['form'],
    help: 'delete what is picked',
    off: ({ masses }) => (masses.length ? null : 'Pick a mass first'),
    run: ({ masses }) => void deleteMasses(masses.map((m) => m.id)),
  },
]

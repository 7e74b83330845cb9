import { Eraser, Layers2, PenTool, Shrink, Slice, type LucideIcon } from 'lucide-react'
import { insetPlate } from '@geotome/core/form'
import { makeEdit } from '../app/session'
import { toolTaken } from '../app/view-slice'
import type { Taken } from '../tools/kind'
import type { Now, Verb } from './kind'

export const PLATE = 'Plate'

/** The picked mass, where it has a floor at the level that is looked at. */
const here = ({ masses, view }: Now) => {
  const [mass] = masses
  const storey = view.study?.floors.find((f) => f.level === view.level)
  return masses.length === 1 && mass && storey?.plates.some((p) => p.mass === mass.id) ? mass : undefined
}
const off = (now: Now) => (here(now) ? null : 'Pick a mass that has a floor at the level that is looked at')

const drawn = (label: string, icon: LucideIcon, taken: Pick<Taken, 'tool' | 'becomes'>): Verb => ({
  label,
  icon,
  under: PLATE,
  desks: ['slice'],
  help: '',
  on: ({ view }) => view.tool?.becomes === taken.becomes && view.tool?.tool === taken.tool,
  off: (now) => (now.view.tool ? null : off(now)),
  run: (now) => {
    const mass = here(now)
    now.dispatch(toolTaken(now.view.tool || !mass ? null : { ...taken, of: mass.id }))
  },
})

/** What is done to a plate without touching the form. */
export const SLICE_VERBS: readonly Verb[] = [
  { label: PLATE, icon: Layers2, desks: ['slice'], help: '', opens: () => [], run: () => {} },
  drawn('Leave out a rectangle', Eraser, { tool: 'rectangle', becomes: 'plate-out' }),
  drawn('Leave out an outline', Eraser, { tool: 'polygon', becomes: 'plate-out' }),
  drawn('Another use for a part', PenTool, { tool: 'polygon', becomes: 'plate-use' }),
  drawn('Split by a line', Slice, { tool: 'polygon', becomes: 'plate-split' }),
  {
    label: 'Set in by a metre',
    icon: Shrink,
    under: PLATE,
    desks: ['slice'],
    help: '',
    off,
    run: (now) => {
      const mass = here(now)
      const level = now.view.level
      if (mass && level)
        makeEdit(`set in the plate of ${mass.name}`, () =>
          insetPlate(now.scheme, () => crypto.randomUUID(), mass.id, [level], 1),
        )
    },
  },
]

import type { Vec2 } from '@geotome/core/solid'
import type { Mass } from '@geotome/core/project'
import { crispnessOf } from '@geotome/core/form'
import type { MassView } from '../worker/protocol'
import { cageJoints } from './cage'
import { toPane, type View } from './camera'

/** The edges of what a soft form is drawn from, over it: crisp ones drawn through, the others dashed. */
export function CageMarks({ mass, shown, view, size }: { mass: Mass; shown: MassView; view: View; size: Vec2 }) {
  const soft = mass.recipe.find((m) => m.move === 'soft')
  if (soft?.move !== 'soft') return null
  const lines = cageJoints(shown).flatMap((j) => {
    if (j.kind !== 'edge') return []
    const [[x1 = 0, y1 = 0] = [], [x2 = 0, y2 = 0] = []] = j.ends.map((p) => toPane(view, size, p))
    const own = crispnessOf(mass, j.faces)
    const crisp = own === null ? soft.edges === 'crisp' : typeof own !== 'number' || own > 0
    return [{ x1, y1, x2, y2, crisp, key: j.faces.join() }]
  })
  return (
    <g data-cage={lines.length} stroke="var(--ink2)" strokeWidth={1}>
      {lines.map(({ key, crisp, ...ends }, i) => (
        <line key={`${key} ${i}`} {...ends} strokeWidth={crisp ? 1.8 : 1} strokeDasharray={crisp ? undefined : '4 3'} />
      ))}
    </g>
  )
}

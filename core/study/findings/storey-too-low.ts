import { buildUpThickness } from '../../fabric'
import { moveLevel } from '../../levels'
import { tidy } from '../../project'
import { finding, type Check } from '../types'

/** A storey whose clear height, under the slab above, is less than the headroom. */
export const storeyTooLow: Check = {
  kind: 'storey too low',
  run: ({ project, scheme, context, floors }) => floors.flatMap((floor, i) => {
    const above = floors[i + 1]
    if (!above || floor.plates.length === 0 || above.plates.length === 0) return []
    // Only a mass that has both floors stands between them.
    const both = floor.plates.filter((p) => above.plates.some((q) => q.mass === p.mass)).map((p) => p.mass)
    if (both.length === 0) return []
    const slabs = Object.values(scheme.parts).filter((p) => p.kind === 'slab' && p.base?.level === above.level.id)
    const slab = slabs.reduce((most, p) => { const b = project.buildUps[p.buildUp]; return b ? Math.max(most, buildUpThickness(b, context.numbers)) : most }, 0)
    const clear = tidy(above.level.height - floor.level.height - above.level.floorBuildUp - slab)
    const headroom = context.numbers.length(project.headroom)
    if (clear >= headroom - 1e-6) return []
    const by = tidy(headroom - clear)
    return [finding('storey too low', floor.level.id, `${floor.level.name} is only ${clear.toFixed(2)} m high in the clear`, `Less than the headroom of ${headroom.toFixed(2)} m${slab > 0 ? `, under a slab of ${slab.toFixed(2)} m` : ''}. Raise the level above, or let the masses not take one of the two.`, {
      level: floor.level.id, masses: both, fix: { label: `Raise ${above.level.name} by ${by.toFixed(2)} m`, edit: () => moveLevel(project, scheme, above.level.id, tidy(above.level.height + by), 'carried') },
    })]
  }),
}

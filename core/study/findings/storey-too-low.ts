import { TOLERANCE } from '../../solid'
import { buildUpThickness } from '../../fabric'
import { floorName, moveLevel } from '../../levels'
import { showExact, showQuantity, tidy } from '../../project'
import { type Check } from '../types'
import { finding } from '../finding'

/** A storey whose clear height, under the slab above, is less than the headroom. */
export const storeyTooLow: Check = {
  kind: 'storey too low',
  why: 'Nobody can stand in it.',
  run: ({ project, scheme, context, floors }) => {
    const slabs = new Map<string, number>()
    for (const p of Object.values(scheme.parts)) {
      const buildUp = p.kind === 'slab' && p.base ? project.buildUps[p.buildUp] : undefined
      if (buildUp && p.base)
        slabs.set(
          p.base.level,
          Math.max(
            slabs.get(p.base.level) ?? 0,
            context.memo.keep(buildUp, 'thick', [context.numbers], () => buildUpThickness(buildUp, context.numbers)),
          ),
        )
    }
    const say = (m: number) => showQuantity(m, 'length', project)
    return floors.flatMap((floor, i) => {
      if (floor.oneWith) return []
      const above = floors.slice(i + 1).find((f) => f.oneWith === null)
      if (!above || floor.plates.length === 0 || above.plates.length === 0) return []
      const slab = Math.max(slabs.get(above.level.id) ?? 0, above.level.slab)
      const clear = tidy(above.level.height - floor.level.height - above.level.floorBuildUp - slab)
      const headroom = context.numbers.length(project.headroom)
      if (clear >= headroom - TOLERANCE.point) return []
      // Only a mass that has both floors stands between them.
      const over = new Set(above.plates.map((q) => q.mass))
      const both = floor.plates.filter((p) => over.has(p.mass)).map((p) => p.mass)
      if (both.length === 0) return []
      const by = tidy(headroom - clear)
      return [
        finding(
          'storey too low',
          floor.level.id,
          `${floorName(floor)} is only ${say(clear)} high in the clear`,
          `Less than the headroom of ${say(headroom)}${slab > 0 ? `, under a slab of ${say(slab)}` : ''}. Raise the level above, or let the masses not take one of the two.`,
          {
            level: floor.level.id,
            masses: both,
            fix: {
              label: `Raise ${floorName(above)} by ${showExact(by, 'length', project)}`,
              edit: () => moveLevel(project, scheme, above.level.id, tidy(above.level.height + by), 'carried'),
            },
          },
        ),
      ]
    })
  },
}

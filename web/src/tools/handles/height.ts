import { changeRecipe, massOf } from '@geotome/core/form'
import { withMove } from '@geotome/core/moves'
import { showQuantity, tidy } from '@geotome/core/project'
import { axesOf } from '../../stage/camera'
import type { MassHandle } from './kind'
import { standing, stridden } from './standing'

/** How high a mass is raised. */
export const height: MassHandle = {
  name: 'height',
  help: ['drag the arrow of the picked mass', 'raises or lowers its top'],
  spots: (on) => {
    const s = on.view.elevation === 90 ? null : standing(on)
    return s ? [{ key: 'height', at: s.px(s.middle, on.shown.top), glyph: 'up' }] : []
  },
  begin: (on, _, from) => {
    const s = standing(on)
    const { project } = on.world
    const stride = project.stride.length
    const up = Math.max(0.2, axesOf(on.view).up[2])
    return {
      label: `change ${on.mass.name}`,
      slack: 3,
      answer: ({ at }) => {
        if (!s) return null
        const to = Math.max(stride, stridden(s.height, (from[1] - at[1]) / on.view.scale / up, stride))
        const { raise } = s
        const say = [showQuantity(to, 'length', project)]
        if (to === s.height) return { say }
        return {
          say,
          edit: ({ scheme }) =>
            changeRecipe(scheme, massOf(scheme, on.mass.id), (recipe) =>
              withMove(
                recipe,
                raise,
                raise.upTo
                  ? { upTo: { ...raise.upTo, above: tidy(s.numbers.length(raise.upTo.above) + to - s.height) } }
                  : { height: tidy(to) },
              ),
            ),
        }
      },
    }
  },
}

import { changeRecipe, massOf, moveCorner } from '@geotome/core/form'
import { withMove } from '@geotome/core/moves'
import { showQuantity } from '@geotome/core/project'
import { placePoint, type Vec2 } from '@geotome/core/solid'
import { atHeight } from '../../stage/camera'
import { isHidden } from '../../stage/picking'
import type { MassHandle } from './kind'
import { byStride, standing } from './standing'

/** A corner of the outline, or the rim of a circle. */
export const corner: MassHandle = {
  name: 'corner',
  help: ['drag a dot of the picked mass', 'moves a corner, or a circle’s rim'],
  spots: (on) => {
    const s = on.shown.cage ? null : standing(on)
    return s
      ? s.local.map((p, i) => {
          const at = placePoint(p, s.place)
          const hidden = on.view.elevation !== 90 && isHidden(on.view, [...at, on.shown.base])
          return { key: s.ids[i] ?? '', at: s.px(at, on.shown.base), glyph: hidden ? 'hidden-dot' : 'dot' }
        })
      : []
  },
  begin: (on, spot) => {
    const s = standing(on)
    const { project } = on.world
    const stride = project.stride.length
    return {
      label: `change ${on.mass.name}`,
      slack: 0,
      answer: ({ at }) => {
        if (!s) return null
        const world = atHeight(on.view, on.size, [at[0] - on.corner[0], at[1] - on.corner[1]], on.shown.base)
        const turned = { x: 0, y: 0, z: 0, turn: -s.place.turn }
        const [x, y] = placePoint([world[0] - s.place.x, world[1] - s.place.y], turned)
        const { shape } = s.outline
        if (shape.kind === 'circle') {
          const radius = Math.max(stride, byStride(Math.hypot(x, y), stride))
          return {
            say: [showQuantity(radius, 'length', project)],
            edit: ({ scheme }) =>
              changeRecipe(scheme, massOf(scheme, on.mass.id), (recipe) =>
                withMove(recipe, s.outline, { shape: { ...shape, radius } }),
              ),
          }
        }
        const to: Vec2 = [byStride(x, stride), byStride(y, stride)]
        return {
          say: [`${showQuantity(to[0], 'length', project)}, ${showQuantity(to[1], 'length', project)}`],
          edit: (now) => moveCorner(now.project, now.scheme, on.mass.id, s.ids[spot] ?? '', to),
        }
      },
    }
  },
}

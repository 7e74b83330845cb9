import { changeRecipe, massOf, moveCorner } from '@geotome/core/form'
import { withMove } from '@geotome/core/moves'
import { showQuantity } from '@geotome/core/project'
import { placePoint, type Vec2 } from '@geotome/core/solid'
import { atHeight } from '../../stage/camera'
import { isHidden } from '../../stage/picking'
import type { MassHandle, OnMass } from './kind'
import { standing, stridden, type Standing } from './standing'

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
  begin: (on, spot, from) => {
    const s = standing(on)
    const { project } = on.world
    const stride = project.stride.length
    const [was, held] = [s?.local[spot], s && inFrame(on, s, from)]
    return {
      label: `change ${on.mass.name}`,
      slack: 3,
      answer: ({ at }) => {
        if (!s || !was || !held) return null
        const [x, y] = inFrame(on, s, at)
        const { shape } = s.outline
        if (shape.kind === 'circle') {
          const radius = Math.max(stride, stridden(was[0], Math.hypot(x, y) - Math.hypot(...held), stride))
          const say = [showQuantity(radius, 'length', project)]
          if (radius === was[0]) return { say }
          return {
            say,
            edit: ({ scheme }) =>
              changeRecipe(scheme, massOf(scheme, on.mass.id), (recipe) =>
                withMove(recipe, s.outline, { shape: { ...shape, radius } }),
              ),
          }
        }
        const to: Vec2 = [stridden(was[0], x - held[0], stride), stridden(was[1], y - held[1], stride)]
        const say = [`${showQuantity(to[0], 'length', project)}, ${showQuantity(to[1], 'length', project)}`]
        if (to[0] === was[0] && to[1] === was[1]) return { say }
        return { say, edit: (now) => moveCorner(now.project, now.scheme, on.mass.id, s.ids[spot] ?? '', to) }
      },
    }
  },
}

/** What lies under a place of the window at the foot of the mass, in the mass's own frame, m. */
function inFrame(on: OnMass, { place }: Standing, at: Vec2): Vec2 {
  const [x, y] = atHeight(on.view, on.size, [at[0] - on.corner[0], at[1] - on.corner[1]], on.shown.base)
  return placePoint([x - place.x, y - place.y], { x: 0, y: 0, z: 0, turn: -place.turn })
}

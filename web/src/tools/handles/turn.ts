import { moveMasses } from '@geotome/core/form'
import { gapOf, placePoint, shorterTurn, type Vec2 } from '@geotome/core/solid'
import { atHeight } from '../../stage/camera'
import type { MassHandle, OnMass } from './kind'
import { byStride, standing } from './standing'

/** px that the ring stands away from the corner that is farthest to the right */
const AWAY = 24

/** How a mass is turned, about its middle. */
export const turn: MassHandle = {
  name: 'turn',
  help: ['drag the ring of the picked mass', 'turns it'],
  spots: (on) => {
    const s = standing(on)
    if (!s) return []
    const { base } = on.shown
    const far = s.local
      .map((p) => placePoint(p, s.place))
      .reduce((a, b) => (s.px(b, base)[0] > s.px(a, base)[0] ? b : a))
    const [centre, end] = [s.px(s.middle, base), s.px(far, base)]
    const reach = gapOf(end, centre) || 1
    return [
      {
        key: 'turn',
        at: [
          Math.min(on.size[0] - 16, end[0] + ((end[0] - centre[0]) / reach) * AWAY),
          end[1] + ((end[1] - centre[1]) / reach) * AWAY,
        ],
        glyph: 'round',
      },
    ]
  },
  begin: (on, _, from) => {
    const s = standing(on)
    const a0 = s ? angleAt(on, from, s.middle) : 0
    return {
      label: `change ${on.mass.name}`,
      slack: 3,
      answer: ({ at }) => {
        const by = s ? byStride(shorterTurn(angleAt(on, at, s.middle) - a0), on.world.project.stride.angle) : 0
        if (!s || by === 0) return null
        const about: Vec2 = [s.middle[0] + on.study.origin[0], s.middle[1] + on.study.origin[1]]
        return {
          say: [`${by.toFixed(0)}°`],
          edit: ({ project, scheme }) => moveMasses(project, scheme, [on.mass.id], [0, 0], by, about),
        }
      },
    }
  },
}

/** degrees, from the middle to what lies under a pixel of the window */
function angleAt(on: OnMass, at: Vec2, middle: Vec2): number {
  const p = atHeight(on.view, on.size, [at[0] - on.corner[0], at[1] - on.corner[1]], on.shown.base)
  return (Math.atan2(p[1] - middle[1], p[0] - middle[0]) * 180) / Math.PI
}

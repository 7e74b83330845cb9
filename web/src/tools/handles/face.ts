import { pullFace } from '@geotome/core/form'
import { showQuantity } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { metresAlong, pixelsOf, toPane } from '../../stage/camera'
import { faceDrawn } from '../../stage/spots'
import type { MassHandle, OnMass } from './kind'
import { byStride } from './standing'

/** px that the arrow of a face is long */
const LONG = 40

const faceOf = ({ spots, shown }: OnMass) => {
  const [only, more] = spots
  return only?.kind === 'face' && !more ? faceDrawn(shown, only.faces[0] ?? '') : null
}

/** A picked face is pulled along its normal, on the chosen storeys where there are some. */
export const face: MassHandle = {
  name: 'face',
  help: ['drag the arrow of a picked face', 'pulls it out, or pushes it in'],
  spots: (on) => {
    const drawn = faceOf(on)
    if (!drawn) return []
    const at = toPane(on.view, on.size, drawn.middle)
    const [x, y] = pixelsOf(on.view, drawn.normal)
    const long = Math.hypot(x, y)
    const toward: Vec2 = long < 0.15 * on.view.scale ? [0, -LONG] : [(x / long) * LONG, (y / long) * LONG]
    return [{ key: 'face', at, glyph: 'arrow', toward }]
  },
  begin: (on, _, from) => {
    const drawn = faceOf(on)
    const { project } = on.world
    const made = crypto.randomUUID()
    return {
      label: `pull ${on.mass.name}`,
      slack: 3,
      answer: ({ at }) => {
        if (!drawn) return null
        const by = byStride(
          metresAlong(on.view, drawn.normal, [at[0] - from[0], at[1] - from[1]]),
          project.stride.length,
        )
        if (by === 0) return null
        return {
          say: [`${by > 0 ? 'out' : 'in'} ${showQuantity(Math.abs(by), 'length', project)}`],
          edit: (now) => pullFace(now.project, now.scheme, () => made, on.mass.id, drawn.name, by, on.storeys),
        }
      },
    }
  },
}

import { TOLERANCE } from '../solid'
import type { FaceAs } from './offers'
import { tiltOf, type WorldFace } from './print'

/** What a face can be taken as, the usual first. */
export function choicesOf(face: WorldFace): FaceAs[] {
  const tilt = tiltOf(face)
  if (Math.abs(tilt) > 1 - TOLERANCE.rounding) return [tilt > 0 ? 'roof' : 'soffit slab', 'nothing']
  const walls: FaceAs[] = face.bent ? ['upright walls', 'facets'] : ['wall']
  return [
    ...walls,
    ...(tilt > TOLERANCE.lean ? ['roof' as const] : tilt < -TOLERANCE.lean ? ['soffit slab' as const] : []),
    'nothing',
  ]
}

import type { FaceAs } from './offers'
import { tiltOf, type WorldFace } from './print'

/** A face by what made it: "south", "side e2", "top". */
export function faceLabel(face: Pick<WorldFace, 'name'>): string {
  const [raw = '', piece] = face.name.split('~')
  const own = raw.split('/').slice(1).join(' ')
  return `${/^e\d+$/.test(own) ? `side ${own.slice(1)}` : own}${piece ? ', a piece' : ''}`
}

/** What a face can be taken as, the usual first. */
export function choicesOf(face: WorldFace): FaceAs[] {
  const tilt = tiltOf(face)
  if (Math.abs(tilt) > 1 - 1e-9) return [tilt > 0 ? 'roof' : 'soffit slab', 'nothing']
  const walls: FaceAs[] = face.bent ? ['upright walls', 'facets'] : ['wall']
  return [...walls, ...(tilt > 1e-3 ? ['roof' as const] : tilt < -1e-3 ? ['soffit slab' as const] : []), 'nothing']
}

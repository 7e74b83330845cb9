import { placePoint } from '../solid'
import { tidy } from '../values'
import type { Frame, Step } from './ways/kind'

/** Where something at a frame comes to by a step. */
export function stepped(at: Frame, step: Step): Frame {
  if ('by' in step) return { x: tidy(at.x + step.by[0]), y: tidy(at.y + step.by[1]), turn: tidy(at.turn) }
  const [from, to] =
    'about' in step
      ? [
          { x: step.about[0], y: step.about[1] },
          { x: step.about[0], y: step.about[1], turn: step.turn },
        ]
      : [step.from, { ...step.to, turn: step.to.turn - step.from.turn }]
  const [x, y] = placePoint([at.x - from.x, at.y - from.y], { ...to, z: 0 })
  return { x: tidy(x), y: tidy(y), turn: tidy(at.turn + to.turn) }
}

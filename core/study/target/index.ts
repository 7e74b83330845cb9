export type { Mover } from './mover'
export { moverNamed, moversOf } from './movers'
export { figureAt, meetSteps, type Meeting, type Met, type Move as TargetMove, type Target } from './target'

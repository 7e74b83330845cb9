export { moverNamed, moversOf, type Mover } from './movers'
export { figureAt, meetSteps, type Meeting, type Met, type Move as TargetMove, type Target } from './target'

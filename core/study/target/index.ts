export { moverNamed, moversOf, type Mover } from './movers'
export {
  figureNamed,
  meetSteps,
  sayFigure,
  show as showFigure,
  type Meeting,
  type Met,
  type Move as TargetMove,
  type Target,
} from './target'

import type { BuildUp, Numbers } from '../project'

/** m, of all layers together */
export const buildUpThickness = (buildUp: BuildUp, numbers: Numbers): number =>
  buildUp.layers.reduce((sum, layer) => sum + numbers.length(layer.thickness), 0)

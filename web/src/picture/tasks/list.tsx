import type { ComponentType } from 'react'
import { CalibratePanel } from '../CalibratePanel'
import { CropPanel } from '../CropPanel'
import { LevelsPanel } from '../LevelsPanel'
import { MeasurePanel } from '../MeasurePanel'
import { TracePanel } from '../TracePanel'
import { calibrateTask } from './calibrate'
import { cropTask } from './crop'
import type { PanelOf, Picking, Task } from './kind'
import { levelsTask } from './levels'
import { measureTask } from './measure'
import { traceTask } from './trace'

interface Entry {
  task: Task<Picking>
  Panel: ComponentType<PanelOf<Picking>>
}
const entry = <S extends Picking>(task: Task<S>, Panel: ComponentType<PanelOf<S>>) =>
  ({ task, Panel }) as unknown as Entry

/** What is done on the bench. A new task is a file with its machine, its panel, and a line here. */
export const TASKS: readonly Entry[] = [
  entry(calibrateTask, CalibratePanel),
  entry(measureTask, MeasurePanel),
  entry(traceTask, TracePanel),
  entry(levelsTask, LevelsPanel),
  entry(cropTask, CropPanel),
]

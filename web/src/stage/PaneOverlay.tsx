import type { Vec2 } from '@geotome/core/solid'
import { usePickedMasses, useProject } from '../app/hooks'
import { DrawOverlay } from '../form/DrawOverlay'
import { Handles } from '../form/Handles'
import type { Drawing } from '../form/use-draw'
import type { StudyLike } from './fitting'
import { PlateLabels } from './Labels'
import { LevelLines, LevelPlanes } from './LevelLines'
import { MeasureMarks } from './MeasureMarks'
import { ZeroMark, North, ScaleBar } from './PaneMarks'
import { SectionLine } from './UprightBar'
import type { Measuring } from './use-measure'
import { type PaneName, useView, isUpright } from './views'

const NOWHERE: Vec2 = [0, 0]

export function PaneOverlay({
  name,
  size,
  z,
  study,
  drawing,
  pointer,
  labels,
  mass,
  middle,
  narrow,
  measure,
  desk,
}: {
  desk: string
  middle: Middle
  narrow: boolean
  measure: Measuring | null
  name: PaneName
  size: Vec2
  z: number
  study: StudyLike
  drawing: Drawing | null
  pointer: { pane: PaneName; at: Vec2 }
  labels: NonNullable<StudyLike>['floors'][number] | null
  mass: ReturnType<typeof usePickedMasses>[number] | null
}) {
  const view = useView(name)
  const { project } = useProject()
  const origin = study?.origin ?? NOWHERE
  const upright = isUpright(name)
  return (
    <>
      {upright && <LevelLines view={view} size={size} />}
      {name === '3d' && <LevelPlanes view={view} size={size} rect={middle.rect} />}
      {name === 'plan' && <SectionLine view={view} size={size} origin={origin} reach={middle.reach} />}
      <MeasureMarks view={view} size={size} origin={origin} measure={measure} kept={desk === 'ground'} />
      {!upright && <ZeroMark view={view} size={size} origin={origin} />}
      {labels && !upright && <PlateLabels floor={labels} z={z} view={view} size={size} />}
      {mass && !upright && <Handles mass={mass} view={view} size={size} />}
      {drawing && !upright && (
        <DrawOverlay
          drawing={drawing}
          view={view}
          size={size}
          z={z}
          origin={origin}
          live={pointer.pane === name}
          pointer={pointer.at}
        />
      )}
      {!upright && <North azimuth={(view.elevation === 90 ? 0 : -90 - view.azimuth) - project.location.trueNorth} />}
      {name !== '3d' && !narrow && <ScaleBar view={view} unit={project.unit} />}
    </>
  )
}

export interface Middle {
  at: Vec2
  rect: [Vec2, Vec2] | null
  /** m, half the diagonal of all that stands, and some air */ reach: number
}

import type { Vec2 } from '@geotome/core/solid'
import { useOf, usePickedMasses } from '../app/hooks'
import { ToolOverlay } from '../tools/ToolOverlay'
import type { StudyLike } from './fitting'
import { PlateLabels } from './Labels'
import { LevelLines, LevelPlanes } from './LevelLines'
import { Handles } from './Handles'
import { KeptMeasures } from './KeptMeasures'
import { ZeroMark, North, ScaleBar } from './PaneMarks'
import { RuleMarks } from './RuleMarks'
import { SiteSides } from './SiteSides'
import { SectionLine } from './UprightBar'
import type { StageShows } from './shows'
import { type PaneName, useView, isUpright } from './views'

const NOWHERE: Vec2 = [0, 0]

export function PaneOverlay({
  name,
  size,
  z,
  study,
  pointer,
  labels,
  mass,
  middle,
  narrow,
  at,
}: {
  at: StageShows
  middle: Middle
  narrow: boolean
  name: PaneName
  size: Vec2
  z: number
  study: StudyLike
  pointer: { pane: PaneName; at: Vec2 }
  labels: NonNullable<StudyLike>['floors'][number] | null
  mass: ReturnType<typeof usePickedMasses>[number] | null
}) {
  const view = useView(name)
  const { unit, north } = useOf(({ project }) => ({ unit: project.unit, north: project.location.trueNorth }))
  const origin = study?.origin ?? NOWHERE
  const upright = isUpright(name)
  return (
    <>
      {upright && <LevelLines view={view} size={size} />}
      {name === '3d' && <LevelPlanes view={view} size={size} rect={middle.rect} />}
      {name === 'plan' && <SectionLine view={view} size={size} origin={origin} reach={middle.reach} />}
      {at.envelope && name === 'plan' && <SiteSides view={view} size={size} />}
      {at.keptMeasures && <KeptMeasures view={view} size={size} origin={origin} />}
      {!upright && <ZeroMark view={view} size={size} x={-origin[0]} y={-origin[1]} />}
      <RuleMarks view={view} size={size} origin={origin} />
      {labels && !upright && <PlateLabels floor={labels} z={z} view={view} size={size} />}
      {mass && !upright && <Handles mass={mass} view={view} size={size} />}
      <ToolOverlay view={view} size={size} origin={origin} pointer={pointer.pane === name ? pointer.at : null} />
      {!upright && <North azimuth={(view.elevation === 90 ? 0 : -90 - view.azimuth) - north} />}
      {name !== '3d' && !narrow && <ScaleBar view={view} unit={unit} />}
    </>
  )
}

export interface Middle {
  at: Vec2
  rect: [Vec2, Vec2] | null
  /** m, half the diagonal of all that stands, and some air */ reach: number
}

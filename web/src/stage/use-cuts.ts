import { useMemo } from 'react'
import type { Vec2 } from '@geotome/core/solid'
import { uprightFrame, type Upright } from '@geotome/core/slice'
import { useAppSelector } from '../app/store'
import type { Panes } from '../app/view-slice'
import { useRunning } from '../tools/at-work'
import type { PaneCut } from './PaneRenderer'
import type { StageShows } from './shows'
import type { PaneName } from './views'

/** The panes of each choice; a section stands beside its plan, in which it is moved. */
export const PANES: Record<Panes, PaneName[]> = {
  '3d': ['3d'],
  plan: ['plan'],
  both: ['3d', 'plan'],
  elevation: ['elevation'],
  section: ['section', 'plan'],
  four: ['3d', 'plan', 'elevation', 'section'],
}

/** Where the panes are cut: `z` m is the plane that is drawn on, buried where it lies below the datum. */
export function useCuts(at: StageShows): { cuts: PaneCut[]; z: number; buried: boolean } {
  const shown = PANES[useAppSelector((s) => s.view.panes)]
  const height = useAppSelector((s) => s.view.study?.levels.find((l) => l.id === s.view.level)?.height ?? null)
  const section = useAppSelector((s) => s.view.section)
  const x = useAppSelector((s) => s.view.study?.origin[0] ?? null)
  const y = useAppSelector((s) => s.view.study?.origin[1] ?? null)
  // Site and neighbours are drawn on the ground, whatever level is looked at.
  const plane = useRunning((r) => (r?.tool.aims === 'plane' && !r.taken.on ? r.plane.origin[2] : null))
  const z = plane ?? height ?? 0
  const buried = z < -1e-6
  const isCut = height !== null
  const cuts = useMemo(() => {
    const by: Upright | null =
      section && x !== null && y !== null
        ? { azimuth: section.azimuth, toward: section.toward - dotOut(section.azimuth, [x, y]) }
        : null
    return shown.map((name): PaneCut => ({
      name,
      buried,
      upright: name === 'section' ? by : null,
      cut: !isCut ? null : name === 'plan' ? z + at.planCut : at.blade && name === '3d' ? z : null,
    }))
  }, [shown, at, isCut, z, buried, section, x, y])
  return { cuts, z, buried }
}

const dotOut = (azimuth: number, p: Vec2) => {
  const { toward } = uprightFrame(azimuth)
  return toward[0] * p[0] + toward[1] * p[1]
}

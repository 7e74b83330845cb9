import type { Vec2 } from '@geotome/core/solid'
import { uprightFrame, type Upright } from '@geotome/core/slice'
import type { Panes } from '../app/view-slice'
import type { StoredView } from './geometry-store'
import type { StageShows } from './shows'
import type { PaneName } from './views'

export interface PaneCut {
  name: PaneName
  /** m above the datum, or null: nothing is cut */ cut: number | null
  buried: boolean
  /** an upright plane, from the view's origin: what lies nearer to the viewer is cut away */ upright?: Upright | null
}

/** The panes of each choice; a section stands beside its plan, in which it is moved. */
export const PANES: Record<Panes, PaneName[]> = {
  '3d': ['3d'],
  plan: ['plan'],
  both: ['3d', 'plan'],
  elevation: ['elevation'],
  section: ['section', 'plan'],
  four: ['3d', 'plan', 'elevation', 'section'],
}

/** What panes are cut by besides the level that is looked at. */
export interface CutBy {
  /** the upright plane of sections, in the world */ section: Upright | null
  /** m: the level plane that is drawn on, wherever the level is */ plane: number | null
}

/** Where panes are cut: `z` m is the plane that is drawn on, buried where it lies below the datum. */
export function cutsOf(
  names: readonly PaneName[],
  at: StageShows,
  view: Pick<StoredView, 'levels' | 'origin'> | null,
  level: string | null,
  { section, plane }: CutBy,
): { cuts: PaneCut[]; z: number; buried: boolean } {
  const height = view?.levels.find((l) => l.id === level)?.height ?? null
  const z = plane ?? height ?? 0
  const buried = z < -1e-6
  const by: Upright | null =
    section && view ? { azimuth: section.azimuth, toward: section.toward - dotOut(section.azimuth, view.origin) } : null
  return {
    z,
    buried,
    cuts: names.map((name): PaneCut => ({
      name,
      buried,
      upright: name === 'section' ? by : null,
      cut: height === null ? null : name === 'plan' ? z + at.planCut : at.blade && name === '3d' ? z : null,
    })),
  }
}

const dotOut = (azimuth: number, p: Vec2) => {
  const { toward } = uprightFrame(azimuth)
  return toward[0] * p[0] + toward[1] * p[1]
}

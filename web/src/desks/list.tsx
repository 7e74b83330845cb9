import type { ComponentType } from 'react'
import { MassList } from '../details/MassList'
import { ProjectDetails } from '../details/ProjectDetails'
import { FabricList } from '../fabric/FabricList'
import { GroundDetails, GroundTabs } from '../ground/GroundDetails'
import { STAGE, type StageShows } from '../stage/shows'
import { BRIEF, EXPORT, FINDINGS, LEDGER, TARGET } from '../verbs/everywhere'
import { FABRIC_VERBS } from '../verbs/fabric'
import { FORM_VERBS } from '../verbs/form'
import { GROUND_VERBS } from '../verbs/ground'
import { SLICE_VERBS } from '../verbs/slice'
import type { DeskName, Now, Verb } from '../verbs/kind'

export interface Desk {
  name: DeskName
  label: string
  /** the verbs in its bar, in their order */
  bar: readonly Verb[]
  /** what is wanted next, while no tool is at work */
  hint: (now: Now) => string
  stage: StageShows
  /** the details where nothing is picked, and what stands above all details */
  Details: ComponentType
  Above?: ComponentType
  /** the level that is looked at from the start: in the middle of the storeys, or at the datum */
  starts: 'middle' | 'datum'
  /** the details are those of the level that is looked at where nothing is picked */
  showsLevel?: true
  /** what comes later, where the desk is not there yet */
  coming?: string
}

const Plain = () => (
  <>
    <MassList />
    <ProjectDetails />
  </>
)
const nothingDrawn = ({ view }: Now) => (view.study?.masses.length ?? 0) === 0
const BEGIN = 'Nothing is drawn yet: begin at the Form desk'

const SPOT_HINTS = {
  face: 'Drag its arrow to pull it; Rectangle, Polygon and Circle draw on it. Escape goes back to the mass',
  edge: 'Drag its dot to move it in plan, its arrow to move it up. Escape goes back to the mass',
  corner: 'Drag its dot to move it in plan, its arrow to move it up. Escape goes back to the mass',
}

/** The desks, in the order of the job. A new one is an entry here, and its verbs in `verbs`. */
export const DESKS: readonly Desk[] = [
  {
    name: 'ground',
    label: 'Ground',
    bar: GROUND_VERBS,
    hint: ({ view }) =>
      view.picked.kind === 'picture'
        ? 'Calibrate it, measure on it, or trace it; its places and how it is tied are at the right'
        : 'Draw the site or read it from a file; drop or paste a picture anywhere',
    stage: STAGE.ground,
    Details: GroundDetails,
    Above: GroundTabs,
    starts: 'datum',
  },
  {
    name: 'form',
    label: 'Form',
    // Delete has its key, and a place in the details of what is picked.
    bar: FORM_VERBS.filter((v) => !v.under && v.key !== 'Delete'),
    hint: (now) =>
      nothingDrawn(now)
        ? 'Take Rectangle, Polygon or Circle, and draw the first mass'
        : now.view.picked.kind === 'rule'
          ? 'Drag it to move it; type over a number, draw a dial; click a number in the margin to look at what a step makes'
          : now.view.picked.kind === 'repeat'
            ? 'Its numbers are at the right; click one of it for an exception, its original to change them all'
            : now.view.spots.length
              ? SPOT_HINTS[now.view.spots[0]?.kind ?? 'face']
              : now.view.picked.kind === 'mass'
                ? now.masses.length === 1 && !now.masses[0]?.recipe.some((m) => m.move === 'raise')
                  ? 'Drag it to move it; Alt-click a face to pull it or draw on it; its moves are at the right'
                  : 'Drag it to move it; dots move its corners, the arrow its height, the ring turns it'
                : 'Click a mass to pick it, Shift-click a second one to join them',
    stage: STAGE.form,
    Details: Plain,
    starts: 'datum',
  },
  {
    name: 'slice',
    label: 'Slice',
    bar: [...SLICE_VERBS.filter((v) => !v.under), LEDGER, BRIEF, TARGET, FINDINGS, EXPORT],
    hint: (now) =>
      nothingDrawn(now) ? BEGIN : 'Click a floor in the spine to bring the blade there, or drag its level',
    stage: STAGE.slice,
    Details: Plain,
    showsLevel: true,
    starts: 'middle',
  },
  {
    name: 'fabric',
    label: 'Fabric',
    bar: [...FABRIC_VERBS, LEDGER, FINDINGS, EXPORT],
    hint: (now) =>
      nothingDrawn(now)
        ? BEGIN
        : now.view.proposing
          ? 'Choose build-ups at the right, then make the parts'
          : now.view.picked.kind === 'part'
            ? 'Change its build-up at the right'
            : 'Click a wall, slab or roof to pick it',
    stage: STAGE.fabric,
    Details: FabricList,
    starts: 'datum',
  },
  {
    name: 'light',
    label: 'Light',
    bar: [],
    hint: () => '',
    stage: STAGE.plain,
    Details: Plain,
    starts: 'datum',
    coming: 'Sun, shadows and hours of sun come to this desk later.',
  },
  {
    name: 'sheets',
    label: 'Sheets',
    bar: [],
    hint: () => '',
    stage: STAGE.plain,
    Details: Plain,
    starts: 'datum',
    coming:
      'Plans, sections and schedules to scale come to this desk later; exports are at the Slice and Fabric desks.',
  },
]

export const deskOf = (name: string): Desk => DESKS.find((d) => d.name === name) ?? (DESKS[2] as Desk)

import {
  ArrowUpToLine,
  Combine,
  Copy,
  Group,
  Link2,
  Repeat2,
  Shapes,
  Slice,
  Tent,
  Ungroup,
  type LucideIcon,
} from 'lucide-react'
import {
  changeRecipe,
  doAgain,
  groupMasses,
  joinMasses,
  massOf,
  newRepeat,
  ridgeAlongOf,
  setPitch,
} from '@geotome/core/form'
import { raiseToEnvelope } from '@geotome/core/groundwork'
import { offers, type MoveKind } from '@geotome/core/moves'
import { inOrder, numbersOf } from '@geotome/core/project'
import { WAYS } from '@geotome/core/repeats'
import { makeEdit } from '../app/session'
import { lastDone } from '../app/last-done'
import { picked, toolTaken } from '../app/view-slice'
import type { Now, Verb } from './kind'
import { drawnNow } from './outlines'

const mint = () => crypto.randomUUID()
const one = (now: Now) => (now.masses.length === 1 ? now.masses[0] : undefined)

/** Two picked masses become one. */
export function joinPicked({ project, scheme, dispatch }: Pick<Now, 'project' | 'scheme' | 'dispatch'>, ids: string[]) {
  const [a, b] = ids
  if (!a || !b) return
  const label = `join ${massOf(scheme, b).name} to ${massOf(scheme, a).name}`
  if (makeEdit(label, () => joinMasses(project, scheme, mint, a, b))) dispatch(picked({ kind: 'mass', ids: [a] }))
}

/** The moves of some groups that fit the picked mass, each as a verb. The picked face and the chosen storeys are what they begin with. */
const movesOf =
  (groups: readonly NonNullable<MoveKind<never>['group']>[], icon: LucideIcon, under: string) =>
  (now: Now): Verb[] => {
    const { project, scheme, view } = now
    const mass = one(now)
    if (!mass) return []
    const own = view.study?.masses.find((m) => m.id === mass.id)?.faces.map((f) => f.name) ?? []
    const first = view.spots.filter((s) => s.kind === 'face' && s.mass === mass.id).flatMap((s) => s.faces)
    const fit = offers(mass.recipe, numbersOf(project, scheme), mint, {
      others: inOrder(scheme.masses).filter((m) => m.id !== mass.id),
      faces: [...new Set([...first, ...own])],
      storeys: view.storeys,
    })
    return fit
      .filter((o) => o.group && groups.includes(o.group))
      .map((o): Verb => ({
        label: o.title.charAt(0).toUpperCase() + o.title.slice(1),
        icon,
        under,
        desks: ['form'],
        help: '',
        run: () => void makeEdit(`${o.title} of ${mass.name}`, () => changeRecipe(scheme, mass, o.to)),
      }))
  }

const SHAPE = 'Shape'
const ROOF = 'Roof'
const COMBINE = 'Combine'
const needsOne: NonNullable<Verb['off']> = (now) => (one(now) ? null : 'Pick one mass first')

export const MOVE_VERBS: readonly Verb[] = [
  {
    label: SHAPE,
    icon: Shapes,
    desks: ['form'],
    help: '',
    opens: (now) => movesOf(['plan', 'shape'], Shapes, SHAPE)(now).filter((v) => v.label !== 'Split a face'),
    off: needsOne,
    run: () => {},
  },
  {
    label: ROOF,
    icon: Tent,
    desks: ['form'],
    help: '',
    opens: (now) => movesOf(['roof'], Tent, ROOF)(now).filter((v) => v.label !== 'Pitch'),
    off: needsOne,
    run: () => {},
  },
  {
    label: COMBINE,
    icon: Combine,
    desks: ['form'],
    help: '',
    opens: movesOf(['with others'], Combine, COMBINE),
    off: ({ masses }) => (masses.length ? null : 'Pick a mass first'),
    run: () => {},
  },
  {
    label: 'Pitch',
    icon: Tent,
    key: 'G',
    under: ROOF,
    desks: ['form'],
    off: (now) => {
      const mass = one(now)
      if (!mass) return 'Pick one mass first'
      return mass.recipe.some((m) => m.move === 'pitch') ? 'It has a pitch: change it in the details' : null
    },
    run: (now) => {
      const mass = one(now)
      if (mass)
        makeEdit(`pitch ${mass.name}`, () =>
          setPitch(now.scheme, mass, mint, {
            angle: 35,
            direction: ridgeAlongOf(mass.recipe, numbersOf(now.project, now.scheme)),
          }),
        )
    },
  },
  {
    label: 'Join',
    icon: Link2,
    key: 'J',
    under: COMBINE,
    desks: ['form'],
    help: 'join two picked masses',
    off: ({ masses }) => (masses.length === 2 ? null : 'Pick two masses first: click one, Shift-click the other'),
    run: (now) =>
      joinPicked(
        now,
        now.masses.map((m) => m.id),
      ),
  },
  ...WAYS.map((way): Verb => ({
    label: `Repeat ${way.way === 'once' ? 'up the storeys' : way.called}`,
    icon: Copy,
    under: COMBINE,
    desks: ['form'],
    help: '',
    off: ({ masses, scheme }) =>
      masses.length === 0
        ? 'Pick a mass first'
        : way.way === 'sides' && Object.keys(scheme.masses).length === masses.length
          ? 'There is no other mass'
          : null,
    run: ({ project, scheme, masses, dispatch }) => {
      const made = mint()
      const ids = masses.map((m) => m.id)
      const edit = () => newRepeat(project, scheme, () => made, ids, way.way, way.way === 'once')
      if (makeEdit(`repeat ${masses[0]?.name ?? ''}`, edit))
        dispatch(picked({ kind: 'repeat', ids: [made], one: null }))
    },
  })),
  {
    label: 'Group',
    icon: Group,
    under: COMBINE,
    desks: ['form'],
    help: '',
    off: ({ masses }) => (masses.length > 1 ? null : 'Pick two masses or more first'),
    run: ({ scheme, masses }) =>
      void makeEdit(`group ${masses.length} masses`, () =>
        groupMasses(
          scheme,
          masses.map((m) => m.id),
          'Group 1',
        ),
      ),
  },
  {
    label: 'Ungroup',
    icon: Ungroup,
    under: COMBINE,
    desks: ['form'],
    help: '',
    off: ({ masses }) => (masses.some((m) => m.group) ? null : 'Pick a mass of a group first'),
    run: ({ scheme, masses }) =>
      void makeEdit('ungroup', () =>
        groupMasses(
          scheme,
          masses.map((m) => m.id),
          null,
        ),
      ),
  },
  {
    label: 'Split the picked face by a line',
    icon: Slice,
    under: SHAPE,
    desks: ['form'],
    help: '',
    off: ({ view }) => (view.face?.frame ? null : 'Pick a flat face first'),
    run: (now) => void now.dispatch(toolTaken({ ...drawnNow(now), tool: 'polygon', becomes: 'split' })),
  },
  {
    label: 'Raise to the envelope',
    icon: ArrowUpToLine,
    under: SHAPE,
    desks: ['form'],
    help: '',
    off: (now) => (!now.project.site ? 'Draw a site at the Ground desk first' : needsOne(now)),
    run: ({ project, scheme, masses: [mass] }) => {
      if (mass) makeEdit(`raise ${mass.name} to the envelope`, () => raiseToEnvelope(project, scheme, mint, mass.id))
    },
  },
  {
    label: 'Again',
    icon: Repeat2,
    key: 'Y',
    under: SHAPE,
    desks: ['form'],
    help: 'does the last change again, with its last value, to what is picked',
    off: ({ masses }) => (!lastDone() ? 'Nothing was done yet' : masses.length ? null : 'Pick a mass first'),
    run: ({ project, scheme, masses }) => {
      const done = lastDone()
      if (done)
        makeEdit('again', () =>
          doAgain(
            project,
            scheme,
            mint,
            masses.map((m) => m.id),
            done,
          ),
        )
    },
  },
]

import { moveJoint } from '@geotome/core/form'
import { showQuantity } from '@geotome/core/project'
import { gapOf, type Vec2 } from '@geotome/core/solid'
import { store } from '../../app/store'
import { spotsPicked } from '../../app/view-slice'
import { cageJoints, type CageJoint } from '../../stage/cage'
import { toPane } from '../../stage/camera'
import { asideBy, saidOf } from './joint'
import type { MassHandle, OnMass } from './kind'

/** joints that are shown at most: of a finer cage those are picked by its faces */
const MOST = 120

/** px that an edge is long, below which it is not held by its middle, and below which its corners are not, either */
const [HELD, SEEN] = [40, 18]

/** What can be held of the cage, without what is picked of it: that has handles of its own. What is too small to hold is left out. */
const jointsOf = ({ shown, spots, view, size }: OnMass): CageJoint[] => {
  const picked = spots[0]?.faces.join()
  const joints = cageJoints(shown)
  const long = new Map(
    joints.map((j) => {
      const [a = [0, 0], b = a] = j.ends.map((p) => toPane(view, size, p))
      return [j, gapOf(a, b)]
    }),
  )
  const most = Math.max(0, ...long.values())
  return joints
    .filter((j) => (j.kind === 'corner' ? most > SEEN : (long.get(j) ?? 0) > HELD) && j.faces.join() !== picked)
    .slice(0, MOST)
}

/** The corners and edges of what a soft form is drawn from: dragged in plan; clicked, they are picked, and then move up, too. */
export const cage: MassHandle = {
  name: 'cage',
  help: ['drag a dot of a soft form’s cage', 'moves that corner or edge; click it to move it up, or make it crisp'],
  spots: (on) =>
    jointsOf(on).map(({ kind, at }, i) => ({
      key: `${kind} ${i}`,
      at: toPane(on.view, on.size, at),
      glyph: kind === 'corner' ? 'dot' : 'hidden-dot',
    })),
  begin: (on, i, from) => {
    const joint = jointsOf(on)[i]
    const { project } = on.world
    const made = crypto.randomUUID()
    const { faces = [], kind = 'corner' } = joint ?? {}
    return {
      label: `shift ${on.mass.name}`,
      slack: 3,
      click: () => void store.dispatch(spotsPicked([{ kind, mass: on.mass.id, faces: [...faces] }])),
      answer: ({ at }: { at: Vec2 }) => {
        if (!joint) return null
        const by = asideBy(on, joint.at, from, at, project.stride.length)
        if (by.every((d) => d === 0)) return null
        return {
          say: [saidOf(by, (d) => showQuantity(d, 'length', project))],
          edit: (now) => moveJoint(now.project, now.scheme, () => made, on.mass.id, faces, by),
        }
      },
    }
  },
}

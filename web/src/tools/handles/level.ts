import { carriedBy, levelHeights, moveLevel } from '@geotome/core/levels'
import { showNumber, type Scheme } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { soon } from '../../common/soon'
import type { Grip } from '../hand'
import type { World } from '../kind'
import { stridden } from './standing'

export const LEVEL_HELP = [
  ['drag a level', 'moves it, wherever it is drawn'],
  ['Alt while dragging a level', 'holds those above'],
] as const

/**
 * A level held in the spine, an elevation or a section; `perPixel` m to a pixel. Says its height, whether those above follow, and what
 * goes along.
 */
export function levelGrip(
  id: string,
  from: Vec2,
  perPixel: number,
  world: World,
  then: { click: Grip['click']; done: (() => void)[] },
): Grip {
  const { project, scheme } = world
  const along = { carried: goingAlong(scheme, id, false), held: goingAlong(scheme, id, true) }
  const z0 = levelHeights(project, scheme).find((l) => l.id === id)?.height ?? 0
  return {
    label: `move ${scheme.levels[id]?.name ?? 'level'}`,
    // What is let go within a few pixels was a click; the level goes along from the first one.
    slack: 3,
    follows: true,
    click: then.click,
    // What is shown and picked then, and all that is told of it, comes after the level lies where it was let go, one by one.
    done: () => then.done.forEach(soon),
    answer: ({ at, alt }) => {
      const z = stridden(z0, -(at[1] - from[1]) * perPixel, project.stride.length)
      const how = alt ? 'held' : 'carried'
      const [carried, held] = (['carried', 'held'] as const).map((h) =>
        JSON.stringify(moveLevel(project, scheme, id, z, h)),
      )
      const say = [
        showNumber(z, 'length', project),
        carried === held ? '' : alt ? 'above: held' : 'above: carried (Alt holds)',
        along[how],
      ]
      if (z === z0) return { say }
      return { say, edit: (now) => moveLevel(now.project, now.scheme, id, z, how) }
    },
  }
}

/** What goes along with a level that is dragged: "7 levels, 1 mass, 8 parts". */
function goingAlong(scheme: Scheme, id: string, held: boolean): string {
  const c = carriedBy(scheme, id)
  const some = (n: number, one: string) => (n ? [`${n} ${n === 1 ? one : one === 'mass' ? 'masses' : `${one}s`}`] : [])
  return [...(held ? [] : some(c.levels.length, 'level')), ...some(c.masses, 'mass'), ...some(c.parts, 'part')].join(
    ', ',
  )
}

import { areaOf, subtractRegions } from '../../solid'
import { showQuantity } from '../../project'
import { notCounted } from '../../slice'
import { type Check } from '../types'
import { finding, type Finding } from '../finding'

/** Floor without a clear height of the headroom above it: shown and listed, not counted. */
export const lowHeadroom: Check = {
  kind: 'low headroom',
  why: 'Such floor cannot be used or sold as floor.',
  run: ({ project, context, floors }) => {
    const headroom = context.numbers.length(project.headroom)
    return floors.flatMap((floor) =>
      floor.noted.flatMap((island) => {
        if (island.low === 0 && !island.shares.some((s) => s.low.length)) return NONE
        const region = context.memo.keep(island, 'low', [], () =>
          subtractRegions(notCounted(island), island.slivers.flat()),
        )
        const area = context.memo.keep(region, 'area', [], () => areaOf(region))
        if (area < 0.01) return NONE
        const masses = island.shares.filter((s) => s.low.length).map((s) => s.plate.mass)
        const names = masses.map((m) => context.scheme.masses[m]?.name ?? '').join(', ')
        return [
          finding(
            'low headroom',
            `${floor.level.id}:${masses[0] ?? ''}`,
            `${showQuantity(area, 'area', project)} of ${names} at ${floor.level.name} is lower than ${showQuantity(headroom, 'length', project, project.unit === 'm' ? 2 : undefined)}`,
            'It is not counted. Raise the form, move the level, or let the mass not take this level.',
            { level: floor.level.id, masses, area, region },
          ),
        ]
      }),
    )
  },
}

const NONE: Finding[] = []

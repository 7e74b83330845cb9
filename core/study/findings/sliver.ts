import { showQuantity } from '../../project'
import { areaOf } from '../../solid'
import { type Check } from '../types'
import { finding } from '../finding'

/** Pieces of floor smaller than the smallest area that counts. */
export const sliver: Check = {
  kind: 'sliver',
  why: 'Pieces this small are no rooms.',
  run: ({ project, context, floors }) => {
    const smallest = context.numbers.value(project.smallestArea, 'area')
    return floors.flatMap((floor) =>
      floor.noted
        .filter((island) => island.slivers.length > 0)
        .flatMap((island) =>
          island.slivers.map((piece, i) => {
            const masses = island.shares.map((s) => s.plate.mass)
            const area = areaOf(piece)
            return finding(
              'sliver',
              `${floor.level.id}:${masses[0] ?? ''}:${i}`,
              `A piece of floor at ${floor.level.name} has only ${showQuantity(area, 'area', project)}`,
              `Pieces under ${showQuantity(smallest, 'area', project)} are not counted. Widen the form there, or set another smallest area.`,
              { level: floor.level.id, masses, area, region: piece },
            )
          }),
        ),
    )
  },
}

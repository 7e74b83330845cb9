import { showQuantity } from '../../project'
import { piecesOf, TOLERANCE } from '../../solid'
import { depthOf, outlineOf } from '../areas'
import { finding } from '../finding'
import type { Check } from '../types'

/** Floor that lies farther from a facade than is wanted, where a limit is said. */
export const tooDeep: Check = {
  kind: 'too deep a floor',
  why: 'What lies far from a facade has little daylight and no view.',
  afterwards: true,
  run: ({ project, context, floors, scheme }) => {
    if (project.deepest === null) return []
    const limit = context.numbers.length(project.deepest)
    return floors.flatMap((floor) =>
      floor.islands.flatMap((island) => {
        const pieces = context.memo.keep(island, 'outline in pieces', [], () => piecesOf(outlineOf(island)))
        const depth = depthOf(pieces)
        if (depth <= limit + TOLERANCE.least) return []
        const masses = [...new Set(island.shares.map((s) => s.plate.mass))]
        const names = masses.map((m) => scheme.masses[m]?.name ?? '').join(', ')
        return [
          finding(
            'too deep a floor',
            `${floor.level.id}:${masses[0] ?? ''}`,
            `${names} at ${floor.level.name} is ${showQuantity(depth, 'length', project)} deep`,
            `No place should be farther than ${showQuantity(limit, 'length', project)} from a facade. Make it narrower, cut a court, or set another limit.`,
            { level: floor.level.id, masses, region: island.region },
          ),
        ]
      }),
    )
  },
}

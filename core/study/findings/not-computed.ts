import { sayInUnits, type NodeFailure, type Shown } from '../../project'
import { finding, type Finding } from '../finding'

export const NOT_COMPUTED = 'not computed'

/** The nodes of a study that failed: each is a finding on its thing, with the reason; all else was computed. */
export const notComputed = (failures: readonly NodeFailure[], shown: Shown): Finding[] =>
  [...new Map(failures.map((f) => [keyOf(f), f])).values()].map(({ node, say, remedy }) =>
    finding(
      NOT_COMPUTED,
      `${node.what}:${node.id}:${node.level ?? ''}`,
      `${node.what === 'check' ? `The check "${node.name}" cannot be made` : `${node.name}: its ${node.what} cannot be computed, and is left out`}: ${sayInUnits(say, shown)}`,
      remedy || 'Undo the last change of it, or change it in another way. All else is computed.',
      { level: node.level ?? null, masses: node.masses ?? [], parts: node.parts ?? [] },
    ),
  )

const keyOf = ({ node }: NodeFailure) => `${node.what} ${node.id} ${node.level ?? ''}`

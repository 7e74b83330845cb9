import { joinMasses } from '../../form'
import { showQuantity } from '../../project'
import type { Overlap, Island } from '../../slice'
import { finding, type Finding } from '../finding'
import type { Floor } from '../floor'
import type { Check } from '../types'

/** Masses that overlap on a floor: the floor is counted once, and said. */
export const overlap: Check = {
  kind: 'overlap',
  why: 'The floor is counted once; whoever reads the masses singly counts it twice.',
  run: ({ project, scheme, floors }) => {
    const pairs = new Map<string, { found: Finding; largest: number; floors: number }>()
    const note = (o: Overlap, floor: Floor): string[] => {
      const [a, b] = [scheme.masses[o.a], scheme.masses[o.b]]
      if (!a || !b) return []
      const id = [o.a, o.b].sort().join('+')
      const known = pairs.get(id)
      if (known) known.floors++
      if (known && known.largest >= o.area - 0.005) return [id]
      const found = finding(
        'overlap',
        id,
        `${a.name} and ${b.name} overlap by ${showQuantity(o.area, 'area', project)} at ${floor.level.name}`,
        'The floor is counted once. Join them, or move one.',
        {
          level: floor.level.id,
          masses: [o.a, o.b],
          area: o.area,
          region: o.region,
          fix: { label: 'Join them', edit: (mint) => joinMasses(project, scheme, mint, o.a, o.b) },
        },
      )
      pairs.set(id, { found, largest: o.area, floors: known?.floors ?? 1 })
      return [id]
    }
    // Floors that are alike have one island: its overlaps are counted again, and not looked at again.
    const seen = new Map<Island, string[]>()
    for (const floor of floors)
      for (const island of floor.noted) {
        const ids = seen.get(island)
        if (!ids)
          seen.set(
            island,
            island.overlaps.flatMap((o) => note(o, floor)),
          )
        else
          for (const id of ids) {
            const pair = pairs.get(id)
            if (pair) pair.floors++
          }
      }
    return [...pairs.values()].map(({ found, floors: count }) =>
      count > 1 ? { ...found, say: `${found.say}, and on ${count - 1} more` } : found,
    )
  },
}

import { joinMasses } from '../../form'
import { showQuantity } from '../../project'
import type { Overlap } from '../../slice'
import { finding, type Finding } from '../finding'
import type { Floor } from '../floor'
import type { Check } from '../types'

/** Masses that overlap on a floor: the floor is counted once, and said. */
export const overlap: Check = {
  kind: 'overlap',
  why: 'The floor is counted once; whoever reads the masses singly counts it twice.',
  run: ({ project, scheme, floors }) => {
    const pairs = new Map<string, { found: Finding; largest: number; levels: Finding['levels'] }>()
    const note = (id: string, o: Overlap, { level }: Floor, [a, b]: [string, string]) => {
      const known = pairs.get(id)
      const levels = known?.levels ?? []
      levels.push({ level: level.id, area: o.area })
      if (known && known.largest >= o.area - 0.005) return
      const found = finding(
        'overlap',
        id,
        `${a} and ${b} overlap by ${showQuantity(o.area, 'area', project)} at ${level.name}`,
        'The floor is counted once. Join them, or move one.',
        {
          level: level.id,
          masses: [o.a, o.b],
          area: o.area,
          levels,
          region: o.region,
          fix: { label: 'Join them', edit: (mint) => joinMasses(project, scheme, mint, o.a, o.b) },
        },
      )
      pairs.set(id, { found, largest: o.area, levels })
    }
    for (const floor of floors)
      for (const { overlaps } of floor.noted)
        for (const o of overlaps) {
          const [a, b] = [scheme.masses[o.a]?.name, scheme.masses[o.b]?.name]
          if (a !== undefined && b !== undefined) note([o.a, o.b].sort().join('+'), o, floor, [a, b])
        }
    return [...pairs.values()].map(({ found, levels }) =>
      levels.length > 1 ? { ...found, say: `${found.say}, and on ${levels.length - 1} more` } : found,
    )
  },
}

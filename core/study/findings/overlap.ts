import { joinMasses } from '../../form'
import { showQuantity } from '../../project'
import type { Overlap } from '../../slice'
import { finding, type Finding } from '../finding'
import type { Floor } from '../floor'
import type { Check } from '../types'

/** What overlaps on a floor, with the lists that further storeys like it are added to. */
interface Alike {
  noted: Floor['noted']
  lists: { levels: Finding['levels']; area: number }[]
}

/** Masses that overlap on a floor: the floor is counted once, and said. */
export const overlap: Check = {
  kind: 'overlap',
  why: 'The floor is counted once; whoever reads the masses singly counts it twice.',
  run: ({ project, scheme, floors }) => {
    const pairs = new Map<string, { found: Finding; largest: number; levels: Finding['levels'] }>()
    const told = (id: string, o: Overlap, { level }: Floor, levels: Finding['levels']): Finding | null => {
      const [a, b] = [scheme.masses[o.a]?.name, scheme.masses[o.b]?.name]
      if (a === undefined || b === undefined) return null
      return finding(
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
    }
    let alike: Alike = { noted: [], lists: [] }
    for (const floor of floors) {
      // Most storeys are like the one below.
      if (alike.noted === floor.noted) {
        for (const { levels, area } of alike.lists) levels.push({ level: floor.level.id, area })
        continue
      }
      alike = { noted: floor.noted, lists: [] }
      for (const { overlaps } of floor.noted)
        for (const o of overlaps) {
          const id = o.a < o.b ? `${o.a}+${o.b}` : `${o.b}+${o.a}`
          let pair = pairs.get(id)
          // Of storeys that are alike the lowest is told, with all of them listed.
          if (pair && pair.largest >= o.area - 0.005) pair.levels.push({ level: floor.level.id, area: o.area })
          else {
            const levels = [...(pair?.levels ?? []), { level: floor.level.id, area: o.area }]
            const found = told(id, o, floor, levels)
            if (!found) continue
            pairs.set(id, (pair = { found, largest: o.area, levels }))
          }
          alike.lists.push({ levels: pair.levels, area: o.area })
        }
    }
    return [...pairs.values()].map(({ found, levels }) =>
      levels.length > 1 ? { ...found, say: `${found.say}, and on ${levels.length - 1} more` } : found,
    )
  },
}

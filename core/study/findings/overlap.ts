import { joinMasses } from '../../form'
import { type Check } from '../types'
import { finding } from '../finding'
import { type Finding } from '../finding'

/** Masses that overlap on a floor: the floor is counted once, and said. */
export const overlap: Check = {
  kind: 'overlap',
  run: ({ project, scheme, floors }) => {
    const pairs = new Map<string, Finding & { largest: number; floors: number }>()
    for (const floor of floors)
      for (const island of floor.noted)
        for (const o of island.overlaps) {
          const id = [o.a, o.b].sort().join('+')
          const known = pairs.get(id)
          if (known && known.largest >= o.area - 0.005) {
            known.floors++
            continue
          }
          const [a, b] = [scheme.masses[o.a], scheme.masses[o.b]]
          if (!a || !b) continue
          pairs.set(id, {
            ...finding(
              'overlap',
              id,
              `${a.name} and ${b.name} overlap by ${o.area.toFixed(2)} m² at ${floor.level.name}`,
              'The floor is counted once. Join them, or move one.',
              {
                level: floor.level.id,
                masses: [o.a, o.b],
                area: o.area,
                region: o.region,
                fix: { label: 'Join them', edit: (mint) => joinMasses(project, scheme, mint, o.a, o.b) },
              },
            ),
            largest: o.area,
            floors: (known?.floors ?? 0) + 1,
          })
        }
    return [...pairs.values()].map(({ largest: _l, floors: count, ...f }) =>
      count > 1 ? { ...f, say: `${f.say}, and on ${count - 1} more` } : f,
    )
  },
}

import { floorName } from '../../levels'
import { type Check } from '../types'
import { finding } from '../finding'

/** Storeys at one height: they are one floor, which is counted once. */
export const levelsAtOneHeight: Check = {
  kind: 'levels at one height',
  why: 'Two storeys at one height are one floor.',
  run: ({ scheme, floors }) =>
    floors.flatMap((floor) =>
      floor.also.map((same) => {
        const hangs = Object.values(scheme.parts).some((p) => p.base?.level === same.id || p.top?.level === same.id)
        return finding(
          'levels at one height',
          same.id,
          `${floorName(floor)} lie at one height`,
          `They are one floor, counted once, at ${floor.level.name}. Move ${same.name}, delete it, or make it a mark.`,
          {
            level: same.id,
            // Parts would lose the storey that they stand on.
            fix: hangs
              ? null
              : {
                  label: `Make ${same.name} a mark`,
                  edit: () => ({ edit: 'level.change', scheme: scheme.id, id: same.id, set: { kind: 'mark' } }),
                },
          },
        )
      }),
    ),
}

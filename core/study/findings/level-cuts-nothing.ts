import { removeLevel } from '../../levels'
import { type Check } from '../types'
import { finding } from '../finding'

/** A storey that no mass takes: it carries no floor. */
export const levelCutsNothing: Check = {
  kind: 'level cuts nothing',
  why: 'A storey without floor is in all lists for nothing.',
  run: ({ project, scheme, floors, forms }) =>
    forms.length === 0
      ? []
      : floors
          .filter((f) => f.plates.length === 0 && f.oneWith === null)
          .map((floor) =>
            finding(
              'level cuts nothing',
              floor.level.id,
              `${floor.level.name} cuts nothing`,
              'No mass reaches it, or none takes it. Raise a mass, move the level, make it a mark, or delete it.',
              {
                level: floor.level.id,
                fix:
                  floors.length > 1
                    ? { label: 'Delete the level', edit: () => removeLevel(project, scheme, floor.level.id) }
                    : null,
              },
            ),
          ),
}

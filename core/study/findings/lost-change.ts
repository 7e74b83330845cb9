import { inOrder } from '../../project'
import { finding } from '../finding'
import type { Check } from '../types'

/** A change of a plate that has nothing to change any more: the form has gone from under it. */
export const lostChange: Check = {
  kind: 'change of a plate without its place',
  why: 'Its area counts as if the change had not been made.',
  run: ({ scheme, floors }) =>
    inOrder(scheme.plateEdits).flatMap((change) => {
      const name = scheme.masses[change.mass]?.name
      const lost = change.levels.filter((id) => {
        const floor = floors.find((f) => f.level.id === id)
        const { does } = change
        // What is left out whole has no share any more, and is noted all the same.
        if (does.kind !== 'use') return !floor?.off.get(change.mass)?.some((o) => o.by === change.id)
        return !floor?.islands.some((i) => i.shares.some((s) => s.plate.mass === change.mass && s.use === does.use))
      })
      if (lost.length === 0) return []
      const names = lost.map((id) => scheme.levels[id]?.name ?? '').join(', ')
      const what = { inset: 'The floor set in', 'leave-out': 'What is left out', use: 'What has a use of its own' }[
        change.does.kind
      ]
      return [
        finding(
          'change of a plate without its place',
          change.id,
          name ? `${what} of ${name} finds no floor at ${names}` : `${what} was of a mass that is gone`,
          'Move the form back under it, or take the change back.',
          {
            level: lost[0] ?? null,
            masses: name ? [change.mass] : [],
            fix: {
              label: 'Take the change back',
              edit: () =>
                lost.length === change.levels.length
                  ? { edit: 'plate-edit.remove', scheme: scheme.id, id: change.id }
                  : {
                      edit: 'plate-edit.change',
                      scheme: scheme.id,
                      id: change.id,
                      set: { levels: change.levels.filter((l) => !lost.includes(l)) },
                    },
            },
          },
        ),
      ]
    }),
}

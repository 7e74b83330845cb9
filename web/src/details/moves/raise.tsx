import { levelHeights } from '@geotome/core/levels'
import { raisedBy, withMove } from '@geotome/core/moves'
import { heightsOf, numbersOf, showNumber, showQuantity, tidy } from '@geotome/core/project'
import { usePickedMasses, useProject } from '../../app/hooks'
import { ChoiceField } from '../../common/fields'
import { NumField } from '../../common/NumField'
import { has, type MoveOnPage, type MoveProps } from './kind'

export const raise: MoveOnPage<'raise'> = { Fields: RaiseFields }

/** By a height, or up to a level and so much above it. */
function RaiseFields({ recipe, move: raise, change, attempt }: MoveProps<'raise'>) {
  const pitched = has(recipe, 'pitch')
  const { project, scheme } = useProject()
  const [mass] = usePickedMasses()
  const numbers = numbersOf(project, scheme)
  const heights = heightsOf(scheme, numbers)
  const base = mass ? (heights.get(mass.base.level) ?? 0) + numbers.length(mass.base.above) : 0
  const levels = levelHeights(project, scheme).filter((l) => l.height > base + 1e-3)
  const now = raisedBy(raise, { ...numbers, base, heights })
  const set = (level: string) => {
    if (level === '') {
      change('raise', (r) => withMove(r, raise, { upTo: null, height: tidy(now) }))
      return
    }
    change('raise', (r) => withMove(r, raise, { upTo: { level, above: 0 } }))
  }
  return (
    <>
      <ChoiceField
        label={pitched ? 'eaves, up to' : 'up to'}
        value={raise.upTo?.level ?? ''}
        options={[
          { value: '', label: 'its own height' },
          ...[...levels]
            .reverse()
            .map((l) => ({ value: l.id, label: `${l.name}  ${showNumber(l.height, 'length', project)}` })),
          ...(raise.upTo && !levels.some((l) => l.id === raise.upTo?.level)
            ? [{ value: raise.upTo.level, label: scheme.levels[raise.upTo.level]?.name ?? 'a level' }]
            : []),
        ]}
        onChange={set}
      />
      {raise.upTo ? (
        <NumField
          label="above that level by"
          value={raise.upTo.above}
          hint={`${showQuantity(now, 'length', project)} high; it follows the level`}
          onAccept={(above) =>
            change('height', (r) => withMove(r, raise, { upTo: raise.upTo && { ...raise.upTo, above } }))
          }
        />
      ) : (
        <NumField
          label={pitched ? 'eaves height' : 'height'}
          value={raise.height}
          onAccept={(height) => change('height', (r) => withMove(r, raise, { height }))}
          onTry={(height) => attempt(height === null ? null : (r) => withMove(r, raise, { height }))}
        />
      )}
    </>
  )
}

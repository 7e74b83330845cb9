import { levelHeights } from '@geotome/core/levels'
import { planOf, type Move } from '@geotome/core/moves'
import { heightsOf, numbersOf, showNumber, type AtLevel } from '@geotome/core/project'
import { faceLabel, faceName } from '@geotome/core/solid'
import { usePickedMasses, useProject } from '../../app/hooks'
import { ChoiceField } from '../../common/fields'

/** A level above the base of the picked mass that a move is tied to, or something else. */
export function LevelChoice({
  label,
  at,
  otherwise,
  onChange,
}: {
  label: string
  at: AtLevel | null
  otherwise: string
  onChange: (at: AtLevel | null) => void
}) {
  const { project, scheme } = useProject()
  const [mass] = usePickedMasses()
  const numbers = numbersOf(project, scheme)
  const base = mass
    ? (heightsOf(scheme, numbers).get(mass.base.level) ?? 0) + numbers.length(mass.base.above)
    : -Infinity
  const levels = levelHeights(project, scheme).filter((l) => l.height > base - 1e-3 || l.id === at?.level)
  return (
    <ChoiceField
      label={label}
      value={at?.level ?? ''}
      options={[
        { value: '', label: otherwise },
        ...[...levels]
          .reverse()
          .map((l) => ({ value: l.id, label: `${l.name}  ${showNumber(l.height, 'length', project)}` })),
      ]}
      onChange={(level) => onChange(level === '' ? null : { level, above: 0 })}
    />
  )
}

/** The sides of a recipe's outline, by name. */
export const sidesOf = (recipe: Move[], numbers: Parameters<typeof planOf>[1]): string[] => [
  ...new Set(planOf(recipe, numbers).flatMap((l) => l.edges)),
]

/** A side of the outline; `all`: what it is called where none is meant. */
export function SideChoice({
  recipe,
  side,
  all,
  onChange,
}: {
  recipe: Move[]
  side: string | null
  all?: string
  onChange: (side: string | null) => void
}) {
  const { project, scheme } = useProject()
  const sides = sidesOf(recipe, numbersOf(project, scheme))
  return (
    <ChoiceField
      label="side"
      value={side ?? ''}
      options={[
        ...(all ? [{ value: '', label: all }] : []),
        ...[...new Set([...sides, ...(side ? [side] : [])])].map((edge) => ({
          value: edge,
          label: faceLabel(faceName('side', edge)),
        })),
      ]}
      onChange={(next) => onChange(next === '' ? null : next)}
    />
  )
}

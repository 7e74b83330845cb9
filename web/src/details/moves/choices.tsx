import { levelHeights } from '@geotome/core/levels'
import { planOf, type Move } from '@geotome/core/moves'
import { heightsOf, numbersOf, showNumber, type AtLevel } from '@geotome/core/project'
import { outlineTitles } from '@geotome/core/form'
import { faceLabel, faceName } from '@geotome/core/solid'
import { usePickedMasses, useProject, useStudy } from '../../app/hooks'
import { ChoiceField } from '../../common/fields'
import { calledFace } from '../../stage/spot'
import type { MassView } from '../../worker/protocol'

/** The levels that a move of the picked mass may be tied to: those above its base, from the lowest up. */
export function useLevelsAbove(): { id: string; name: string; height: number }[] {
  const { project, scheme } = useProject()
  const [mass] = usePickedMasses()
  const numbers = numbersOf(project, scheme)
  const base = mass
    ? (heightsOf(scheme, numbers).get(mass.base.level) ?? 0) + numbers.length(mass.base.above)
    : -Infinity
  return levelHeights(project, scheme).filter((l) => l.height > base - 1e-3)
}

/** A level above the base of the picked mass that a move is tied to, or one of a few other things, by their words. */
export function LevelChoice<W extends string>({
  label,
  at,
  others,
  other,
  onChange,
}: {
  label: string
  at: AtLevel | null
  others: readonly { value: W; label: string }[]
  /** which of the others it is, where it is tied to no level */ other: W
  onChange: (at: AtLevel | W) => void
}) {
  const { project, scheme } = useProject()
  const above = useLevelsAbove()
  const own = at && !above.some((l) => l.id === at.level) ? scheme.levels[at.level] : null
  return (
    <ChoiceField
      label={label}
      value={at?.level ?? other}
      options={[
        ...others,
        ...(own ? [{ value: own.id, label: own.name }] : []),
        ...[...above]
          .reverse()
          .map((l) => ({ value: l.id, label: `${l.name}  ${showNumber(l.height, 'length', project)}` })),
      ]}
      onChange={(value) => onChange(others.find((o) => o.value === value)?.value ?? { level: value, above: 0 })}
    />
  )
}

/** The picked mass as it stands. */
function usePickedView(): MassView | undefined {
  const [mass] = usePickedMasses()
  return useStudy()?.masses.find((m) => m.id === mass?.id)
}

/** The names of the picked mass's faces, as they are now. */
export const useFlatFaces = (): string[] => usePickedView()?.faces.map((f) => f.name) ?? []

/** A face of the picked mass, by its name; `none`: what it is called where none is meant. */
export function FaceChoice({
  label,
  face,
  none,
  onChange,
}: {
  label: string
  face: string | null
  none?: string | undefined
  onChange: (face: string | null) => void
}) {
  const mass = usePickedView()
  const faces = mass?.faces.map((f) => f.name) ?? []
  return (
    <ChoiceField
      label={label}
      value={face ?? ''}
      options={[
        ...(none ? [{ value: '', label: none }] : []),
        ...[...new Set([...faces, ...(face === null ? [] : [face])])].map((name) => ({
          value: name,
          label: calledFace(mass, name),
        })),
      ]}
      onChange={(next) => onChange(next === '' ? null : next)}
    />
  )
}

/** The sides of a recipe's outline, by name. */
export const sidesOf = (recipe: Move[], numbers: Parameters<typeof planOf>[1]): string[] => [
  ...new Set(planOf(recipe, numbers).flatMap((l) => l.edges)),
]

/** A side of the outline; `all`: what it is called where none is meant. */
export function SideChoice({
  label,
  recipe,
  side,
  all,
  onChange,
}: {
  label: string
  recipe: Move[]
  side: string | null
  all?: string | undefined
  onChange: (side: string | null) => void
}) {
  const { project, scheme } = useProject()
  const [mass] = usePickedMasses()
  const numbers = numbersOf(project, scheme)
  const sides = sidesOf(recipe, numbers)
  const titles = outlineTitles(recipe, numbers, mass?.recipe === recipe ? numbers.angle(mass.place.turn) : 0)
  return (
    <ChoiceField
      label={label}
      value={side ?? ''}
      options={[
        ...(all ? [{ value: '', label: all }] : []),
        ...[...new Set([...sides, ...(side ? [side] : [])])].map((edge) => ({
          value: edge,
          label: faceLabel(faceName('side', edge), titles),
        })),
      ]}
      onChange={(next) => onChange(next === '' ? null : next)}
    />
  )
}

import { capital, howSaid, keptDirection, saidDirection, type Num } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { NumField } from './NumField'

/** A direction in plan, kept in degrees from the x axis of a frame and typed and read as the project says directions. */
export function DirectionField({
  label,
  kept,
  turn = 0,
  of = '',
  hint = '',
  onAccept,
  onTry,
}: {
  label: string
  kept: Num
  /** degrees from east to the x axis of the frame */
  turn?: number
  /** whose north it is, where that is not the site's */
  of?: string
  hint?: string
  onAccept: (kept: Num) => boolean | void
  onTry?: (kept: Num | null) => void
}) {
  const { directions } = useProject().project
  return (
    <NumField
      label={label}
      quantity="angle"
      value={saidDirection(kept, directions, turn)}
      hint={`${capital(howSaid(directions, of))}. ${hint}`.trim()}
      onAccept={(said) => onAccept(keptDirection(said, directions, turn))}
      {...(onTry
        ? { onTry: (said: Num | null) => onTry(said === null ? null : keptDirection(said, directions, turn)) }
        : {})}
    />
  )
}

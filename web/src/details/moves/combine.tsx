import { detach } from '@geotome/core/form'
import { usePickedMasses, useProject } from '../../app/hooks'
import { makeEdit } from '../../app/session'
import { LinkButton } from '../../common/LinkButton'
import type { MoveOnPage, MoveProps } from './kind'

export const combine: MoveOnPage<'combine'> = { More: Detach }

/** From then on it no longer follows the other mass. */
function Detach({ move }: MoveProps<'combine'>) {
  const { project, scheme } = useProject()
  const [mass] = usePickedMasses()
  if (!mass?.recipe.some((m) => m.id === move.id) || !scheme.masses[move.mass] || move.span) return null
  const { name } = scheme.masses[move.mass] ?? { name: '' }
  return (
    <LinkButton
      onClick={() => makeEdit(`detach ${mass.name} from ${name}`, () => detach(project, scheme, mass.id, move.id))}
    >
      Detach it from {name}
    </LinkButton>
  )
}

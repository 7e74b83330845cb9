import { keepRest } from '@geotome/core/form'
import { usePickedMasses, useProject } from '../../app/hooks'
import { makeEdit } from '../../app/session'
import { LinkButton } from '../../common/LinkButton'
import { mint, type MoveOnPage, type MoveProps } from './kind'

export const cut: MoveOnPage<'cut'> = { More: KeepRest }

/** What the cut throws away can be kept as a mass of its own. */
function KeepRest({ move: cut }: MoveProps<'cut'>) {
  const { scheme } = useProject()
  const [mass] = usePickedMasses()
  if (!mass?.recipe.some((m) => m.id === cut.id) || !cut.on || cut.span) return null
  return (
    <LinkButton
      onClick={() => makeEdit(`keep the rest of ${mass.name}`, () => keepRest(scheme, mint, mass.id, cut.id))}
    >
      Keep the rest as a mass
    </LinkButton>
  )
}

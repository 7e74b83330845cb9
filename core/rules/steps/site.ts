import { length } from '../../moves'
import { refuse, type Num } from '../../values'
import { namedInTurn, newCell } from '../cell'
import type { StepBase, StepKind } from './kind'

export interface SiteStep extends StepBase {
  step: 'site'
  /** m further in than the setbacks */ by: Num
}

/** Begins with what the setbacks leave of the site. */
export const site: StepKind<SiteStep> = {
  step: 'site',
  called: 'site',
  about: 'what the setbacks leave of the site',
  fields: { by: length('further in by') },
  says: 'begin with the site, set in by its setbacks and {by} more',
  starts: () => ({ by: 0 }),
  begins: (s, { numbers, world }) => {
    const { site: is } = world
    if (!is) return refuse('geometry', 'There is no site.', 'Draw its site at the Ground desk first.')
    const by = numbers.length(s.by)
    const pieces = is.within(by)
    if (pieces.length === 0)
      return refuse('geometry', 'Set in so far, nothing is left of the site.', 'Set it in by less.')
    return pieces.map((plan, i) =>
      newCell(namedInTurn(plan), { key: `${i + 1}`, at: [i + 1, pieces.length], by: s.id }),
    )
  },
}

import { length, setBack } from '../../moves'
import { planOfOutlines } from '../../solid'
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
    const left = setBack(is.plan, (side) => (is.setbacks[side] ?? 0) + by, 'the site')
    return [newCell(namedInTurn(planOfOutlines(left)), { key: '1', at: [1, 1], by: s.id })]
  },
}

import { bodyHeights, bodyMesh, type PartStudy } from '../../fabric'
import { heightLimits, setbackLimits, type Envelope, type LimitFigure } from '../../project'
import { TOLERANCE } from '../../solid'
import { permittedHeight } from '../permitted'
import type { Check, Study } from '../types'
import { finding } from '../finding'
import { sayLimit } from './over-envelope'

/** Parts that pass a limit farther than the form that they stand on: a roof over the permitted height, a wall outside of its face. */
export const fabricOverEnvelope: Check = {
  kind: 'fabric over the envelope',
  why: 'Limits hold for what is built: a roof on top of a form counts.',
  afterwards: true,
  run: (study) => {
    const limits = new Map<string, { part: PartStudy; limit: LimitFigure }>()
    for (const part of study.parts)
      for (const limit of passedBy(study, part)) {
        const key = `${part.part.host.mass} ${limit.limit} ${limit.side}`
        if (limit.over > (limits.get(key)?.limit.over ?? 0)) limits.set(key, { part, limit })
      }
    return [...limits].map(([key, { part, limit }]) =>
      finding(
        'fabric over the envelope',
        key,
        `${part.part.name} is over ${sayLimit(limit, study.project)}`,
        'Its form is not, or not so far. Lower the form, put the part inside of its face, or take a thinner build-up.',
        { masses: [part.part.host.mass], parts: [part.id] },
      ),
    )
  },
}

/** The limits that a part passes farther than its form does. */
function passedBy(
  { context, ground, levels, forms }: Omit<Study, 'findings' | 'muted'>,
  part: PartStudy,
): LimitFigure[] {
  const { body, part: stored } = part
  const envelope = ground.envelope ?? NONE
  const permitted = permittedHeight(ground.envelope, levels)
  if (!body || (!ground.envelope && !permitted)) return []
  const own = ground.fits.get(stored.host.mass)?.limits ?? []
  const found = context.memo.keep(body, 'limits', [envelope, permitted?.height], () => {
    const { z1 } = bodyHeights(body)
    const mark: LimitFigure[] =
      permitted?.by === 'mark' ? [{ limit: 'height', side: null, name: null, over: z1 - permitted.height }] : []
    if (z1 <= TOLERANCE.point) return []
    const inPlan = ground.envelope && part.plan.length ? setbackLimits(envelope, part.plan) : []
    return [...mark, ...heightLimits(envelope, z1, bodyMesh(body)), ...inPlan].filter((l) => l.over > TOLERANCE.touch)
  })
  const top = forms.find((f) => f.id === stored.host.mass)?.top ?? 0
  const overOf = (l: LimitFigure) =>
    permitted?.by === 'mark' && l.limit === 'height'
      ? top - permitted.height
      : (own.find((o) => o.limit === l.limit && o.side === l.side)?.over ?? 0)
  return found.filter((l) => l.over > Math.max(0, overOf(l)) + TOLERANCE.least)
}

const NONE: Envelope = { ring: [], side: [], names: [], setbacks: [], region: [], area: 0, limit: null, slopes: [] }

import { changePlate, insetPlate } from '../form'
import { briefEdit, bringOver } from '../groundwork'
import { inOrder, type BriefOf } from '../project'
import { schemeOf } from './make'
import { anyOf, type Step } from './work-pick'

/** Steps of work on areas: what masses give, uses by storeys, changes of plates, the brief, what is brought over. */
export const AREA_STEPS: Step[] = [
  (p, pick) => ({
    edit: 'mass.change',
    scheme: schemeOf(p).id,
    id: anyOf(schemeOf(p).masses, pick),
    set: { gives: ([null, null, 'void', 'core'] as const)[pick(4)] ?? null },
  }),
  (p, pick, mint) => {
    const id = anyOf(schemeOf(p).masses, pick)
    const levels = schemeOf(p).levels
    const one = { id: mint(), use: anyOf(p.uses, pick), from: anyOf(levels, pick), to: anyOf(levels, pick) }
    const before = schemeOf(p).masses[id]?.storeyUses ?? []
    return {
      edit: 'mass.change',
      scheme: schemeOf(p).id,
      id,
      set: { storeyUses: pick(3) ? [...before, one] : before.slice(1) },
    }
  },
  (p, pick, mint) => {
    const [mass, level] = [anyOf(schemeOf(p).masses, pick), anyOf(schemeOf(p).levels, pick)]
    const [x, y] = [pick(80) / 10 - 2, pick(60) / 10 - 2]
    switch (pick(3)) {
      case 0:
        return insetPlate(schemeOf(p), mint, mass, [level], 0.2 + pick(20) / 10)
      case 1:
        return changePlate(
          p,
          schemeOf(p),
          mint,
          mass,
          [level],
          { kind: 'rectangle', from: [x, y], to: [x + 1 + pick(5), y + 1 + pick(4)] },
          pick(2) ? { leaveOut: true } : { use: anyOf(p.uses, pick) },
        )
      default:
        return changePlate(
          p,
          schemeOf(p),
          mint,
          mass,
          [level],
          {
            line: [
              [x, y],
              [x + 1 + pick(9), y + pick(9) - 4],
            ],
          },
          { use: anyOf(p.uses, pick) },
        )
    }
  },
  (p, pick) => ({ edit: 'plate-edit.remove', scheme: schemeOf(p).id, id: anyOf(schemeOf(p).plateEdits, pick) }),
  (p, pick, mint) => {
    const use = anyOf(p.uses, pick)
    const of: BriefOf = pick(2)
      ? { kind: 'use', use, measure: pick(2) ? 'gross' : 'net' }
      : { kind: 'count', use, size: 40 + pick(50), measure: 'gross' }
    const line = {
      id: mint(),
      name: `line ${mint()}`,
      order: 0,
      of,
      bound: 'least' as const,
      target: 1 + pick(900),
      tolerance: 0.05,
    }
    return briefEdit(p, [line])
  },
  (p, pick) => ({ edit: 'brief-line.remove', id: anyOf(p.brief, pick) }),
  (p, pick) => ({
    edit: 'use.change',
    id: anyOf(p.uses, pick),
    set: pick(2) ? { efficiency: pick(100) / 100 } : { cores: pick(30) / 100 },
  }),
  (p, pick) => ({
    edit: 'project.change',
    set: pick(2) ? { wallAllowance: pick(3) ? pick(60) / 100 : null } : { deepest: pick(3) ? 4 + pick(6) : null },
  }),
  (p, pick) => {
    const other = inOrder(p.schemes)[0]
    return other
      ? bringOver(p, schemeOf(p), other, {
          masses: pick(3) ? [anyOf(schemeOf(p).masses, pick)] : [],
          levels: pick(2) ? [anyOf(schemeOf(p).levels, pick)] : [],
          parts: pick(2) === 1,
        })
      : null
  },
]

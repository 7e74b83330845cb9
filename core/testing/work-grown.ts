import {
  changeRepeat,
  changeRule,
  detachRepeated,
  freezeRule,
  growAgain,
  leaveOut,
  leaveOutOfRule,
  newRepeat,
  newRule,
  newStep,
  ownUse,
  trimRule,
  withStep,
  withStepBehind,
} from '../form'
import { READY_RULES } from '../rules'
import { studied, schemeOf } from './make'
import { anyOf, reshaped, type Step } from './work-pick'

const corners = (wide: number, high: number) =>
  [
    [0, 0],
    [wide, 0],
    [0, high],
  ].map(([x = 0, y = 0], i) => ({ id: `e${i + 1}`, x, y, bulge: 0 }))
const grownKey = (p: Parameters<Step>[0], pick: Parameters<Step>[1], id: string) => {
  const keys = [...studied(p).growth.from.values()].filter((f) => f.id === id).map((f) => f.key)
  return keys[pick(Math.max(1, keys.length))] ?? 'none'
}

/** Steps of work on repeats, rules, dials and profiles. */
export const GROWN_STEPS: Step[] = [
  (p, pick, mint) => {
    const id = anyOf(schemeOf(p).masses, pick)
    const way = (['line', 'grid', 'round', 'path', 'points', 'sides'] as const)[pick(6)] ?? 'line'
    const made = newRepeat(p, schemeOf(p), mint, [id], way, pick(3) === 0)
    return { ...made, thing: { ...made.thing, every: 1 + pick(2), which: pick(3) ? 'all' : 'chessboard' } }
  },
  (p, pick) => {
    const id = anyOf(schemeOf(p).repeats, pick)
    return pick(2)
      ? changeRepeat(schemeOf(p), id, {
          way: { way: 'line', count: 1 + pick(5), apart: 20 + pick(9), direction: pick(360) },
        })
      : leaveOut(schemeOf(p), id, grownKey(p, pick, id), pick(3) > 0)
  },
  (p, pick, mint) => {
    const id = anyOf(schemeOf(p).repeats, pick)
    const key = grownKey(p, pick, id)
    return pick(2)
      ? ownUse(schemeOf(p), id, key, pick(2) ? anyOf(p.uses, pick) : null)
      : detachRepeated(schemeOf(p), studied(p).growth, mint, id, pick(2) ? key : null)
  },
  (p, pick, mint) => {
    const ready = READY_RULES.filter((r) => r.ready !== 'cluster')
    const stands = {
      use: anyOf(p.uses, pick),
      level: anyOf(schemeOf(p).levels, pick),
      at: [60 + pick(40), -pick(40)] as const,
    }
    return newRule(p, schemeOf(p), mint, stands, ready[pick(ready.length)]?.ready ?? null)
  },
  (p, pick, mint) => trimRule(schemeOf(p), mint, anyOf(schemeOf(p).masses, pick), pick(2) ? 'bands' : 'fins'),
  (p, pick) => {
    const rule = schemeOf(p).rules[anyOf(schemeOf(p).rules, pick)]
    const trim = rule?.steps.find((s) => s.step === 'bands' || s.step === 'fins')
    return rule && trim
      ? withStep(schemeOf(p), rule.id, trim.id, { profile: pick(3) ? anyOf(p.profiles, pick) : null })
      : rule
        ? changeRule(schemeOf(p), rule.id, { place: { x: pick(90), y: pick(50), turn: pick(360) } })
        : null
  },
  (p, pick, mint) => {
    const rule = schemeOf(p).rules[anyOf(schemeOf(p).rules, pick)]
    const kinds = ['side', 'place', 'number', 'choose', 'dress', 'sort', 'repeat'] as const
    return rule
      ? withStepBehind(
          schemeOf(p),
          rule.id,
          newStep(kinds[pick(kinds.length)] ?? 'sort', mint),
          rule.steps[pick(rule.steps.length)]?.id ?? null,
        )
      : null
  },
  (p, pick) => {
    const dial = schemeOf(p).dials[anyOf(schemeOf(p).dials, pick)]
    return dial
      ? { edit: 'dial.change', scheme: schemeOf(p).id, id: dial.id, set: { value: Math.max(1, pick(30)) } }
      : null
  },
  (p, pick) => {
    const rule = schemeOf(p).rules[anyOf(schemeOf(p).rules, pick)]
    if (!rule) return null
    const key = grownKey(p, pick, rule.id)
    if (pick(3) === 0) return leaveOutOfRule(schemeOf(p), rule.id, key, pick(2) > 0)
    if (rule.frozen) return growAgain(schemeOf(p), rule.id)
    return pick(2)
      ? freezeRule(schemeOf(p), studied(p).growth, rule.id)
      : { edit: 'rule.remove', scheme: schemeOf(p).id, id: rule.id }
  },
  (p, pick, mint) => ({
    edit: 'profile.add',
    thing: {
      id: mint(),
      name: `Profile ${mint()}`,
      order: pick(9),
      shape: { kind: 'polygon', corners: corners(0.1 + pick(4) / 10, 0.2 + pick(5) / 10) },
      x: 0,
      y: 0,
    },
  }),
  (p, pick) => {
    const id = anyOf(p.profiles, pick)
    return pick(4)
      ? {
          edit: 'profile.change',
          id,
          set: { shape: { kind: 'polygon', corners: corners(0.2 + pick(4) / 10, 0.4) }, y: pick(3) / 10 },
        }
      : { edit: 'profile.remove', id }
  },
  (p, pick, mint) =>
    reshaped(p, pick, (r) => [
      ...r,
      {
        id: mint(),
        move: 'combine',
        on: true,
        how: pick(2) ? 'less' : 'join',
        mass: anyOf(schemeOf(p).masses, pick),
        copies: pick(2) ? 'all' : 'one',
      },
    ]),
  (p, pick, mint) =>
    reshaped(p, pick, (r) => [
      ...r.slice(0, 2),
      {
        id: mint(),
        move: 'soft',
        on: true,
        edges: pick(2) ? 'smooth' : 'crisp',
        steps: 1,
        own: [],
        open: [],
        thick: 0.2,
        symmetric: 'no',
        about: 0,
      },
    ]),
]
